/** The addresses of the site that a visitor may know of: what is open to them, and what shows them a teaser. */

import type { View } from './context';
import { givenAt } from './given-at';

/** Paths with the day of what is there, if it has one. */
export const sitemapOf = (
  context: View,
): readonly { readonly path: string; readonly date: string | null }[] =>
  [...context.state.outline.addressed.values()].flatMap((item) => {
    const { kind } = givenAt(context, item.id);
    return kind === 'open' || kind === 'teaser'
      ? [{ path: encodeURI(item.address), date: item.facts?.date ?? null }]
      : [];
  });
