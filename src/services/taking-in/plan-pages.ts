/** What taking in comes to: every page, text and file of it, worked out before anything is written. */
import { randomUUID } from 'node:crypto';
import { type Address, asId, counted, type ItemId } from '@/core';
import type { StoredItem } from '@/store';
import { type SiteState, yielder } from '../running';
import { addressesFor, problemIn, sectionProblems, startOf } from '../writing';
import { addressOf, noteFormer } from './addresses';
import { firstAfter, firstPage } from './first-page';
import type { FoundText, Material } from './material';
import { inOrder, keyOf, type Place, placesOf } from './places';
import { filesOf, itemsOf, linkTo, ranksIn, sectionWith, titleOf } from './planned-items';
import {
  isPublished,
  type Plan,
  type PlannedPage,
  type Planning,
  type Standing,
  type Wishes,
} from './planning';
import { MOST_ITEMS, saidOf } from './source';
import { writeText } from './write-text';

type Problem = { readonly problem: string };

/** Plans what comes in, or says why it can't. */
export async function planPages(
  state: SiteState,
  material: Material,
  wishes: Wishes,
  today: string,
): Promise<Plan | Problem> {
  const planning: Planning = {
    state,
    material,
    wishes,
    today,
    first: wishes.first && wishes.above === state.outline.root ? firstPage(state) : null,
    base: startOf(state.outline, wishes.above),
    standing: new Map(),
    byKey: new Map(),
    files: new Map(),
    formerly: new Map(),
    leftOut: [...material.leftOut],
  };
  const rest = yielder();
  const texts: FoundText[] = [];
  for (const text of material.texts) {
    if (isWhole(planning, text)) texts.push(text);
    await rest();
  }
  const places = placesOf(texts);
  if (!places)
    return {
      problem: `With all the folders that it stands in, that comes to more than ${MOST_ITEMS} pages. Take it in in parts.`,
    };
  const addressLike = addressesFor(state);
  for (const { place, depth, leaf } of inTree(places, wishes.above === state.outline.root)) {
    stand(planning, place, { depth, leaf }, addressLike);
    await rest();
  }
  const all = [...planning.standing.values()];
  const taken = new Set(all.map(({ address }) => address));
  for (const standing of all) {
    noteFormer(planning, standing, taken);
    writeText(planning, standing);
    await rest();
  }
  return planIn(planning, all);
}

/** Nothing is known to be wrong with a text once it is read; if something is, it stays out rather than half in. */
function isWhole({ state, material, leftOut }: Planning, { path, document: { body } }: FoundText): boolean {
  const { vocabulary } = state.live.compiled;
  const [wrong] = body === '' ? [] : sectionProblems([sectionWith(body)], vocabulary, () => undefined);
  if (wrong)
    leftOut.push({
      path: saidOf(material.kind, path),
      why: wrong.line === null ? wrong.message : `Line ${wrong.line}: ${wrong.message}`,
    });
  return !wrong;
}

/** Places from the top down, each with what stands below it behind it. */
function* inTree(places: readonly Place[], atTop: boolean) {
  // Below another page its first page holds the rest.
  const first = places.find(({ key }) => key === '');
  if (first && !atTop) for (const place of places) if (place !== first) place.parent ??= first;
  const children = new Map<Place | null, Place[]>();
  for (const place of places) {
    const siblings = children.get(place.parent) ?? [];
    siblings.push(place);
    children.set(place.parent, siblings);
  }
  for (const siblings of children.values()) siblings.sort((a, b) => inOrder.compare(b.key, a.key));
  const waiting = (children.get(null) ?? []).map((place) => ({ place, depth: 0 }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { place, depth } = next;
    const below = children.get(place) ?? [];
    yield { place, depth, leaf: below.length === 0 };
    for (const one of below) waiting.push({ place: one, depth: depth + 1 });
  }
}

/** Gives a place its item, its kind and its address. */
function stand(
  planning: Planning,
  place: Place,
  { depth, leaf }: { readonly depth: number; readonly leaf: boolean },
  addressLike: (wanted: string) => Address,
): void {
  const { first, wishes, state, byKey } = planning;
  const { document, formerPath = null } = place.text ?? {};
  const notes = [...(document?.notes ?? []), ...place.notes];
  const isTop = place.key === '';
  const dated = (document?.date ?? place.day) !== null;
  const standing: Standing = {
    place,
    item: isTop && first ? first.page.id : asId<ItemId>(randomUUID()),
    address: isTop && first ? ('/' as Address) : addressOf(planning, place, notes, addressLike),
    kind: wishes.posts && dated && leaf && !isTop ? 'post' : 'page',
    depth,
    notes,
    files: new Set(),
    formerly: [],
    body: '',
  };
  planning.standing.set(place, standing);
  byKey.set(place.key, standing);
  if (isTop && wishes.above !== state.outline.root) planning.base = standing.address;
  if (formerPath !== null && !byKey.has(keyOf(formerPath))) byKey.set(keyOf(formerPath), standing);
}

const MOST_TOLD = 3;

/** The plan itself, if it makes a site. */
function planIn(planning: Planning, all: readonly Standing[]): Plan | Problem {
  const { state, wishes, first, material, leftOut } = planning;
  const rank = ranksIn(planning);
  const stored: StoredItem[] = [];
  const over: Plan['first'][number][] = [];
  const pages = all.map((standing): PlannedPage => {
    const { place, item, address, kind, depth, formerly, files, notes, body } = standing;
    if (item === first?.page.id)
      over.push(...firstAfter(state, first, body, place.text?.document.summary ?? ''));
    else stored.push(...itemsOf(planning, standing, rank));
    return {
      item,
      title: titleOf(planning, standing),
      address,
      kind,
      depth,
      from: place.text ? saidOf(material.kind, place.text.path) : null,
      published: isPublished(planning, standing),
      formerly,
      files: files.size,
      notes,
    };
  });
  const { menu } = wishes;
  if (menu !== null)
    for (const page of pages)
      if (page.depth === 0 && page.kind === 'page' && page.item !== first?.page.id)
        stored.push(linkTo(page, menu, rank));
  const files = filesOf(planning, rank);
  stored.push(...files.map((one) => one.stored));
  if (pages.length === 0) {
    const why = leftOut.slice(0, MOST_TOLD).map((one) => `${one.path}: ${one.why}`);
    return { problem: `Nothing of it can be taken in. ${why.join(' ')}` };
  }
  if (stored.length > MOST_ITEMS)
    return {
      problem: `That comes to ${counted(stored.length, 'page, text and file', 'pages, texts and files')}, and at most ${MOST_ITEMS} are taken in at once. Take it in in parts.`,
    };
  const replaced = new Map(over.map(({ after }) => [after.item.id, after.item]));
  const wrong = problemIn([
    ...[...state.outline.items.values()].map((one) => replaced.get(one.id) ?? one),
    ...stored.map(({ item }) => item),
  ]);
  if (wrong !== null) return { problem: wrong };
  return {
    pages,
    stored,
    files,
    formerly: planning.formerly,
    first: over,
    leftOut,
    words: new Map(all.map(({ body, place }) => [body, place.text?.document.words ?? ''])),
  };
}
