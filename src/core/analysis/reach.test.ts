/** What is said of every visitor there could be, held against `decide` and visitors drawn at random. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  any,
  type Condition,
  evaluatorOf,
  expanded,
  FALSE,
  inGroup,
  profile,
  type Test,
  TRUE,
  testsIn,
} from '../condition';
import { casesIn, type Gate } from '../gate';
import { asId, type GateId, type ItemId } from '../ids';
import { type CompiledPolicy, compile, decide, type Hurdle, hurdlesOf } from '../policy';
import type { Item, RequestFacts, VisitorFacts } from '../site';
import { anItem, policies } from '../testing/arbitraries';
import { crew, gates, items, outline, policy, valley, vocabulary } from '../testing/larkfell';
import { somebody, somehow } from '../testing/possible';
import { ALL, type Diagram, NONE, Undecided } from './diagram';
import { type Reach, reachOf } from './reach';

const FROM = '2024-02-29';
/** How many sites are tried; a long run tries more. */
const SITES = Number(process.env.TRIVET_SITES ?? 1000);

/** Everything that stands in the way to an item asks, with the item that it asks about. */
const askedAt = (compiled: CompiledPolicy, item: ItemId): readonly { test: Test; at: Item }[] =>
  (hurdlesOf(compiled, item) ?? []).flatMap(({ gate, at }: Hurdle) =>
    gate === null
      ? []
      : [gate.who, ...casesIn(gate)].flatMap((condition) =>
          testsIn(expanded(condition, vocabulary.audiences)).map((test) => ({ test, at })),
        ),
  );

/** The set of those of whom every test that is asked at an item comes to what it does of somebody. */
function likeThem(
  reach: Reach,
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
): Diagram {
  const { space } = reach;
  let set = ALL;
  for (const { test, at } of askedAt(compiled, item)) {
    const truth = evaluatorOf(test, vocabulary)(visitor, at, request);
    const [holds, fails] = [reach.meeting(test, at), reach.meeting(test, at, false)];
    const same = truth === TRUE ? holds : truth === FALSE ? fails : space.not(space.or(holds, fails));
    const next = space.and(set, same);
    if (next === NONE && set !== NONE)
      throw new Error(`Nobody is so: ${JSON.stringify(test)} comes to ${truth}.`);
    set = next;
  }
  return set;
}

describe('who can ever get what', () => {
  it('knows everybody there can be, and says of them what is decided', () => {
    fc.assert(
      fc.property(policies, anItem, somebody, somehow, (some, item, visitor, request) => {
        const compiled = compile(some, outline, vocabulary);
        const reach = reachOf(compiled, FROM);
        const like = likeThem(reach, compiled, item.id, visitor, request);
        const open = reach.openTo(item.id);
        const expected = decide(compiled, item.id, visitor, request).kind === 'open';
        expect(reach.space.and(like, open)).toBe(expected ? like : NONE);
      }),
      { numRuns: SITES },
    );
  });

  it('shows somebody for whatever it says, who gets just that', () => {
    fc.assert(
      fc.property(policies, (some) => {
        const compiled = compile(some, outline, vocabulary);
        const reach = reachOf(compiled, FROM);
        for (const { id } of items) {
          const open = reach.openTo(id);
          const [one, other] = [open, reach.space.not(open)].map(reach.somebodyIn);
          if (one) expect(decide(compiled, id, one.visitor, one.request).kind).toBe('open');
          if (other) expect(decide(compiled, id, other.visitor, other.request).kind).toBe('turned away');
        }
      }),
      { numRuns: SITES / 4 },
    );
  });

  it('of the small Larkfell names all that matters', () => {
    const reach = reachOf(compile(policy, outline, vocabulary), '2026-11-20');
    expect(reach.cells.things.map(({ thing, cells }) => [thing.kind, thing.of, cells.length])).toEqual([
      ['account', '', 2],
      ['level', '', 3],
      ['role', 'trustee', 2],
      ['group', 'dome-crew', 2],
      ['group', 'hollin-school', 2],
      ['group', 'suspended', 2],
    ]);
  });

  it('decides nothing rather than guess, and everything else all the same', () => {
    const pieces = Array.from({ length: 11 }, (_, at) => profile(valley, 'contains', `piece ${at}`));
    const [first, second] = items.filter(({ kind }) => kind === 'page');
    if (!first || !second) throw new Error('There are no pages.');
    const gate = (of: Item, who: Condition): Gate => ({
      ...gates.observers,
      id: asId<GateId>(`gate ${of.id}`),
      what: { targets: [{ kind: 'item', item: of.id }], except: [] },
      who,
      stance: 'instead',
    });
    const some = { ...policy, gates: [gate(first, any(...pieces)), gate(second, inGroup(crew))] };
    const reach = reachOf(compile(some, outline, vocabulary), FROM);
    expect(() => reach.openTo(first.id)).toThrow(Undecided);
    expect(reach.somebodyIn(reach.openTo(second.id))?.visitor.groups).toEqual([crew]);
  });
});
