/** Conditions as they are written at the desk. */
export { CompletingArea } from './completing-area';
export { ConditionEditor } from './condition-editor';
export { TextForm } from './condition-text';
export { exampleOf } from './example';
export { newTest } from './new-test';
export { Passing } from './passing';
export { conditionRemarkText } from './remark-text';
export { WhoEditor } from './who-editor';
