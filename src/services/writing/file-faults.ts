/**
 * Files that are not as open as what shows them. A picture that is closed to somebody who gets what it stands in is a hole
 * there; and a file that is open to somebody who gets nothing that shows it is open by its address alone, which is hardly
 * meant: whoever gated the words around it takes the file for gated as well.
 */
import {
  addTo,
  type Bitset,
  both,
  breakdownOf,
  type Condition,
  changedIn,
  conditionsOfPolicy,
  counted,
  countOf,
  decide,
  emptyBitset,
  guest,
  type Item,
  type ItemId,
  isShared,
  listed,
  nameInContext,
  onceFor,
  type Piece,
  type RequestFacts,
  without,
} from '@/core';
import { type MembershipView, membershipOf } from '../people';
import { plainRequest, type SiteState, yielder } from '../running';
import { contentOf, linksIn, readyFor, regionsIn } from '../view';
import type { Fault } from './faults';

/** Some visitors: members, and whether guests who bring nothing are among them. */
interface Audience {
  readonly people: Bitset;
  readonly guests: boolean;
}

/** That something shows a file, or links it, to those who get it. */
interface Showing {
  readonly by: Item;
  readonly file: ItemId;
  /** Whether it is seen there, and missed where it is closed. */
  readonly isSeen: boolean;
  readonly to: Audience;
}

/** What is wrong with the files of a site as it is live, today. */
export async function fileFaults(state: SiteState, now: Date): Promise<readonly Fault[]> {
  const { outline } = state;
  const { policy, compiled } = state.live;
  if (![...outline.items.values()].some(({ kind }) => kind === 'file')) return [];
  const membership = await membershipOf(state, compiled.vocabulary, now, conditionsOfPolicy(policy));
  const request = plainRequest(state, now);
  const getting = onceFor((item: ItemId): Audience => {
    const breakdown = breakdownOf(compiled, item, membership.columns, request);
    return {
      people: breakdown?.open.bits ?? emptyBitset(membership.size),
      guests: decide(compiled, item, guest, request).kind === 'open',
    };
  });
  const split = splitter(state, membership, request);
  const faults: Fault[] = [];
  const shown = new Map<ItemId, Audience>();
  const rest = yielder();
  for (const item of outline.items.values()) {
    if (!item.published) continue;
    await rest();
    for (const { by, file, isSeen, to } of showingsIn(state, item, getting, split)) {
      const before = shown.get(file);
      const people = before?.people.slice() ?? emptyBitset(membership.size);
      addTo(people, to.people);
      shown.set(file, { people, guests: to.guests || before?.guests === true });
      const missed = isSeen ? butFor(to, getting(file)) : null;
      if (missed !== null)
        faults.push({
          item: changedIn(outline, by).id,
          section: by.kind === 'section' ? nameInContext(by, outline) : null,
          message: `It shows “${outline.items.get(file)?.title}”, which is closed to ${missed} who get the rest.`,
        });
    }
  }
  // Lists of files show whoever opens them just those that they may open.
  const lists = [...outline.items.values()].flatMap((item) => {
    const content = item.published && item.kind === 'section' ? contentOf(state, item.id).section : undefined;
    return content?.type === 'files' ? [{ category: content.category, to: getting(item.id) }] : [];
  });
  for (const [file, to] of shown) {
    await rest();
    const { facts, published, parent } = outline.items.get(file) ?? {};
    if (!published) continue;
    const all = lists.filter(
      ({ category }) =>
        parent === outline.root && (category === null || category === (facts?.category ?? null)),
    );
    const people = to.people.slice();
    for (const list of all) addTo(people, list.to.people);
    const guests = to.guests || all.some((list) => list.to.guests);
    const more = butFor(getting(file), { people, guests });
    if (more !== null)
      faults.push({
        item: file,
        section: null,
        message: `It is open at its address to ${more}, who get nothing that shows it.`,
      });
  }
  return faults;
}

/** The files that something shows or links, and to whom. */
function* showingsIn(
  state: SiteState,
  item: Item,
  getting: (item: ItemId) => Audience,
  split: Split,
): Generator<Showing> {
  const isFile = (id: string | null | undefined): id is ItemId =>
    state.outline.items.get(id as ItemId)?.kind === 'file';
  const { picture } = item.facts ?? {};
  if (isFile(picture)) yield { by: item, file: picture, isSeen: true, to: getting(item.id) };
  if (item.kind !== 'section') return;
  const { section, body } = contentOf(state, item.id);
  const shows = section?.type === 'picture' || section?.type === 'video';
  // Most texts name no file, and nobody needs to be asked who gets them.
  if (!shows && !body.includes('/files/')) return;
  const to = getting(item.id);
  if (shows) {
    if (isFile(section.file)) yield { by: item, file: section.file, isSeen: true, to };
    if ('captions' in section && isFile(section.captions))
      yield { by: item, file: section.captions, isSeen: false, to };
  }
  const { pieces } = regionsIn(state.live.compiled, body, isShared(item));
  // A region of a shared section may ask about its host: whoever gets the section may get it.
  const within = isShared(item) ? to : null;
  for (const { text, to: those } of textsTo(pieces, to, split, within))
    for (const { kind, item: linked } of linksIn(state, text))
      if (isFile(linked)) yield { by: item, file: linked, isSeen: kind === 'picture', to: those };
}

/** Those of some visitors of whom a condition is true, and the others. */
type Split = (audience: Audience, when: Condition) => { readonly those: Audience; readonly rest: Audience };

const splitter =
  ({ live }: SiteState, { select }: MembershipView, request: RequestFacts): Split =>
  (audience, when) => {
    const { bits } = select(when);
    const isGuests = readyFor(live.compiled, when)(guest, null, request);
    return {
      those: { people: both(audience.people, bits), guests: audience.guests && isGuests },
      rest: { people: without(audience.people, bits), guests: audience.guests && !isGuests },
    };
  };

/** The texts of pieces, with those who get each. */
function* textsTo(
  pieces: readonly Piece[],
  to: Audience,
  split: Split,
  within: Audience | null,
): Generator<{ readonly text: string; readonly to: Audience }> {
  for (const piece of pieces) {
    if (piece.kind === 'text') {
      yield { text: piece.text, to: within ?? to };
      continue;
    }
    let left = to;
    for (const { when, pieces: inner } of piece.cases) {
      const { those, rest } = split(left, when);
      yield* textsTo(inner, those, split, within);
      left = rest;
    }
    yield* textsTo(piece.last, left, split, within);
  }
}

/** Those who are in one audience and not in another, in words: "guests and 3 members"; null for nobody. */
function butFor(one: Audience, other: Audience): string | null {
  const members = countOf(without(one.people, other.people));
  const parts = [
    ...(one.guests && !other.guests ? ['guests'] : []),
    ...(members > 0 ? [counted(members, 'member')] : []),
  ];
  return parts.length === 0 ? null : listed(parts);
}
