/**
 * Findings: what is certain about gates and was hardly meant, over every visitor there could be. Whatever can be shown has
 * somebody to show it, who gets from `decide` what is said.
 */
import { everyone, nobody } from '../condition';
import type { Gate } from '../gate';
import type { GateId, ItemId } from '../ids';
import { type CompiledPolicy, decide, type Hurdle } from '../policy';
import { same } from '../same';
import { type Item, isShared, type VisitorFacts } from '../site';
import { closed } from './axioms';
import { type Diagram, NONE, orElse, Undecided } from './diagram';
import type { Reach } from './reach';

/** What was found about a gate. */
export type Finding = { readonly gate: GateId } & (
  | { readonly kind: 'nobody passes' }
  /** Nobody can pass both: what both are over is closed to everybody. */
  | { readonly kind: 'contradiction'; readonly other: GateId; readonly items: readonly ItemId[] }
  /** Whoever it turns away is turned away anyway. */
  | { readonly kind: 'changes nothing' }
  /** Later gates that say *instead* leave nothing to it. */
  | { readonly kind: 'set aside' }
  | { readonly kind: 'case never reached'; readonly index: number }
  /** A link is hidden from somebody who can open the page that it leads to. */
  | {
      readonly kind: 'hidden link';
      readonly link: ItemId;
      readonly page: ItemId;
      readonly witness: VisitorFacts;
    }
  | { readonly kind: 'not decided'; readonly why: string }
);

/** The gates on the way to items, without what says that something is not published. */
interface Way {
  readonly items: ItemId[];
  readonly hurdles: readonly (Hurdle & { readonly gate: Gate })[];
}

/** Everything that is found about the gates of a policy, in the order of the gates. */
export function findingsIn(reach: Reach): readonly Finding[] {
  const { compiled } = reach;
  const ways = waysIn(reach);
  // One by one first: what is too large alone is taken back before others are put together.
  for (const { hurdles } of ways)
    for (const hurdle of hurdles)
      orElse(
        () => reach.passing(hurdle),
        () => NONE,
      );
  const over = new Map<Gate, Way[]>();
  for (const way of ways)
    for (const gate of new Set(way.hurdles.map((hurdle) => hurdle.gate))) {
      const known = over.get(gate) ?? [];
      known.push(way);
      over.set(gate, known);
    }
  const idle = setAside(compiled);
  const links = [...compiled.outline.items.values()].filter(
    ({ kind, published }) => kind === 'link' && published,
  );
  return compiled.policy.gates.flatMap((gate): readonly Finding[] => {
    const id = gate.id;
    const own = over.get(gate) ?? [];
    return orElse<readonly Finding[], readonly Finding[]>(
      () => [
        ...(idle.has(gate) ? [{ gate: id, kind: 'set aside' } as const] : []),
        ...nobodyPasses(reach, gate, own),
        ...contradictions(reach, gate, own),
        ...changesNothing(reach, gate, own),
        ...reach.space.attempt(() => unreachedCases(reach, gate, own)),
        ...hiddenLinks(compiled, reach, gate, links),
      ],
      ({ message }) => [{ gate: id, kind: 'not decided', why: message }],
    );
  });
}

/** Items to which the same gates ask the same of everybody go one way. */
function waysIn({ compiled, wayTo }: Reach): readonly Way[] {
  const { outline, hurdles } = compiled;
  const ways = new Map<number, Way>();
  for (const [item, all] of hurdles) {
    const found = outline.items.get(item);
    // What a shared section asks, it asks at its hosts.
    if (!found || isShared(found)) continue;
    const gates = all.filter((one): one is Hurdle & { readonly gate: Gate } => one.gate !== null);
    if (gates.length === 0) continue;
    const way = wayTo(item);
    const known = ways.get(way);
    if (known) known.items.push(item);
    else ways.set(way, { items: [item], hurdles: gates });
  }
  return [...ways.values()];
}

const hurdlesOf = (gate: Gate, { hurdles }: Way) => hurdles.filter((one) => one.gate === gate);
/** Those there could be who pass all of some hurdles. */
const passing = (reach: Reach, hurdles: readonly Hurdle[]): Diagram =>
  reach.space.all(new Set([reach.possible, ...hurdles.map(reach.passing)]));

