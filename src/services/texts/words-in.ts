/** The words of elements. */
import type { Root, RootContent } from 'hast';

export const wordsIn = (node: Root | RootContent): string =>
  node.type === 'text' ? node.value : 'children' in node ? node.children.map(wordsIn).join('') : '';
