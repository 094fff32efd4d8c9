import { DEEPEST_ITEM, type Item, outlineOf, tooDeepIn } from '@/core';

/** Why items are no site, as a sentence; null when they are one. */
export function problemIn(items: readonly Item[]): string | null {
  const outline = outlineOf(items);
  if ('problems' in outline) return outline.problems[0]?.message ?? 'That is no site any more.';
  const deep = tooDeepIn(outline);
  return deep && `“${deep.title}” would stand more than ${DEEPEST_ITEM} deep. Move it further up.`;
}
