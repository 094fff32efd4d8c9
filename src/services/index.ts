/** What a person can do, one file per use case. */
export { type Administrator, administratorOf } from './desk-right';
export * from './effect-of-draft';
export { type Environment, readEnvironment } from './environment';
export { findMembers } from './find-members';
export { importSite, type SiteFile } from './import-site';
export type { PolicyProblem } from './policy-form';
export * from './put-live';
export { type DeskData, readDesk } from './read-desk';
export { databaseIn, environment, runningTrivet } from './running';
export { type SaveAnswer, saveDraft } from './save-draft';
export * from './sign-in';
export { signOut } from './sign-out';
export { keepBoard } from './stand-ins';
export { Trivet } from './trivet';
export * from './view-page';
export { type Visitor, visitorOf } from './visitor';
export { startWalk, type WalkUnderWay, walkOf } from './walk';
