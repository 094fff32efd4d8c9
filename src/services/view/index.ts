/** The site as a visitor gets it. */

export { type AccountView, accountOf } from './account-view';
export { coloursNamed } from './colours-at';
export { decisionOn, decisionOnHost, opens, type View, type ViewContext, viewOf } from './context';
export {
  type ActivitiesAround,
  type ActivityEntry,
  type ActivityPlace,
  type ActivityStanding,
  type CourseOutline,
  courseOutline,
  type UnitEntry,
} from './course-view';
export { type Choice, type Entry, postsOf, type ShownPicture, teaserOf } from './entry';
export { type Feed, type FeedItem, feedOf } from './feed';
export { type Frame, frameFor, type MenuLink, type ShownMenu } from './frame';
export { type Given, givenAt, givenNowhere } from './given-at';
export { type HandInView, handInView } from './hand-in-view';
export { Kept } from './kept';
export { type ListAnswer, named, viewList } from './list-view';
export {
  givesInWords,
  hasPrice,
  holdsNow,
  type Offer,
  type OfferedPrice,
  offerOf,
  offersFor,
  type Sold,
  shownPrice,
  soldAs,
} from './offers';
export type { QuizOutline } from './quiz-outline';
export {
  type AnsweredView,
  type AnswerProblems,
  type QuestionView,
  type QuizView,
  quizView,
  resultOf,
} from './quiz-view';
export { Recording } from './recording';
export { type Hit, type PassagePart, type SearchAnswer, search } from './search';
export { type FileEntry, type SectionView, sectionViews, slugOf } from './section-view';
export { sitemapOf } from './sitemap';
export { type Step, signInAddress } from './step';
export { type TaskOutline, taskIn } from './task-outline';
export {
  contentOf,
  deadLinksIn,
  htmlIn,
  linksIn,
  picturesWithoutWords,
  readyFor,
  regionsIn,
  summaryOf,
  textsReady,
  type WithheldLink,
  withheldLinks,
} from './texts';
export {
  addressedAt,
  type Elsewhere,
  elsewhere,
  instead,
  nowhere,
  type PageAnswer,
  type PageFacts,
  pageFacts,
  signInNote,
  viewPage,
  viewPageInTime,
} from './view-page';
