/** Gates: the draft, what it would change, putting it live, what was live before. */
export * from './audience-report';
export { readConditionTexts } from './condition-texts';
export { type EffectReport, effectOfDraft } from './effect-of-draft';
export { type PastChange, pastChanges, type Revision, revisionAt, revisionsOf } from './history';
export { policyInFile } from './policy-form';
export { type BrokenExpectation, brokenIn, proved } from './prove';
export * from './put-live';
export { goneIn, type PolicyProblem, readPolicy } from './read-policy';
export { type SaveAnswer, saveDraft } from './save-draft';
export * from './who-passes';
