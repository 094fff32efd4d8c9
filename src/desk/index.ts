/** The administrator's side. */
export { Desk } from './desk';
export { readView, titleOfView } from './view';
export { WalkScreen } from './walk/walk-screen';
