/** What making areas comes to: every page, group, gate and person of them, worked out before anything is written. */
import { randomUUID } from 'node:crypto';
import slugify from '@sindresorhus/slugify';
import {
  type Address,
  areasIn,
  asId,
  below,
  type Condition,
  counted,
  foldCase,
  type Gate,
  type GroupId,
  hasRole,
  type Item,
  type ItemId,
  inGroup,
  type NewArea,
  type PersonId,
  type Policy,
  type RoleId,
  withNewAreas,
} from '@/core';
import { type AreaStep, noContent, type PersonRecord, type StoredItem } from '@/store';
import { MOST_TARGETS } from '../forms';
import { newcomer } from '../people';
import { MOST_EXPECTATIONS, MOST_GATES, MOST_LANDINGS } from '../policy';
import { type SiteState, yielder } from '../running';
import { addressesFor, problemIn, startOf, withDefaults } from '../writing';
import { itemsAfter } from './after';
import type { AreaProblem, Making, WantedArea } from './area-form';
import { copyBranch } from './copy-branch';

const MOST_ITEMS = 20_000;
const MOST_BYTES = 200_000_000;

/** Somebody who will be in an area. */
export interface PlannedPerson {
  readonly id: PersonId;
  readonly name: string;
  readonly email: string;
  /** Whether there is no such account yet. */
  readonly isNew: boolean;
}

export interface PlannedArea {
  readonly name: string;
  readonly page: ItemId;
  readonly address: Address;
  /** How many pages it has. */
  readonly pages: number;
  readonly people: readonly PlannedPerson[];
}

export interface Plan {
  readonly step: AreaStep;
  readonly areas: readonly PlannedArea[];
  /** The files to be copied, originals by copy. */
  readonly files: ReadonlyMap<ItemId, ItemId>;
  /** Gates that stand already and will cover copies as well. */
  readonly widened: readonly Gate[];
}

/** Plans areas, or says why they can't be made. */
export async function planAreas(
  state: SiteState,
  making: Making,
  wanted: readonly WantedArea[],
  today: string,
): Promise<Plan | { readonly problems: readonly AreaProblem[] }> {
  const places = placesFor(state, making);
  if ('problems' in places) return places;
  const { source, above, menu, also } = places;
  const copied = source === null ? 1 : copyableIn(state, source);
  const filesIn = source === null ? [] : filesBelow(state, source);
  const bytes = filesIn.reduce((sum, { size }) => sum + size, 0) * wanted.length;
  if (copied * wanted.length > MOST_ITEMS)
    return wrong(
      `That comes to ${counted(copied * wanted.length, 'page, section and file', 'pages, sections and files')}, and at most ${MOST_ITEMS} are made at once. Make fewer areas, or copy a smaller page.`,
    );
  if (bytes > MOST_BYTES)
    return wrong(
      `The copies of its files come to ${Math.round(bytes / 1e6)} MB, and at most ${MOST_BYTES / 1e6} are made at once. Make fewer areas, or put the files where all can read them.`,
    );
  const addressLike = addressesFor(state);
  const next = nextRank(state, above);
  const nextLink = menu === null ? 0 : nextRank(state, menu);
  const files = new Map<ItemId, ItemId>();
  const stored: StoredItem[] = [];
  const groups: AreaStep['groups'][number][] = [];
  const accounts = new Map<string, PersonRecord>();
  const members: AreaStep['members'][number][] = [];
  const made: NewArea[] = [];
  const areas: PlannedArea[] = [];
  const byMail = new Map([...state.people.values()].map((person) => [person.email, person]));
  const before = source === null ? undefined : places.groupOfSource;
  const rest = yielder();
  for (const [at, { name, people }] of wanted.entries()) {
    const group = asId<GroupId>(randomUUID());
    groups.push({ before: null, after: { id: group, name, private: true, open: false } });
    const copy =
      source === null
        ? emptyPage(state, name, above, next + at, addressLike)
        : copyBranch(state, {
            source,
            name,
            renames: making.renames,
            parent: above,
            rank: next + at,
            groups: new Map(before === undefined ? [] : [[before, group]]),
            addressLike,
          });
    const [top] = copy.stored;
    if (top?.item.kind !== 'page') throw new Error('An area begins with a page.');
    stored.push(...copy.stored);
    for (const file of filesIn) files.set(copy.items.get(file.id) as ItemId, file.id);
    if (menu !== null)
      stored.push({
        item: {
          kind: 'link',
          id: asId<ItemId>(randomUUID()),
          parent: menu,
          rank: nextLink + at,
          title: name,
          published: true,
          target: { kind: 'item', item: top.item.id },
        },
        content: noContent,
      });
    const planned = people.map(({ name: called, email }): PlannedPerson => {
      const there = byMail.get(email);
      if (there) {
        members.push({ person: there.id, group, in: true, since: today });
        return { id: there.id, name: there.name, email, isNew: false };
      }
      const account = accounts.get(email) ?? newcomer(asId(randomUUID()), { email, name: called }, today);
      accounts.set(email, {
        ...account,
        groups: [...account.groups, group],
        groupsSince: { ...account.groupsSince, [group]: today },
      });
      return { id: account.id, name: account.name, email, isNew: true };
    });
    made.push({ page: top.item.id, group, copy: copy.items });
    areas.push({
      name,
      page: top.item.id,
      address: top.item.address,
      pages: copy.stored.filter(({ item }) => item.kind === 'page').length,
      people: planned,
    });
    await rest();
  }
  const items = stored.map((after) => ({ before: null, after }));
  const problem = problemIn(itemsAfter(state, { items }));
  if (problem !== null) return wrong(problem);
  const ids = new Map<string, string>();
  const newId = (of: string): string => {
    const id = ids.get(of) ?? randomUUID();
    ids.set(of, id);
    return id;
  };
  const withAll = (policy: Policy): Policy =>
    stored.reduce(
      (after, { item }) => withDefaults(after, item),
      withNewAreas(policy, { areas: made, source, also, lands: making.lands, newId }),
    );
  await rest();
  const live = withAll(state.live.policy);
  const draft = withAll(state.draft.policy);
  const tooMany = tooManyIn(live) ?? tooManyIn(draft);
  if (tooMany !== null) return wrong(tooMany);
  const was = new Map(state.live.policy.gates.map((gate) => [gate.id, gate]));
  return {
    step: {
      items,
      groups,
      accounts: [...accounts.values()].map((after) => ({ before: null, after })),
      members,
      draft: { before: state.draft.policy, after: draft },
      live: { before: state.live.policy, after: live },
    },
    areas,
    files,
    widened: live.gates.filter((gate) => was.has(gate.id) && was.get(gate.id) !== gate),
  };
}

