/** What a person can do, one file per use case. */

export type { FormField, WalkScene } from '@/store';
export { type ChangeAnswer, latestChanges, undoChange } from './apply-change';
export * from './audience-report';
export { breath } from './breath';
export {
  changePeople,
  type PeopleAnswer,
  type PeopleEdit,
  type PeoplePreview,
  type SavePersonAnswer,
  savePerson,
} from './change-people';
export { checkLeaks } from './check-leaks';
export { plainRequest } from './clock';
export type { Crowd } from './columns';
export { type Administrator, administratorOf, NotAllowed, need } from './desk-right';
export {
  editNames,
  type NamesAnswer,
  type NamesEdit,
  type NamesPreview,
} from './edit-names';
export { editSettings, type OpenSettings, openSettings } from './edit-settings';
export { type EffectReport, effectOfDraft } from './effect-of-draft';
export { type Environment, readEnvironment } from './environment';
export { fileAt } from './file-at';
export { findMembers, memberWithId } from './find-members';
export { type FindAnswer, findPeople, type PeoplePage } from './find-people';
export { type PastChange, pastChanges, type Revision, revisionAt, revisionsOf } from './history';
export { type ItemReach, itemReach } from './item-reach';
export { type JournalEntry, type JournalReport, journalReport, type Tally } from './journal-report';
export { type Key, type KeyAnswer, keysOf, makeKey, personWithKey, revokeKey } from './keys';
export { landingFor } from './landing';
export { Busy } from './lane';
export * from './leak-check';
export { type NameReport, namesReport } from './names-report';
export { followGroup, keepOwnFields, type OwnAnswer } from './own-account';
export { type CsvAnswer, type CsvDryRun, exportPeople, importPeople, LARGEST_CSV } from './people-csv';
export { type Person, personOf } from './person';
export type { FormProblems } from './person-form';
export { type PersonReport, personReport, type Reach } from './person-reach';
export * from './put-live';
export { type DeskData, readDesk } from './read-desk';
export { LARGEST_FILE } from './read-file';
export { latestMail } from './read-outbox';
export type { PolicyProblem } from './read-policy';
export { requestFactsOf } from './request-facts';
export { databaseIn, environment, runningTrivet } from './running';
export { type SaveAnswer, saveDraft } from './save-draft';
export type { SectionRead } from './section-form';
export { type FormAnswer, sendForm } from './send-form';
export * from './sign-in';
export { signOut } from './sign-out';
export * from './sign-up';
export * from './site-file';
export { boardSets, dropBoardSet, keepBoard, keepBoardSet, type NamedStandIns } from './stand-ins';
export { SESSION_MS, type Started } from './start-session';
export { Trivet } from './trivet';
export * from './unlock';
export * from './view';
export { type Visitor, visitorOf } from './visitor';
export { startWalk, type WalkUnderWay, walkOf } from './walk';
export { type WalkReport, type Withheld, walkReport } from './walk-report';
export * from './who-passes';
export { wouldDo } from './would-do';
export * from './write';
