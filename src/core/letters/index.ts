/** The letters that Trivet writes, as templates. */
export { filledLetter, type LetterValues, LONGEST_LETTER, LONGEST_SUBJECT, letterProblems } from './fill';
export {
  exampleOf,
  LETTER_GROUPS,
  LETTER_KINDS,
  LETTERS,
  type LetterKind,
  type LetterTemplate,
  namesIn,
} from './letters';
export { paragraphsOf } from './paragraphs';
