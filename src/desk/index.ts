/** The administrator's side. */
export { Desk } from './desk';
export { readPlace, titleOfPlace } from './place';
export { WalkScreen } from './walk/walk-screen';
