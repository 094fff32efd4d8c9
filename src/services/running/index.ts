/** The running program: its state, its settings, who asks, and what they may. */

export { momentAt, plainRequest, setClockAhead, theTime } from './clock';
export {
  type Administrator,
  administratorOf,
  branchItems,
  branchName,
  NotAllowed,
  requirePermission,
  requirePermissionAt,
} from './desk-right';
export { databaseIn, type Environment, readEnvironment } from './environment';
export { forgetOld, NOWHERE } from './journal';
export { Busy, isBusy, lane } from './lane';
export { messagesOf } from './messages';
export { memberOf, type Person, personOf, recordOf } from './person';
export { environment, runningTrivet } from './running';
export {
  deviceMark,
  deviceOf,
  hashFilePassword,
  hashPassphrase,
  hashPassword,
  hashToken,
  keyBytes,
  newToken,
  passwordIsRight,
} from './secrets';
export { newSettings } from './settings';
export { byGroupIn, byProductIn, enrollingIn, isSoldOut, type SiteState } from './site-state';
export { tendSnapshot } from './snapshot';
export { tendTables } from './tables';
export { Trivet } from './trivet';
export { noteTrouble, tellTroubleTo } from './trouble';
export { guestVisitor, knownVisitorOf, type Visitor, visitorOf } from './visitor';
export { inTurns, yielder, yieldToOthers } from './yielding';
