/** Editing a gate. */
export { Composer } from './composer';
export { TurnAwayPreview } from './turn-away-preview';
