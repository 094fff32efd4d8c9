/** Selling: setting out to buy, taking notices, what somebody bought, and what the desk sees of it. */
export { askAbout, tendOrders } from './ask-till';
export { type ByHandPreview, byHandPreview, type SoldByHand, sellByHand } from './by-hand';
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
export type { IfEnded } from './purchase-effect';
export { endOrder, refundOrder } from './sale-steps';
export {
  exportSales,
  exportSeats,
  type OrderReport,
  type OrderStanding,
  orderReport,
  type Sale,
  type SalesCharts,
  type SalesPage,
  type SeatHolder,
  salesPage,
  salesTo,
  seatsOf,
} from './sales';
export { type BuyProblems, orderAddress, type SetOut, setOut } from './set-out';
export {
  leaveToPurchases,
  type NamedItem,
  type ProductAtDesk,
  type ShopAtDesk,
  saveTerms,
  saveVoucher,
  shopAtDesk,
  type TermsAnswer,
  type TermsPreview,
  type VoucherAnswer,
} from './shop-desk';
export { type Taken, takeNotices, takeSignedNotice } from './take-notice';
