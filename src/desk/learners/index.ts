/** Learners: how far they are, and what is done about it. */
export { LearnersScreen } from './learners-screen';
export { TutorDesk } from './tutor-desk';