const wrong = (message: string) => ({ problems: [{ area: null, line: null, message }] });

interface Places {
  readonly source: ItemId | null;
  /** The group of the area that is copied, where it is one. */
  readonly groupOfSource: GroupId | undefined;
  /** What they stand below. */
  readonly above: ItemId;
  readonly menu: ItemId | null;
  readonly also: Condition | null;
}

/** What is named by id: whether it is there, and can be what it is to be. */
function placesFor(
  state: SiteState,
  { source, below: parent, menu, also }: Making,
): Places | { readonly problems: readonly AreaProblem[] } {
  const { items } = state.outline;
  const at = (id: string) => items.get(asId<ItemId>(id));
  const from = source === null ? null : at(source);
  if (from !== null && from?.kind !== 'page')
    return wrong('The page to begin with is no longer there. Choose another.');
  if (from && from.address === '/')
    return wrong('The first page of the site can’t be copied with all beneath it. Choose another.');
  const above = at(parent);
  if (above?.kind !== 'page' && above?.kind !== 'site')
    return wrong('The page that they stand below is no longer there. Choose another.');
  const list = menu === null ? null : at(menu);
  if (list !== null && list?.kind !== 'menu' && list?.kind !== 'link')
    return wrong('That menu is no longer there. Choose another.');
  const { roles, groups } = state.names;
  if (also.kind !== 'nobody' && !(also.kind === 'role' ? roles : groups).some(({ id }) => id === also.id))
    return wrong(`There is no such ${also.kind} any more. Choose who else may enter.`);
  return {
    source: from?.id ?? null,
    groupOfSource: from ? groupAt(state, from.id) : undefined,
    above: above.id,
    menu: list?.id ?? null,
    also:
      also.kind === 'nobody'
        ? null
        : also.kind === 'role'
          ? hasRole(asId<RoleId>(also.id))
          : inGroup(asId<GroupId>(also.id)),
  };
}

const groupAt = ({ live }: SiteState, page: ItemId): GroupId | undefined =>
  areasIn(live.policy).find((area) => area.page === page)?.group;

/** Names that something has already, and those of which no address can be made. */
export function namesTaken(
  { names }: SiteState,
  wanted: readonly WantedArea[],
  ofFile: boolean,
): readonly AreaProblem[] {
  const groups = new Set(names.groups.map(({ name }) => foldCase(name)));
  return wanted.flatMap(({ name, line }) => {
    const at = (message: string) => [{ area: ofFile ? null : line, line: ofFile ? line : null, message }];
    if (groups.has(foldCase(name)))
      return at(`There is a group called “${name}” already. Choose another name.`);
    return name !== '' && slugify(name) === ''
      ? at(`No address can be made of “${name}”. Give it a name with letters or digits.`)
      : [];
  });
}

const copyableIn = (state: SiteState, source: ItemId): number => below(state.outline, source).length;

const filesBelow = (state: SiteState, source: ItemId) =>
  below(state.outline, source).filter((item) => item.kind === 'file');

const nextRank = ({ outline }: SiteState, parent: ItemId): number =>
  Math.max(-1, ...(outline.children.get(parent) ?? []).map(({ rank }) => rank)) + 1;

/** A page with nothing on it but an empty text. */
function emptyPage(
  { outline }: SiteState,
  name: string,
  parent: ItemId,
  rank: number,
  addressLike: (wanted: string) => Address,
): { readonly stored: readonly StoredItem[]; readonly items: ReadonlyMap<ItemId, ItemId> } {
  const page: Item = {
    kind: 'page',
    id: asId<ItemId>(randomUUID()),
    parent,
    rank,
    title: name,
    published: true,
    address: addressLike(`${startOf(outline, parent)}/${slugify(name)}`),
  };
  return { stored: [{ item: page, content: noContent }], items: new Map() };
}

function tooManyIn({ gates, expectations, landings }: Policy): string | null {
  if (gates.length > MOST_GATES) return `A site has at most ${MOST_GATES} gates. Make fewer areas.`;
  if (expectations.length > MOST_EXPECTATIONS || landings.length > MOST_LANDINGS)
    return `A site has at most ${MOST_EXPECTATIONS} expectations and ${MOST_LANDINGS} landing rules. Make fewer areas.`;
  return gates.some(({ what }) => what.targets.length > MOST_TARGETS || what.except.length > MOST_TARGETS)
    ? `A gate points at ${MOST_TARGETS} items at most, and one that points at something you copy would point at more. Put what you copy under a gate over a page above it.`
    : null;
}
