/** Writing: pages and posts, menus, files. */
export {
  addressesFor,
  changeItem,
  type ItemAnswer,
  type ItemEdit,
  startOf,
  withDefaults,
} from './change-items';
export type { Document, DocumentProblem } from './document';
export { editedEnrolling, enrollingOf, enrollingProblem, enrollingShape } from './enrolling-form';
export { homePage, homeProblem, makeHome } from './home-page';
export { turnsLost } from './in-turn';
export { type PreviewAnswer, previewWriting } from './preview';
export { problemIn } from './problem-in';
export {
  editedQuiz,
  type QuestionRead,
  type QuizRead,
  quizProblems,
  quizShape,
  readQuestion,
} from './quiz-form';
export { bringBack, goingWith, latestRemovals, previewRemoval, type RemovalPreview } from './remove-items';
export {
  editedSection,
  type SectionRead,
  sectionProblems,
  sectionShape,
  storedSection,
  target,
} from './section-form';
export type { SharedDocument } from './shared-document';
export { MOST_SHARED, readStands, standsShape, writtenStands } from './shared-form';
export { type SiteOverview, siteOverview } from './site-overview';
export { editedTask, taskShape } from './task-form';
export { uploadFile } from './upload';
export {
  type DraftAnswer,
  draftedItems,
  dropWriting,
  type KeptDraft,
  readWriting,
  type SendAnswer,
  saveWriting,
  sendWriting,
  type Writing,
} from './write-document';
export { type SiteItems, writeSite, writeWhatItemsHold } from './write-site';
