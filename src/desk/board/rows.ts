/** The board's rows and what each cell holds. */
import {
  type CompiledPolicy,
  type Decision,
  decide,
  type Gate,
  groupsOf,
  hostsOpenTo,
  type Item,
  type ItemId,
  isAddressed,
  isShared,
  KINDS,
  type Outline,
  type Places,
  placedOn,
  placeOf,
  type RequestFacts,
  type SharedSection,
  type StandIn,
  sameToVisitor,
  standInFacts,
} from '@/core';
import type { GateStanding } from '../marks';

/** One row: an item and how deep it stands in the outline. */
export interface Row {
  readonly item: Item;
  readonly depth: number;
  /** The heading that it stands under: the category of posts, files; null for what stands in a tree. */
  readonly heading: string | null;
  /** How many parts (sections, and files in it) can fold out below it. */
  readonly parts: number;
  readonly unfolded: boolean;
  /** The title of what it is in, where that has no row of its own above it. */
  readonly within?: string;
  /** Of a shared section on one of its hosts: the host. */
  readonly on?: Item;
}

/** The rows with everything folded out, or with what was. */
export type Unfolded = 'all' | ReadonlySet<ItemId>;

/**
 * The outline from top to bottom, group by group. Parts fold out under what they are in, and with `places` shared sections
 * to what they stand on, when somebody asks for that one. The site itself has no row.
 */
export function rowsOf(
  outline: Outline,
  unfolded: Unfolded = 'all',
  places: Places | null = null,
): readonly Row[] {
  const rows: Row[] = [];
  const visit = (item: Item, depth: number, heading: string | null) => {
    const children = outline.children.get(item.id) ?? [];
    const parts = children.filter(({ kind }) => KINDS[kind].part);
    const open = unfolded === 'all' || unfolded.has(item.id);
    const hosts = places !== null && isShared(item) ? [...places.hosts(item)] : [];
    const within = parts.length + hosts.length;
    const out = within > 0 && (unfolded === 'all' ? parts.length > 0 : open);
    rows.push({ item, depth, heading, parts: within, unfolded: out });
    if (isShared(item) && unfolded !== 'all' && open)
      for (const host of hosts
        .map((id) => outline.items.get(id))
        .filter(isAddressed)
        .toSorted(byTitle))
        rows.push(placeRow(item, host, depth + 1, heading));
    if (open) for (const part of parts) visit(part, depth + 1, heading);
    for (const child of children)
      if (!KINDS[child.kind].part && !KINDS[child.kind].byCategory) visit(child, depth + 1, heading);
  };
  for (const { title, tree, items } of groupsOf(outline))
    for (const item of items) visit(item, 0, tree ? null : title);
  return rows;
}

const byTitle = (a: Item, b: Item): number => a.title.localeCompare(b.title);

const placeRow = (section: SharedSection, host: Item, depth: number, heading: string | null): Row => ({
  item: placedOn(section, host),
  on: host,
  depth,
  heading,
  parts: 0,
  unfolded: false,
});

/** The sections and files in an item, and in those. */
export const partsBelow = (outline: Outline, id: ItemId): readonly Item[] =>
  (outline.children.get(id) ?? [])
    .filter(({ kind }) => KINDS[kind].part)
    .flatMap((part) => [part, ...partsBelow(outline, part.id)]);

/** Whether a gate names an item, as opposed to reaching it from above or describing it. */
export const pointsAt = ({ what }: Gate, id: ItemId): boolean =>
  what.targets.some((target) => target.kind !== 'selection' && target.item === id);

/** What a row has to fold out for an item to be among the rows. */
export function foldsAbove(outline: Outline, item: Item | undefined): readonly ItemId[] {
  const parent = !item || item.parent === null ? undefined : outline.items.get(item.parent);
  if (!item || !parent || !KINDS[item.kind].part || parent.kind === 'site') return [];
  return [parent.id, ...foldsAbove(outline, parent)];
}

/** A cell by its place on the board. */
export interface CellAt {
  readonly row: number;
  readonly column: number;
}

/** What one stand-in gets for one item, in both policies. */
export interface Cell {
  readonly draft: Decision;
  readonly live: Decision;
  /** Whether the visitor would notice the draft going live. */
  readonly changes: boolean;
  /** Of a shared section: on how many of its hosts the visitor gets it. */
  readonly hosts: Readonly<Record<'draft' | 'live', HostsOpen>> | null;
}

export type HostsOpen = ReturnType<typeof hostsOpenTo>;

/** What a stand-in gets for an item. */
export function cellOf(
  item: Item,
  standIn: StandIn,
  request: RequestFacts,
  compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy },
): Cell {
  const facts = standInFacts(standIn);
  const draft = decide(compiled.draft, item.id, facts, request);
  const count = (policy: CompiledPolicy) =>
    isShared(item) && placeOf(item.id) === null ? hostsOpenTo(policy, item, facts, request) : null;
  const hosts = count(compiled.draft);
  // A draft that is what is live was compiled once.
  if (compiled.draft === compiled.live)
    return { draft, live: draft, changes: false, hosts: hosts && { draft: hosts, live: hosts } };
  const live = decide(compiled.live, item.id, facts, request);
  const before = count(compiled.live);
  return {
    draft,
    live,
    changes: !sameToVisitor(draft, live) || before?.open !== hosts?.open,
    hosts: hosts && before && { draft: hosts, live: before },
  };
}

/** A gate over a row, with how it stands there. */
export interface GateOnRow {
  readonly gate: Gate;
  readonly standing: GateStanding;
}

/** The gates over an item in order: those that name it, those that reach it from above or describe it, those set aside. */
export const gatesOnRow = (compiled: CompiledPolicy, item: Item): readonly GateOnRow[] =>
  (compiled.covering.get(item.id) ?? []).map(({ gate, setAside }) => {
    const own = pointsAt(gate, item.id);
    return {
      gate,
      standing: setAside ? 'set aside' : gate.stance === 'instead' ? 'instead' : own ? 'own' : 'inherited',
    };
  });
