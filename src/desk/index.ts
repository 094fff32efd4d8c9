/** The administrator's side. */
export { Desk } from './desk';
export { readPlace } from './place';
export { WalkScreen } from './walk/walk-screen';
