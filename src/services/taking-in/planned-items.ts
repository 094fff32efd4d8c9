/** The items that a plan comes to: pages with their texts, links to them, files. */
import { randomUUID } from 'node:crypto';
import { asId, type ItemFacts, type ItemId, isDay } from '@/core';
import { noContent, type StoredItem } from '@/store';
import { cut } from '../texts';
import { storedSection } from '../writing';
import type { Place } from './places';
import { isPublished, type PlannedFile, type PlannedPage, type Planning, type Standing } from './planning';

const LONGEST_TITLE = 200;

/** Gives each item its place behind its siblings. */
export function ranksIn({ state }: Planning): (parent: ItemId) => number {
  const ranks = new Map<ItemId, number>();
  return (parent) => {
    const there = (state.outline.children.get(parent) ?? []).map(({ rank }) => rank);
    const next = ranks.get(parent) ?? Math.max(-1, ...there) + 1;
    ranks.set(parent, next + 1);
    return next;
  };
}

export const titleOf = ({ first }: Planning, { place, item }: Standing): string =>
  item === first?.page.id ? first.page.title : cut(place.title, LONGEST_TITLE);

/** A text section that is nobody's yet. */
export const sectionWith = (text: string) => ({
  type: 'text' as const,
  id: 'text',
  title: 'Text',
  summary: '',
  published: true,
  text,
});

/** A page or post, with its text. */
export function itemsOf(
  planning: Planning,
  standing: Standing,
  rank: (parent: ItemId) => number,
): readonly StoredItem[] {
  const { place, item, address, kind, body } = standing;
  const { state, wishes } = planning;
  const parent = (place.parent && planning.standing.get(place.parent)?.item) ?? wishes.above;
  const facts = factsOf(standing);
  const page: StoredItem = {
    item: {
      kind,
      id: item,
      parent,
      rank: rank(parent),
      title: titleOf(planning, standing),
      published: isPublished(planning, standing),
      address,
      ...(facts && { facts }),
    },
    content: { ...noContent, summary: place.text?.document.summary ?? '' },
  };
  const { vocabulary } = state.live.compiled;
  return body === ''
    ? [page]
    : [page, storedSection({ ...sectionWith(body), id: randomUUID() }, item, 0, vocabulary)];
}

function factsOf({ place, kind }: Standing): ItemFacts | null {
  const { document } = place.text ?? {};
  const date = document?.date ?? (place.day !== null && isDay(place.day) ? place.day : null);
  const above = place.parent?.title;
  const category = document?.category ?? (kind === 'post' && above ? cut(above, LONGEST_TITLE) : null);
  const facts: ItemFacts = {
    ...(category && { category }),
    ...(document && document.tags.length > 0 && { tags: document.tags }),
    ...(document?.author && { author: document.author }),
    ...(date && { date }),
  };
  return Object.keys(facts).length > 0 ? facts : null;
}

/** A link in a menu to a page that stands at the top. */
export const linkTo = (
  { item, title }: PlannedPage,
  menu: ItemId,
  rank: (parent: ItemId) => number,
): StoredItem => ({
  item: {
    kind: 'link',
    id: asId<ItemId>(randomUUID()),
    parent: menu,
    rank: rank(menu),
    title,
    published: true,
    target: { kind: 'item', item },
  },
  content: noContent,
});

/** Files stand in the page that shows them, or in what all pages that do stand below: as closed as those are. */
export function filesOf(
  planning: Planning,
  rank: (parent: ItemId) => number,
): readonly (PlannedFile & { readonly stored: StoredItem })[] {
  return [...planning.files].flatMap(([path, { item, users, alt }]) => {
    const file = planning.material.files.get(path);
    if (!file) return [];
    const parent = holding(planning, users);
    const stem = (path.split('/').at(-1) ?? '')
      .replace(/\.[^.]*$/, '')
      .replace(/\p{Cc}/gu, ' ')
      .trim();
    const stored: StoredItem = {
      item: {
        kind: 'file',
        id: item,
        parent,
        rank: rank(parent),
        title: cut(stem || file.name, LONGEST_TITLE),
        // Nobody is to find it before what it stands on.
        published: users.some((one) => isPublished(planning, one)),
        name: file.name,
        mediaType: file.mediaType,
        size: file.size,
        facts: { date: planning.today as NonNullable<ItemFacts['date']> },
      },
      content: { ...noContent, ...(file.picture && { picture: { ...file.picture, alt } }) },
    };
    return [{ item, file, stored }];
  });
}

/** The lowest place that all of these stand in. */
function holding({ standing, wishes }: Planning, users: readonly Standing[]): ItemId {
  const chains = users.map(({ place }) => {
    const chain: Place[] = [];
    for (let at: Place | null = place; at; at = at.parent) chain.unshift(at);
    return chain;
  });
  const [one = []] = chains;
  let common: Place | null = null;
  for (const [at, place] of one.entries()) if (chains.every((chain) => chain[at] === place)) common = place;
  return (common && standing.get(common)?.item) ?? wishes.above;
}
