/** Selling: setting out to buy, taking notices, what somebody bought, and what the desk sees of it. */
export { askAbout, tendOrders } from './ask-till';
export { changePlan, type OtherPlan, type PlanAnswer } from './change-plan';
export { OWN_PURCHASES } from './letters';
export { type ClockMoved, moveClock } from './move-clock';
export { type OrderAnswer, orderAt, type Waiting } from './order-at';
export {
  newCard,
  type OwnPurchase,
  type OwnPurchases,
  type OwnStep,
  ownPurchases,
  ownReceipt,
  type ReceiptView,
  stopOwn,
} from './own-purchases';
export { type BuyProblems, orderAddress, type SetOut, setOut } from './set-out';
export { type Taken, takeNotices, takeSignedNotice } from './take-notice';
