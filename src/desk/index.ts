/** The administrator's side. */
export { Desk } from './desk';
export { panelWidthIn } from './panel-width';
export { TutorDesk } from './tutor';
export { readView, titleOfView } from './view';
export { WalkScreen } from './walk';
