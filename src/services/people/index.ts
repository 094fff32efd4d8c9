/** People and names: finding them, changing them, many at once. */

export {
  applyChange,
  type ChangeAnswer,
  latestChanges,
  type SiteChange,
  undoChange,
  writeChange,
} from './apply-change';
export {
  changePeople,
  type PeopleAnswer,
  type PeopleEdit,
  type PeoplePreview,
  type SavePersonAnswer,
  savePerson,
} from './change-people';
export { type Crowd, crowdsOf, type MembershipView, MOST_NAMED, membershipOf } from './columns';
export { type CsvProblem, tableOf } from './csv-table';
export { editNames, KINDS, type NamesAnswer, type NamesEdit, type NamesPreview } from './edit-names';
export { findMembers, memberWithId } from './find-members';
export { draftVocabulary, type FindAnswer, findPeople, type PeoplePage, peopleWhere } from './find-people';
export { holdersAtTill } from './holders';
export { has, holdingsOf, recordsOfNothing, withoutName } from './holdings';
export { type InviteAnswer, invitePeople, putInvitations, type Unanswered, unanswered } from './invitations';
export { type NameReport, namesReport } from './names-report';
export { newcomer, personWithMail } from './newcomer';
export { type CsvAnswer, type CsvDryRun, exportPeople, importPeople, LARGEST_CSV } from './people-csv';
export { type FactChange, personDifference } from './person-difference';
export { deskForm, type FormProblems } from './person-form';
export {
  boardOf,
  boardSets,
  dropBoardSet,
  keepBoard,
  keepBoardSet,
  type NamedStandIns,
  personBehind,
  readStandIn,
  standInOf,
} from './stand-ins';
