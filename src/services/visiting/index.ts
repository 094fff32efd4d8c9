/** What visitors do: signing in and up, passphrases, forms, keys, their own account. */
export { fileAt } from './file-at';
export { handIn, handInAt, handInFor, handInOnWalk, mostSent, ownHandedFile } from './handing-in';
export { answerInvitation, type Invited, invitationAt } from './invitation';
export { type Key, type KeyAnswer, keysOf, makeKey, personWithKey, revokeKey } from './keys';
export { landingFor } from './landing';
export { completeActivity, courseTaking, enrolOneself, isDoneByOpening } from './learning';
export { countTry, MINUTE } from './limits';
export { followGroup, keepOwnFields, type OwnAnswer } from './own-account';
export { parametersOf, requestFactsOf } from './request-facts';
export { type FormAnswer, sendForm } from './send-form';
export * from './sign-in';
export { signOut } from './sign-out';
export * from './sign-up';
export { SESSION_MS, type Started, startAnew, startSession } from './start-session';
export { beginAttempt, quizAt, quizFor, quizOnWalk, takeAnswers } from './taking-quiz';
export * from './unlock';
export { notePlayed } from './watching';
