/** Pages that list posts: of a category, of a tag. They exist for those who get at least one entry. */

import { addressIn, type View } from './context';
import { type Entry, entriesOf } from './entry';
import { type Frame, frameFor } from './frame';
import { slugOf } from './section-view';

export type ListAnswer =
  | {
      readonly kind: 'list';
      readonly frame: Frame;
      readonly of: 'category' | 'tag';
      readonly title: string;
      readonly entries: readonly Entry[];
      readonly newer: string | null;
      readonly older: string | null;
      /** Feeds of just this list; of categories only. */
      readonly feed: string | null;
    }
  | { readonly kind: 'missing'; readonly frame: Frame };

const AT_ONCE = 20;

/** The list of a category or tag, by its name as it stands in an address; `page` counts from 1. */
export function viewList(context: View, of: 'category' | 'tag', slug: string, page: number): ListAnswer {
  const name = named(context, of, slug);
  const from = (page - 1) * AT_ONCE;
  const entries = name === null ? [] : entriesOf(context, { [of]: name }, AT_ONCE + 1, from);
  if (name === null || entries.length === 0) return { kind: 'missing', frame: frameFor(context, null) };
  const at = (other: number) =>
    addressIn(context, `/${of}/${slugOf(name)}`) + (other === 1 ? '' : `?page=${other}`);
  return {
    kind: 'list',
    frame: frameFor(context, null),
    of,
    title: name,
    entries: entries.slice(0, AT_ONCE),
    newer: page > 1 ? at(page - 1) : null,
    older: entries.length > AT_ONCE ? at(page + 1) : null,
    feed:
      of === 'category'
        ? `${addressIn(context, '/feed.xml')}?category=${encodeURIComponent(slugOf(name))}`
        : null,
  };
}

type Names = Readonly<Record<'category' | 'tag', ReadonlyMap<string, string>>>;
const namesOf = new WeakMap<View['state']['posts'], Names>();

/** The name that an address means, or null when no post has it. */
export function named(
  { state: { posts } }: Pick<View, 'state'>,
  of: 'category' | 'tag',
  slug: string,
): string | null {
  const names = namesOf.get(posts) ?? {
    category: bySlug(posts.flatMap(({ facts }) => facts?.category ?? [])),
    tag: bySlug(posts.flatMap(({ facts }) => facts?.tags ?? [])),
  };
  namesOf.set(posts, names);
  return names[of].get(slug) ?? null;
}

/** Names by how they stand in an address; of two that stand alike, the one of the latest post. */
const bySlug = (names: readonly string[]): ReadonlyMap<string, string> =>
  new Map([...new Set(names)].reverse().map((name) => [slugOf(name), name]));
