/** What comes from outside, read strictly: texts, ids, days, conditions. */
import './shape-problems';

export { accountForm, mailAddress, newPassword, personName } from './account-form';
export { conditionShape, tooDeep } from './condition-form';
export { languageShape, letterShape, lettersOf, lettersShape } from './letters-form';
export { LARGEST_FILE, type ReadFile, readFile } from './read-file';
export { signUpShape } from './sign-up-form';
export { termsIn, termsProblems, termsShape } from './terms-form';
export { as, dayForm, id, newId, percentage, spaced, webAddress, words } from './text-form';
export { timeZone } from './time-zone';
export { conditionOrText, MOST_TARGETS, whatShape } from './what-form';
export {
  lookOf,
  lookShape,
  plainText,
  startsNow,
  startsOf,
  startsProblems,
  startsShape,
  wordsShape,
} from './wishes-form';
