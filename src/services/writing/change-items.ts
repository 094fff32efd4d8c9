/** Changing items: making, renaming, moving, publishing and taking them away. Each is one transaction. */
import { randomUUID } from 'node:crypto';
import slugify from '@sindresorhus/slugify';
import { z } from 'zod';
import {
  ACTIVITY_TYPES,
  type Address,
  asId,
  courseOf,
  type Default,
  type Gate,
  type Item,
  type ItemId,
  isAddressed,
  isShared,
  MENU_PLACES,
  normaliseAddress,
  type Outline,
  type Policy,
  permits,
  sharedIn,
  standsAsBefore,
} from '@/core';
import { insertItems, noContent, type StoredItem, updateItem, writeBothPolicies } from '@/store';
import { newId as id } from '../forms';
import type { SiteState, Trivet } from '../running';
import { type Administrator, momentAt, requirePermission, requirePermissionAt } from '../running';
import { indexItems } from '../texts';
import { contentOf } from '../view';
import { addressProblem } from './document';
import { moveItems, publishItems } from './move-items';
import { problemIn } from './problem-in';
import { removeItem } from './remove-items';
import { target, title } from './section-form';
import { MOST_SHARED } from './shared-form';

/** Items that are moved or published together. */
const MOST_AT_ONCE = 500;
const TOO_MANY = `At most ${MOST_AT_ONCE} items change together. Mark fewer.`;

const edit = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('new page'), parent: id, title }),
  z.strictObject({
    kind: z.literal('new post'),
    title,
    category: z.string().trim().min(1).max(200).nullable(),
  }),
  z.strictObject({ kind: z.literal('new course'), parent: id, title }),
  z.strictObject({ kind: z.literal('new unit'), parent: id, title }),
  z.strictObject({
    kind: z.literal('new activity'),
    parent: id,
    title,
    activity: z.enum(ACTIVITY_TYPES).default('reading'),
  }),
  z.strictObject({ kind: z.literal('new menu'), title, place: z.enum(MENU_PLACES) }),
  z.strictObject({ kind: z.literal('new shared'), title }),
  z.strictObject({ kind: z.literal('new link'), parent: id, title, target }),
  z.strictObject({ kind: z.literal('link'), item: id, title, target }),
  z.strictObject({ kind: z.literal('rename'), item: id, title }),
  z.strictObject({
    kind: z.literal('file'),
    item: id,
    title,
    alt: z.string().trim().max(500).default(''),
    category: z.string().trim().max(200).nullable().default(null),
    owner: id.nullable().default(null),
    group: id.nullable().default(null),
  }),
  z.strictObject({
    kind: z.literal('move'),
    /** Each before a sibling, or last when there is none. */
    moves: z
      .array(z.strictObject({ item: id, parent: id, before: id.nullable() }))
      .min(1)
      .max(MOST_AT_ONCE, TOO_MANY),
    /** Whether it is meant that something comes out from under a gate by it. */
    leaving: z.boolean().default(false),
  }),
  z.strictObject({
    kind: z.literal('publish'),
    items: z.array(id).min(1).max(MOST_AT_ONCE, TOO_MANY),
    published: z.boolean(),
    leaving: z.boolean().default(false),
  }),
  z.strictObject({ kind: z.literal('remove'), item: id, leaving: z.boolean().default(false) }),
]);

export type ItemEdit = z.input<typeof edit>;

export type ItemAnswer =
  | {
      readonly kind: 'done';
      readonly item: ItemId;
      readonly removal: string | null;
      readonly summary: string;
      /** What takes it back, where that is another change. */
      readonly undo?: ItemEdit;
    }
  /** Something would come out from under a gate by it, and nobody said that this is meant. */
  | { readonly kind: 'opens'; readonly message: string }
  | { readonly kind: 'wrong'; readonly message: string };

