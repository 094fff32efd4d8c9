/** Gates: the draft, what it would change, putting it live, what was live before. */
export * from './audience-report';
export { type Concerned, whomItConcerns } from './concerned';
export { readConditionTexts } from './condition-texts';
export { type EffectReport, effectOfDraft } from './effect-of-draft';
export { type EffectBetween, effectsBetween } from './effects-between';
export { foundToday } from './found-today';
export { type PastChange, pastChanges, type Revision, revisionAt, revisionsOf } from './history';
export { MOST_EXPECTATIONS, MOST_GATES, MOST_LANDINGS, policyInFile } from './policy-form';
export { type BrokenExpectation, brokenIn, type ExpectationReport, reportOn } from './prove';
export * from './put-live';
export { goneIn, type PolicyProblem, readPolicy } from './read-policy';
export { type SaveAnswer, saveDraft } from './save-draft';
export { type FindingSetAside, findingsSetAside, setFindingAside } from './set-asides';
export * from './who-passes';
