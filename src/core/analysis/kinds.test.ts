/** Kinds of visitor, held against `decide` and visitors drawn at random. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Condition, conditionCompiler, hasRole, inGroup, level, profile, testOf } from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId } from '../ids';
import { type CompiledPolicy, compile, decide, type Outcome, outcomeOf } from '../policy';
import { describeWho } from '../sentence';
import type { RequestFacts, VisitorFacts } from '../site';
import { policies } from '../testing/arbitraries';
import { certificate, gates, outline, people, policy, request, team, vocabulary } from '../testing/larkfell';
import { somebody, somehow } from '../testing/possible';
import { nothingFollows } from './axioms';
import { kindsOf, representativesOf } from './kinds';

const SITES = Number(process.env.TRIVET_SITES ?? 1000);

const owners = new Set<unknown>([...outline.items.values()].flatMap(({ facts }) => facts?.owner ?? []));

const got = (compiled: CompiledPolicy, visitor: VisitorFacts, how: RequestFacts): readonly Outcome[] =>
  representativesOf(compiled).map(({ item }) => outcomeOf(decide(compiled, item, visitor, how)));

it('whoever gets the same everywhere is of one kind, which is said of them and of nobody else', () => {
  let described = 0;
  fc.assert(
    fc.property(
      policies,
      fc.array(somebody, { minLength: 6, maxLength: 6 }),
      somehow,
      (some, visitors, how) => {
        const compiled = compile(some, outline, vocabulary);
        const closures = conditionCompiler(compiled.vocabulary);
        const all = visitors.map((visitor) => ({ visitor, key: got(compiled, visitor, how) }));
        // Where representatives agree, every item does.
        const told = new Map<string, string>();
        for (const { visitor, key } of all) {
          const everything = [...outline.items.keys()]
            .map((id) => outcomeOf(decide(compiled, id, visitor, how)))
            .join();
          expect(told.get(key.join()) ?? everything).toBe(everything);
          told.set(key.join(), everything);
        }
        const { kinds } = kindsOf(
          compiled,
          nothingFollows,
          how,
          all.map(({ key }) => key),
        );
        kinds.forEach(({ who, witness }, at) => {
          const mine = all[at]?.key.join();
          if (witness) expect(got(compiled, witness.visitor, witness.request).join()).toBe(mine);
          if (who === null) return;
          described += 1;
          // Owners of single items are left aside.
          for (const { visitor, key } of all)
            if (!owners.has(visitor.id)) expect(closures(who)(visitor, null, how)).toBe(key.join() === mine);
        });
      },
    ),
    { numRuns: SITES / 8 },
  );
  expect(described).toBeGreaterThan(SITES / 8);
});

it('of the small Larkfell says who they are, and how many kinds there can be', () => {
  const compiled = compile(policy, outline, vocabulary);
  // Suspended or below Observer: the site gives both the same.
  const basil =
    'either members who are at a level below Observer, are not Trustees, are not in Dome crew and are not in Hollin School, or else people in Suspended who have a level, are not Trustees, are not in Dome crew and are not in Hollin School';
  const crewed =
    'people at Observer level or above who are in Dome crew, are not Trustees, are not in Hollin School and are not in Suspended';
  const names = Object.keys(people) as (keyof typeof people)[];
  const { kinds, count } = kindsOf(
    compiled,
    nothingFollows,
    request,
    names.map((name) => got(compiled, people[name], request)),
  );
  expect(
    Object.fromEntries(
      names.map((name, at) => [name, kinds[at]?.who && describeWho(kinds[at].who, vocabulary)]),
    ),
  ).toEqual({
    guest: 'guests',
    marek: 'members who have no level, are not Trustees, are not in Dome crew and are not in Hollin School',
    odile: basil,
    basil,
    tobin:
      'people at Observer level or above who are not Trustees, are not in Dome crew, are not in Hollin School and are not in Suspended',
    ines: crewed,
    wren: crewed,
    priya:
      'either people at Observer level or above who are in Hollin School, are not in Dome crew and are not in Suspended, or else people at Observer level or above who are Trustees, are not in Dome crew and are not in Suspended',
    sunniva:
      'either people without a level who are in Hollin School and are not in Dome crew, or people without a level who are Trustees and are not in Dome crew',
  });
  expect(count).toBe(13);
});

it('counts no further than anybody would list', () => {
  const asks = [
    ...vocabulary.groups.map((one) => inGroup(one.id)),
    ...vocabulary.roles.map((one) => hasRole(one.id)),
    ...vocabulary.activities.map((one) => testOf('completed', one.id, 'is')),
    ...vocabulary.levels.map((one) => level('at least', one.id)),
    profile(certificate, 'is yes'),
    profile(team, 'is', 'Optics'),
  ];
  const pages = [...outline.items.values()].filter(({ kind }) => kind === 'page' || kind === 'post');
  const gate = (who: Condition, at: number): Gate => ({
    ...gates.crew,
    id: asId<GateId>(`gate ${at}`),
    what: { targets: [{ kind: 'item', item: pages[at]?.id ?? outline.root }], except: [] },
    who,
  });
  const count = (most: number) => {
    const some = { ...policy, gates: asks.slice(0, most).map(gate) };
    return kindsOf(compile(some, outline, vocabulary), nothingFollows, request, []).count;
  };
  expect(count(1)).toBe(2);
  expect(count(5)).toBe(32);
  expect(count(asks.length)).toBeNull();
});
