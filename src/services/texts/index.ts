/** Texts as HTML and as words that can be searched, read ahead where that takes long. */

export { BASE_MARK, markdownProblem, OWN_MARK, plainTextOf } from './markdown';
export { readAhead, renderedHtml } from './renderings';
export { indexItems, indexOnce } from './search-index';
export { textUses } from './text-uses';
