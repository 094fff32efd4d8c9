/** The text form of conditions: printing, reading, completing. */
export { type Completions, completionsAt } from './complete';
export { nearest } from './names';
export {
  hasOwnWords,
  namedInOwnWords,
  OWN_WORDS,
  type OwnWord,
  ownCompletionsAt,
  ownValue,
  ownWordProblem,
  ownWordsIn,
  type Reader,
  renameOwnWords,
  replaceOwnWords,
} from './own-words';
export { type CouldStand, type ParsedCondition, parseCondition, type TextError } from './parse';
export { type Calling, printCondition } from './print';
export * from './regions';
