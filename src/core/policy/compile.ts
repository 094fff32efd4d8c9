/**
 * Compiling a policy: coverage resolved for every item, and for each item that is asked about one list of hurdles in the order
 * in which they speak, of conditions turned into closures and shared. After that a decision is a walk down a short list.
 */
import { type ConditionCompiler, conditionCompiler, type Predicate } from '../condition';
import { coveredBy, type Gate, type NamedTurnAway } from '../gate';
import type { ItemId } from '../ids';
import { onceFor } from '../once';
import {
  containerOf,
  type Item,
  type ItemKind,
  isShared,
  KINDS,
  type Outline,
  type RequestFacts,
  type SiteNames,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import type { TurnedAway } from './decision';
import { asksAboutItem, type Places, placesIn } from './places';
import { type Policy, vocabularyOf } from './policy';
import { type Fitted, fittedFor, turnedAwayBy, unpublishedAt } from './turn-away-at';

/** A gate over one item, with its stance already taken into account. */
export interface CoveringGate {
  readonly gate: Gate;
  /** Set aside by a later gate that says *instead*. */
  readonly setAside: boolean;
}

/** One thing that can turn a visitor away from an item. */
export interface Hurdle {
  /** Where it stands: over the item itself, a container of it or its target. */
  readonly over: Item;
  /** Whose facts the gate asks for: the same, but for a gate over a shared section its host. */
  readonly at: Item;
  /** The gate; null where something is not published, or where none of a shared section's hosts is open. */
  readonly gate: Gate | null;
  /** The gate asks about a host where there is none, and so lets nobody by. */
  readonly hostless: boolean;
  readonly passes: Predicate;
  readonly away: (visitor: VisitorFacts, request: RequestFacts) => TurnedAway;
}

/** A policy made ready for deciding, together with the site and the names it was compiled for. */
export interface CompiledPolicy {
  readonly policy: Policy;
  readonly outline: Outline;
  /** The site's names and the policy's audiences. */
  readonly vocabulary: Vocabulary;
  /** The gates over each item in order; those set aside are kept for explaining. */
  readonly covering: ReadonlyMap<ItemId, readonly CoveringGate[]>;
  /** What can turn somebody away from an item, in the order in which it speaks; null where there is no such item. Worked out once. */
  readonly hurdles: (item: ItemId) => readonly Hurdle[] | null;
  /** The shared sections on their hosts. */
  readonly places: Places;
}

/** Compiles a policy. Do it once per revision and keep the result. */
export function compile(policy: Policy, outline: Outline, names: SiteNames): CompiledPolicy {
  const vocabulary = vocabularyOf(names, policy);
  const covering = gatesByItem(policy, outline, vocabulary);
  const closures = conditionCompiler(vocabulary);
  const hurdleFor = hurdleMaker(closures, policy.turnAways, vocabulary);
  const over = (item: Item, kind: ItemKind, at: Item | null = item): readonly Hurdle[] => {
    const found: Hurdle[] = item.published ? [] : [unpublished(item, kind)];
    for (const { gate, setAside } of covering.get(item.id) ?? [])
      if (!setAside) found.push(hurdleFor(gate, item, kind, at));
    return found;
  };
  // What is in one thing rests on the same as its neighbours do, and a link deep down on all the links above it.
  const collectedAs = onceFor((_: ItemKind) => new Map<ItemId, readonly Hurdle[]>());
  const collect = (item: Item, kind: ItemKind): readonly Hurdle[] => {
    const collected = collectedAs(kind);
    const found = collected.get(item.id);
    if (found) return found;
    const own = isShared(item) ? places.hurdlesOf(item, kind) : over(item, kind);
    const above = restsOn(outline, item).flatMap((other) => collect(other, kind));
    const all = above.length === 0 ? own : inTurn(item, own, above);
    collected.set(item.id, all);
    return all;
  };
  const places = placesIn(outline, vocabulary, covering, over, collect);
  const known = new Map<ItemId, readonly Hurdle[]>();
  const hurdles = (id: ItemId): readonly Hurdle[] | null => {
    const found = known.get(id);
    if (found) return found;
    const item = outline.items.get(id);
    if (!item) return null;
    // From the outermost inwards: however deep it stands, none of them calls another that is not there yet.
    const collected = collectedAs(item.kind);
    const around: Item[] = [];
    for (let one: Item | null = item; one !== null && !collected.has(one.id); one = containerOf(outline, one))
      around.push(one);
    for (const one of around.reverse()) collect(one, item.kind);
    const all = collect(item, item.kind);
    known.set(id, all);
    return all;
  };
  return { policy, outline, vocabulary, covering, hurdles, places };
}

/** An item's own hurdles and those of what it rests on, in the order in which they speak. */
function inTurn(item: Item, own: readonly Hurdle[], above: readonly Hurdle[]): readonly Hurdle[] {
  // What is not published is missing before anything is said of what it is in.
  const first = KINDS[item.kind].afterAbove ? own.filter(({ gate }) => gate === null) : own;
  // Met twice, by way of a target and of what is above it, a hurdle is the same the second time.
  return [...new Set([...first, ...above, ...own])];
}

/** The hurdles of an item, or of a shared section on one of its hosts; null where there is no such thing. */
export const hurdlesOf = (compiled: CompiledPolicy, id: ItemId): readonly Hurdle[] | null =>
  compiled.hurdles(id) ?? compiled.places.at(id);

/** What else must be open for an item to be: its container, and for a link the page it leads to. */
export function restsOn(outline: Outline, item: Item): readonly Item[] {
  const container = containerOf(outline, item);
  const target =
    item.kind === 'link' && item.target.kind === 'item' ? outline.items.get(item.target.item) : undefined;
  return [container, target].filter((other): other is Item => other !== null && other !== undefined);
}

function gatesByItem(
  policy: Policy,
  outline: Outline,
  vocabulary: Vocabulary,
): ReadonlyMap<ItemId, readonly CoveringGate[]> {
  const byItem = new Map<ItemId, CoveringGate[]>();
  for (const gate of policy.gates) {
    // One value for every item it covers: a site may have millions of pairs.
    const covering = { gate, setAside: false };
    for (const id of coveredBy(gate, outline, vocabulary)) {
      const above = byItem.get(id);
      if (above === undefined) byItem.set(id, [covering]);
      else if (gate.stance === 'instead')
        byItem.set(id, [...above.map((entry) => ({ ...entry, setAside: true })), covering]);
      else above.push(covering);
    }
  }
  return byItem;
}

const unpublished = (item: Item, kind: Item['kind']): Hurdle => {
  const away = unpublishedAt(item.id, kind);
  return { over: item, at: item, gate: null, hostless: false, passes: () => false, away: () => away };
};

/** A gate made ready for items of a kind. */
interface Ready {
  readonly passes: Predicate;
  readonly cases: readonly { readonly applies: Predicate; readonly give: Fitted }[];
  readonly last: Fitted;
}

function hurdleMaker(
  closures: ConditionCompiler,
  named: readonly NamedTurnAway[],
  vocabulary: Vocabulary,
): (gate: Gate, over: Item, kind: ItemKind, at: Item | null) => Hurdle {
  // A gate gives the same to all items of a kind, and a reason takes longer to write than to keep.
  const ready = new Map<Gate, Map<ItemKind, Ready>>();
  const made = (gate: Gate, kind: ItemKind): Ready => {
    const kinds = ready.get(gate) ?? new Map<ItemKind, Ready>();
    ready.set(gate, kinds);
    const found = kinds.get(kind) ?? {
      passes: closures(gate.who),
      cases: gate.otherwise.cases.map(({ when, give }) => ({
        applies: closures(when),
        give: fittedFor(gate, give, kind, named, vocabulary),
      })),
      last: fittedFor(gate, gate.otherwise.last, kind, named, vocabulary),
    };
    kinds.set(kind, found);
    return found;
  };
  return (gate, over, kind, asked) => {
    const { passes, cases, last } = made(gate, kind);
    const at = asked ?? over;
    const hostless = asked === null && asksAboutItem(gate, vocabulary);
    // What was decided once is the same value the next time: what is made of it can be found by it.
    let decided: Map<Fitted, TurnedAway> | null = null;
    return {
      over,
      at,
      gate,
      hostless,
      // What is not there is nothing that is not set.
      passes: hostless ? () => false : passes,
      away: (visitor, request) => {
        const give = cases.find(({ applies }) => applies(visitor, at, request))?.give ?? last;
        decided ??= new Map();
        const found = decided.get(give) ?? turnedAwayBy(gate, give, over.id);
        decided.set(give, found);
        return found;
      },
    };
  };
}