/** Makes one change of the site's items. */
export function changeItem(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ItemAnswer> {
  requirePermission(administrator, 'content');
  return trivet.change(async (state): Promise<ItemAnswer> => {
    const parsed = edit.safeParse(input);
    if (!parsed.success)
      return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be done.' };
    const one = parsed.data;
    requirePermissionAt(administrator, state.outline, placesOf(one, state.outline));
    switch (one.kind) {
      case 'new page':
      case 'new post':
      case 'new course':
      case 'new unit':
      case 'new activity':
      case 'new menu':
      case 'new shared':
      case 'new link':
        return add(trivet, administrator, state, madeOf(one, state, administrator, now));
      case 'link':
        return rewrite(trivet, state, one.item, (item) =>
          item.kind === 'link' ? { ...item, title: one.title, target: one.target } : null,
        );
      case 'rename':
        return rewrite(trivet, state, one.item, (item) => ({ ...item, title: one.title }));
      case 'file':
        return changeFile(trivet, state, one);
      case 'move':
        return moveItems(trivet, state, one, permits(administrator.desk, 'gates'));
      case 'publish':
        return publishItems(trivet, state, one, permits(administrator.desk, 'gates'));
      case 'remove':
        return removeItem(trivet, administrator.name, state, asId(one.item), {
          gates: permits(administrator.desk, 'gates'),
          leaving: one.leaving,
        });
      default:
        return one satisfies never;
    }
  });
}

/** The items that have to be within reach for a change: the item itself, and what it is to stand below. */
const placesOf = (one: z.output<typeof edit>, { root }: Outline): readonly ItemId[] => [
  ...('item' in one ? [asId<ItemId>(one.item)] : []),
  ...('items' in one ? one.items.map((item) => asId<ItemId>(item)) : []),
  ...('moves' in one
    ? one.moves.flatMap(({ item, parent }) => [asId<ItemId>(item), asId<ItemId>(parent)])
    : []),
  ...('parent' in one ? [asId<ItemId>(one.parent)] : []),
  ...(one.kind === 'new post' || one.kind === 'new menu' || one.kind === 'new shared' ? [root] : []),
];

type New = Extract<z.output<typeof edit>, { kind: `new ${string}` }>;

function madeOf(one: New, state: SiteState, administrator: Administrator, now: Date): Item {
  const { outline } = state;
  const parent = asId<ItemId>('parent' in one ? one.parent : outline.root);
  const last = Math.max(-1, ...(outline.children.get(parent) ?? []).map(({ rank }) => rank));
  const base = { id: asId<ItemId>(randomUUID()), parent, rank: last + 1, title: one.title };
  switch (one.kind) {
    case 'new page':
    case 'new course':
      return {
        ...base,
        kind: one.kind === 'new page' ? 'page' : 'course',
        published: false,
        address: freeAddress(`${startOf(outline, parent)}/${slugify(one.title)}`, state),
      };
    case 'new unit':
      return { ...base, kind: 'unit', published: true };
    case 'new activity': {
      const course = courseOf(outline.items.get(parent) ?? null) ?? parent;
      return {
        ...base,
        kind: 'activity',
        activity: one.activity,
        published: false,
        address: freeAddress(`${startOf(outline, course)}/${slugify(one.title)}`, state),
      };
    }
    case 'new post': {
      const start = one.category === null ? '/posts' : `/${slugify(one.category)}`;
      return {
        ...base,
        kind: 'post',
        published: false,
        address: freeAddress(`${start}/${slugify(one.title)}`, state),
        facts: {
          ...(one.category !== null && { category: one.category }),
          author: administrator.name,
          date: momentAt(state, now).today,
        },
      };
    }
    case 'new menu':
      return { ...base, kind: 'menu', published: true, place: one.place };
    case 'new shared':
      return {
        ...base,
        kind: 'section',
        type: 'text',
        published: false,
        shared: { spot: 'before', on: { targets: [], except: [] }, elsewhere: false },
      };
    case 'new link':
      return { ...base, kind: 'link', published: true, target: one.target };
    default:
      return one satisfies never;
  }
}

/** What the addresses begin with of those that are made below an item. */
export function startOf({ items }: Outline, above: ItemId): string {
  const item = items.get(above);
  return isAddressed(item) && item.address !== '/' ? item.address : '';
}

/** The address, or the first like it with a number that is free. */
const freeAddress = (wanted: string, state: SiteState): Address => addressesFor(state)(wanted);

/** The same for several that are made together: none is given twice. */
export function addressesFor(state: SiteState): (wanted: string) => Address {
  const given = new Set<Address>();
  return (wanted) => {
    for (let count = 1; count <= 10_000; count++) {
      const address = normaliseAddress(count === 1 ? wanted : `${wanted}-${count}`);
      if (address === null || address === '/' || given.has(address)) continue;
      if (addressProblem(address, null, state) !== null) continue;
      given.add(address);
      return address;
    }
    throw new Error(`No address like ${wanted} is free.`);
  };
}

async function add(
  trivet: Trivet,
  administrator: Administrator,
  state: SiteState,
  item: Item,
): Promise<ItemAnswer> {
  const wrong = problemIn([...state.outline.items.values(), item]);
  if (wrong !== null) return { kind: 'wrong', message: wrong };
  if (isShared(item) && sharedIn(state.outline).length >= MOST_SHARED)
    return { kind: 'wrong', message: `A site shares at most ${MOST_SHARED} sections. Take one away first.` };
  await trivet.db.transaction(async (tx) => {
    await insertItems(tx, [{ item, content: noContent }], 'changed');
    await indexItems(tx, [{ item, content: noContent }], state.live.compiled.vocabulary);
    await startWithDefaults(tx, administrator, state, item);
  });
  return { kind: 'done', item: item.id, removal: null, summary: `New ${item.kind}: ${item.title}` };
}

/** Puts a new item under the gates that items of its kind start with, in the draft and live, in the same transaction. */
export async function startWithDefaults(
  tx: Parameters<typeof insertItems>[0],
  administrator: Administrator,
  state: SiteState,
  item: Item,
): Promise<void> {
  const draft = withDefaults(state.draft.policy, item);
  const live = withDefaults(state.live.policy, item);
  if (draft === state.draft.policy && live === state.live.policy) return;
  const note = `${item.title} is new and starts with its gates.`;
  await writeBothPolicies(tx, { draft, live, author: administrator.name, note });
}

/** A policy in which a new item stands under the gates that items of its kind start with. */
export function withDefaults(policy: Policy, item: Item): Policy {
  const meant = ({ kind, category }: Default) =>
    kind === item.kind && (category === null || category === item.facts?.category);
  const gates = new Set(policy.defaults.filter(meant).map(({ gate }) => gate));
  if (gates.size === 0) return policy;
  const covered = (gate: Gate): Gate =>
    gates.has(gate.id) && !gate.what.targets.some((one) => one.kind !== 'selection' && one.item === item.id)
      ? { ...gate, what: { ...gate.what, targets: [...gate.what.targets, { kind: 'item', item: item.id }] } }
      : gate;
  return { ...policy, gates: policy.gates.map(covered) };
}

async function rewrite(
  trivet: Trivet,
  state: SiteState,
  which: string,
  change: (item: Item) => Item | null,
): Promise<ItemAnswer> {
  const item = state.outline.items.get(asId<ItemId>(which));
  const changed = item && change(item);
  if (!item || !changed) return { kind: 'wrong', message: 'That is no longer there.' };
  const wrong = standsAsBefore(item, changed)
    ? null
    : problemIn([...state.outline.items.values()].map((one) => (one.id === item.id ? changed : one)));
  if (wrong !== null) return { kind: 'wrong', message: wrong };
  const stored = { item: changed, content: contentOf(state, item.id) };
  await trivet.db.transaction(async (tx) => {
    await updateItem(tx, stored);
    await indexItems(tx, [stored], state.live.compiled.vocabulary);
  });
  return { kind: 'done', item: item.id, removal: null, summary: `Changed: ${changed.title}` };
}

async function changeFile(
  trivet: Trivet,
  state: SiteState,
  one: Extract<z.output<typeof edit>, { kind: 'file' }>,
): Promise<ItemAnswer> {
  const item = state.outline.items.get(asId<ItemId>(one.item));
  if (item?.kind !== 'file') return { kind: 'wrong', message: 'That file is no longer there.' };
  const { facts: before, ...rest } = item;
  // What is gone may stay: gates that ask for it go on covering the file.
  if (one.owner !== null && one.owner !== before?.owner && !state.people.has(asId(one.owner)))
    return { kind: 'wrong', message: 'Its owner is nobody here any more. Choose another.' };
  const { groups } = state.names;
  if (one.group !== null && one.group !== before?.group && !groups.some(({ id }) => id === one.group))
    return { kind: 'wrong', message: 'There is no such group any more. Choose another.' };
  const { category: _, owner: __, group: ___, ...others } = before ?? {};
  const facts = {
    ...others,
    ...(one.category && { category: one.category }),
    ...(one.owner !== null && { owner: asId<never>(one.owner) }),
    ...(one.group !== null && { group: asId<never>(one.group) }),
  };
  const content = contentOf(state, item.id);
  const stored: StoredItem = {
    item: { ...rest, title: one.title, ...(Object.keys(facts).length > 0 && { facts }) },
    content: content.picture ? { ...content, picture: { ...content.picture, alt: one.alt } } : content,
  };
  await trivet.db.transaction(async (tx) => {
    await updateItem(tx, stored);
    await indexItems(tx, [stored], state.live.compiled.vocabulary);
  });
  return { kind: 'done', item: item.id, removal: null, summary: `Changed: ${one.title}` };
}
