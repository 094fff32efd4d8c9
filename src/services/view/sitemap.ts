/** The addresses of the site that a visitor may know of: what is open to them, and what shows them a teaser. */
import { givenAt } from './given-at';
import type { Look } from './look';

/** Paths with the day of what is there, if it has one. */
export const sitemapOf = (look: Look): readonly { readonly path: string; readonly date: string | null }[] =>
  [...look.state.outline.addressed.values()].flatMap((item) => {
    const { kind } = givenAt(look, item.id);
    return kind === 'open' || kind === 'teaser'
      ? [{ path: encodeURI(item.address), date: item.facts?.date ?? null }]
      : [];
  });