/** The gates that cover something, and to which later ones leave nothing of it. */
function setAside({ covering }: CompiledPolicy): ReadonlySet<Gate> {
  const [covers, speaks] = [new Set<Gate>(), new Set<Gate>()];
  for (const gates of covering.values())
    for (const { gate, setAside: aside } of gates) (aside ? covers : speaks).add(gate);
  return new Set([...covers].filter((gate) => !speaks.has(gate)));
}

function nobodyPasses(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  // Who says *nobody* means it.
  if (own.length === 0 || same(gate.who, nobody)) return [];
  const closed = own.every((way) => passing(reach, hurdlesOf(gate, way)) === NONE);
  return closed ? [{ gate: gate.id, kind: 'nobody passes' }] : [];
}

function contradictions(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const items = new Map<Gate, ItemId[]>();
  for (const way of own) {
    const mine = passing(reach, hurdlesOf(gate, way));
    if (mine === NONE) continue;
    for (const other of new Set(way.hurdles.map((one) => one.gate))) {
      if (other === gate) continue;
      const theirs = passing(reach, hurdlesOf(other, way));
      if (theirs === NONE || reach.space.and(mine, theirs) !== NONE) continue;
      items.set(other, (items.get(other) ?? []).concat(way.items));
    }
  }
  return [...items].map(([other, closed]) => ({
    gate: gate.id,
    kind: 'contradiction',
    other: other.id,
    items: closed,
  }));
}

function changesNothing(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  if (own.length === 0 || gate.stance === 'instead' || same(gate.who, everyone)) return [];
  const { space } = reach;
  const needless = own.every((way) => {
    const others = passing(
      reach,
      way.hurdles.filter((one) => one.gate !== gate),
    );
    return space.and(others, space.not(passing(reach, hurdlesOf(gate, way)))) === NONE;
  });
  return needless ? [{ gate: gate.id, kind: 'changes nothing' }] : [];
}

function unreachedCases(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const { space } = reach;
  const places = new Map(own.flatMap((way) => hurdlesOf(gate, way).map((one) => [one.at.id, one] as const)));
  const reached = new Set<number>();
  for (const hurdle of places.values()) {
    let left = space.and(reach.possible, space.not(reach.passing(hurdle)));
    gate.otherwise.cases.forEach(({ when }, index) => {
      const here = reach.meeting(when, hurdle.at);
      if (space.and(left, here) !== NONE) reached.add(index);
      left = space.and(left, space.not(here));
    });
  }
  if (places.size === 0) return [];
  return gate.otherwise.cases.flatMap((_, index) =>
    reached.has(index) ? [] : [{ gate: gate.id, kind: 'case never reached', index } as const],
  );
}

function hiddenLinks(
  compiled: CompiledPolicy,
  reach: Reach,
  gate: Gate,
  links: readonly Item[],
): readonly Finding[] {
  const { covering, hurdles } = compiled;
  return links.flatMap((link): readonly Finding[] => {
    if (link.kind !== 'link' || link.target.kind !== 'item') return [];
    const covered = covering.get(link.id)?.some((one) => one.gate === gate && !one.setAside);
    const hurdle = (hurdles.get(link.id) ?? []).find((one) => one.gate === gate && one.over === link);
    if (!covered || !hurdle) return [];
    const page = link.target.item;
    const astray = reach.space.and(reach.openTo(page), reach.space.not(reach.passing(hurdle)));
    // A link for those who have signed in may well be hidden from guests.
    const witness = reach.plainMemberIn(astray);
    if (!witness) return [];
    const visitor = closed(witness.visitor, reach.following);
    const shown =
      decide(compiled, page, visitor, witness.request).kind === 'open' &&
      decide(compiled, link.id, visitor, witness.request).kind !== 'open';
    if (!shown) throw new Undecided('Nobody could be found to show it.');
    return [{ gate: gate.id, kind: 'hidden link', link: link.id, page, witness: visitor }];
  });
}
