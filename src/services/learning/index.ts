/** Courses from their tutor's side: how far learners are, marking what they did, enrolling. */
export {
  type CourseProgress,
  courseProgress,
  coursesTaught,
  exportProgress,
  type ProgressOfLearner,
} from './course-progress';
export { endEnrolment } from './end-enrolment';
export { type EnrolPreview, enrolLearners } from './enrol-learners';
export { type HandedIn, type HandInsWaiting, handedFileFor, handInsWaiting, judge } from './hand-ins';
export { type ActivityOfLearner, type LearnerReport, learnerReport } from './learner-report';
export { markDone } from './mark-done';
