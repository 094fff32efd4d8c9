/** Texts as HTML and as words that can be searched, read ahead where that takes long. */

export {
  cut,
  type DocumentRead,
  type FoundDocument,
  LARGEST_TEXT,
  type Note,
  readFound,
  TEXT_ENDS,
  type TextKind,
} from './found';
export { BASE_MARK, markdownProblem, OWN_MARK, plainTextOf } from './markdown';
export { readAhead, renderedHtml } from './renderings';
export { indexItems, indexOnce, searchTextsIn, writeSearchTexts } from './search-index';
export { textUses } from './text-uses';
