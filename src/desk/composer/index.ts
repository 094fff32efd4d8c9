/** Editing a gate. */
export { Composer } from './composer';
export { TurnAwayEditor } from './turn-away-editor';
export { TurnAwayPreview } from './turn-away-preview';
export { countsOfKinds, WhatEditor } from './what-leg';
