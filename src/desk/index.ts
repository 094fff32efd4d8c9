/** The administrator's side. */
export { Desk } from './desk';
export { WalkScreen } from './walk/walk-screen';
