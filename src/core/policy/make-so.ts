/**
 * From the answer that one wants to the change that makes it: the few changes of the gates after which somebody, and everybody
 * like them, gets an item or gets it no longer. Each is tried out by `decide`: what does not make it so is not offered.
 */
import { all, any, type Condition, everyone, guests, nobody, not } from '../condition';
import { type Gate, missing } from '../gate';
import type { GateId, ItemId } from '../ids';
import { same } from '../same';
import { isMembersOnly, plain } from '../sentence';
import type { RequestFacts, VisitorFacts } from '../site';
import { type CompiledPolicy, compile } from './compile';
import { decide } from './decide';
import { explain } from './explain';
import type { Policy } from './policy';

/** A cell of the board that is to be otherwise. */
export interface WantedCell {
  readonly item: ItemId;
  readonly visitor: VisitorFacts;
}

/** How a proposal goes about it. */
export type ProposalKind =
  /** One more way to pass the gates that turn them away, wherever those stand. */
  | 'let in everywhere'
  /** A gate over these items alone that sets the others aside: whoever passed them, and those. */
  | 'let in here'
  /** The items are left out of the gates that turn them away. */
  | 'leave out'
  /** One more thing that the last gate over the items asks. */
  | 'keep out everywhere'
  /** A gate over these items alone. */
  | 'keep out here';

export interface Proposal {
  readonly kind: ProposalKind;
  readonly policy: Policy;
  /** The gates that are changed or new. */
  readonly gates: readonly Gate[];
}

interface Wish {
  readonly cells: readonly WantedCell[];
  readonly open: boolean;
  /** Whom it is to be so for; true of every visitor of the cells. */
  readonly whom: Condition;
  readonly request: RequestFacts;
  /** A new id for each gate that is made. */
  readonly newId: () => GateId;
}

/** The changes that make cells so, and leave those as they are that are so already. Nothing where no change of gates does. */
export function proposalsFor(compiled: CompiledPolicy, wish: Wish): readonly Proposal[] {
  const { outline, vocabulary, policy } = compiled;
  const isSo =
    (by: CompiledPolicy) =>
    ({ item, visitor }: WantedCell): boolean =>
      (decide(by, item, visitor, wish.request).kind === 'open') === wish.open;
  const isSoNow = isSo(compiled);
  const otherwise = { ...wish, cells: wish.cells.filter((cell) => !isSoNow(cell)) };
  if (otherwise.cells.length === 0) return [];
  return (wish.open ? opening(compiled, otherwise) : closing(compiled, otherwise)).filter(
    (one) => !same(one.policy, policy) && wish.cells.every(isSo(compile(one.policy, outline, vocabulary))),
  );
}

const withGates = (
  policy: Policy,
  changed: ReadonlyMap<GateId, Gate>,
  added: readonly Gate[] = [],
): Policy => ({
  ...policy,
  gates: [...policy.gates.map((gate) => changed.get(gate.id) ?? gate), ...added],
});

/** Joined to what is there, without saying anything twice. */
const orElse = (who: Condition, more: Condition): Condition => {
  if (same(more, everyone) || same(who, nobody) || same(who, more)) return more;
  return who.kind === 'any' ? any(...who.of, more) : any(who, more);
};
const andToo = (who: Condition, more: Condition): Condition => {
  if (same(who, everyone) || same(more, nobody)) return more;
  return who.kind === 'all' ? all(...who.of, more) : all(who, more);
};

/** The gates that turn somebody away at an item, with where they stand. */
function turningAway(compiled: CompiledPolicy, { item, visitor }: WantedCell, request: RequestFacts) {
  return explain(compiled, item, visitor, request).steps.flatMap((step) =>
    step.kind === 'gate' && (step.verdict === 'spoke' || step.verdict === 'would speak') ? [step] : [],
  );
}

function opening(compiled: CompiledPolicy, { cells, whom, request, newId }: Wish): readonly Proposal[] {
  const { policy, covering } = compiled;
  const steps = cells.flatMap((cell) => turningAway(compiled, cell, request));
  const away = new Map(steps.map(({ gate }) => [gate.id, gate]));
  const widened = new Map([...away].map(([id, gate]) => [id, { ...gate, who: orElse(gate.who, whom) }]));
  const items = [...new Set(cells.map(({ item }) => item))];
  const narrowed = new Map(
    [...away].map(([id, gate]) => {
      const covered = items.filter((item) => covering.get(item)?.some((one) => one.gate.id === id));
      const except = covered.map((item) => ({ kind: 'item' as const, item }));
      return [id, { ...gate, what: { ...gate.what, except: [...gate.what.except, ...except] } }];
    }),
  );
  // Items over which the same gates stand have one new gate together.
  const together = new Map<string, { readonly over: readonly Gate[]; readonly items: ItemId[] }>();
  for (const item of items) {
    const over = (covering.get(item) ?? []).flatMap(({ gate, setAside }) => (setAside ? [] : [gate]));
    const key = over.map(({ id }) => id).join(' ');
    const found = together.get(key) ?? { over, items: [] };
    together.set(key, found);
    found.items.push(item);
  }
  const instead = [...together.values()].flatMap(({ over, items: own }): readonly Gate[] => {
    const speaks = over.find(({ id }) => away.has(id));
    const [first, ...others] = over.map(({ who }) => who);
    if (!speaks || !first) return [];
    return [
      {
        id: newId(),
        what: { targets: own.map((item) => ({ kind: 'item', item })), except: [] },
        who: orElse(others.length === 0 ? first : all(first, ...others), whom),
        otherwise: speaks.otherwise,
        stance: 'instead',
      },
    ];
  });
  return [
    { kind: 'let in everywhere', policy: withGates(policy, widened), gates: [...widened.values()] },
    { kind: 'let in here', policy: withGates(policy, new Map(), instead), gates: instead },
    { kind: 'leave out', policy: withGates(policy, narrowed), gates: [...narrowed.values()] },
  ];
}

function closing(compiled: CompiledPolicy, { cells, whom, newId }: Wish): readonly Proposal[] {
  const { policy, covering, vocabulary } = compiled;
  const items = [...new Set(cells.map(({ item }) => item))];
  const butThem = same(whom, everyone) ? nobody : not(whom);
  // Of a guest nobody knows the groups: who is to be kept out is said without keeping them out as well.
  const others = isMembersOnly(plain(whom), vocabulary) ? orElse(guests, butThem) : butThem;
  const last = new Map(
    items.flatMap((item) => {
      const gate = (covering.get(item) ?? []).findLast(({ setAside }) => !setAside)?.gate;
      return gate ? [[gate.id, gate] as const] : [];
    }),
  );
  const narrowed = new Map(
    [...last].map(([id, gate]) => {
      // Where guests don't pass anyway, nothing has to be said of them.
      const more = isMembersOnly(plain(gate.who), vocabulary) ? butThem : others;
      return [id, { ...gate, who: andToo(gate.who, more) }];
    }),
  );
  const gate: Gate = {
    id: newId(),
    what: { targets: items.map((item) => ({ kind: 'item', item })), except: [] },
    who: others,
    otherwise: { cases: [], last: missing },
    stance: 'also',
  };
  return [
    { kind: 'keep out here', policy: withGates(policy, new Map(), [gate]), gates: [gate] },
    { kind: 'keep out everywhere', policy: withGates(policy, narrowed), gates: [...narrowed.values()] },
  ];
}
