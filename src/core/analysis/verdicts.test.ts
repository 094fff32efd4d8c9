/** What has become of expectations, held against `decide` and visitors drawn at random. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, conditionCompiler, hasRole, inGroup, level, not, owns } from '../condition';
import { allows, type Claim, type Expectation, parseExpectation } from '../expectation';
import { coverage } from '../gate';
import { asId, type GroupId, type ItemId, type LevelId } from '../ids';
import { compile, decide, outcomeOf, type Policy } from '../policy';
import { type Following, noGrants } from '../site';
import { expectations, policies } from '../testing/arbitraries';
import {
  crew,
  gates,
  observer,
  outline,
  pass,
  policy,
  suspended,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { somebody, somehow } from '../testing/possible';
import { analyse, expectationsProved } from './analyse';
import { nothingFollows } from './axioms';
import { outcomesIn } from './outcomes';
import { reachOf } from './reach';
import type { Verdict } from './verdicts';

const TODAY = '2026-11-20';
const SITES = Number(process.env.TRIVET_SITES ?? 1000);

function written(text: string): Expectation {
  const read = parseExpectation(text, { vocabulary, outline });
  if (!read.ok) throw new Error(read.error.message);
  return { id: asId(text), ...read.expected };
}

function verdicts(some: Policy, following: Following, ...texts: readonly string[]): readonly Verdict[] {
  const compiled = compile({ ...some, expectations: texts.map(written) }, outline, vocabulary);
  return expectationsProved(compiled, TODAY, following);
}
const proved = (text: string, some = policy, following = nothingFollows): Verdict | undefined =>
  verdicts(some, following, text)[0];

describe('what is expected', () => {
  it('is proved, and nobody drawn gets anything else; or is refuted by somebody who does', () => {
    fc.assert(
      fc.property(
        policies,
        fc.array(expectations, { minLength: 1, maxLength: 3 }),
        fc.array(fc.tuple(somebody, somehow), { minLength: 5, maxLength: 5 }),
        (some, expected, askers) => {
          const compiled = compile({ ...some, expectations: expected }, outline, vocabulary);
          const closures = conditionCompiler(vocabulary);
          expectationsProved(compiled, '2024-02-29', nothingFollows).forEach((verdict, at) => {
            const one = expected[at];
            if (!one || verdict.kind === 'gone' || verdict.kind === 'not decided') return;
            const meets = closures(one.who);
            const fails = (id: ItemId, [visitor, request]: (typeof askers)[number]) =>
              meets(visitor, outline.items.get(id) ?? null, request) !== (one.claim.kind === 'only opens') &&
              !allows(one.claim, outcomeOf(decide(compiled, id, visitor, request)));
            if (verdict.kind === 'broken') {
              const { item, visitor, request, gets } = verdict.witness;
              expect(fails(item, [visitor, request])).toBe(true);
              expect(outcomeOf(decide(compiled, item, visitor, request))).toBe(gets);
            }
            const sound = new Set<ItemId>(verdict.kind === 'broken' ? verdict.items : []);
            for (const id of coverage({ what: one.what, stance: 'also' }, outline, vocabulary))
              if (!sound.has(id)) for (const asker of askers) expect(fails(id, asker)).toBe(false);
          });
        },
      ),
      { numRuns: SITES / 4 },
    );
  });

  it('knows of every item who gets what, each visitor just one thing', () => {
    fc.assert(
      fc.property(policies, (some) => {
        const reach = reachOf(compile(some, outline, vocabulary), TODAY);
        const outcomes = outcomesIn(reach);
        for (const id of outline.items.keys()) {
          const sets = [...outcomes(id)];
          expect(reach.space.any(sets.map(([, set]) => set))).toBe(reach.possible);
          for (const [outcome, set] of sets) {
            const shown = reach.somebodyIn(set);
            if (!shown) throw new Error('Nobody is in it.');
            expect(outcomeOf(decide(reach.compiled, id, shown.visitor, shown.request))).toBe(outcome);
          }
        }
      }),
      { numRuns: SITES / 20 },
    );
  });

  it.each([
    'only (in group "Dome crew") opens branch "Dome crew"',
    'everyone opens "Home"',
    'not signed in gets redirect at "Observers’ room"',
    'signed in and not level at least "Observer" gets teaser at branch "Charts" except "A sample chart", "Seeing forecast"',
    '(in group "Hollin School" and not in group "Dome crew") never sees branch "Dome crew"',
    '(in group "Suspended") never opens "Charts"',
    'everyone opens posts in category "Night logs"',
    'not signed in opens items where (item tag is "winter")',
    'everyone never sees "Attic"',
  ])('of the small Larkfell it holds that %s', (text) => {
    expect(proved(text)).toMatchObject({ kind: 'holds', aboutNobody: false });
  });

  it('shows who breaks it, and where', () => {
    const verdict = proved('signed in opens branch "Observers’ room"');
    expect(verdict).toMatchObject({
      kind: 'broken',
      witness: { visitor: { signedIn: true, level: null }, item: 'observers', gets: 'teaser' },
    });
    expect(verdict?.kind === 'broken' && verdict.items).not.toContain('sample');
    expect(verdict?.kind === 'broken' && verdict.items).toContain('charts');
  });

  it('finds whoever is let in by a gate that asks for less', () => {
    const looser = { ...gates.observers, who: level('at least', observer) };
    const changed = { ...policy, gates: policy.gates.map((one) => (one.id === looser.id ? looser : one)) };
    expect(proved('(in group "Suspended") never opens "Observers’ room"', changed)).toMatchObject({
      kind: 'broken',
      witness: { visitor: { groups: [suspended] }, gets: 'open' },
    });
  });

  it('holds of nobody, and says so, where nobody there could be is meant', () => {
    expect(proved('in group "Dome crew" and not signed in opens "Attic"')).toMatchObject({
      kind: 'holds',
      aboutNobody: true,
    });
    expect(proved('everyone opens posts in category "Not yet"')).toMatchObject({ kind: 'holds', items: 0 });
  });

  it('is not shown where it names what is gone', () => {
    for (const text of ['everyone opens id "no-longer"', 'audience id "no-longer" opens "Home"'])
      expect(proved(text)).toEqual({ kind: 'gone' });
  });

  it('knows what whoever owns a product has with it', () => {
    const text = '(owns "Keeper’s pass") opens "Observers’ room"';
    const following: Following = {
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, level: observer }]]),
    };
    const some = { ...policy, gates: [{ ...gates.observers, who: level('at least', observer) }] };
    expect(proved(text, some)).toMatchObject({ kind: 'broken' });
    expect(proved(text, some, following)).toMatchObject({ kind: 'holds', aboutNobody: false });
    // That somebody had it once gives nothing.
    const ended = '(ever owned "Keeper’s pass") opens "Observers’ room"';
    expect(proved(ended, some, following)).toMatchObject({ kind: 'broken' });
  });

  it('makes nobody impossible by what a product gives and is gone', () => {
    const text = '(owns "Keeper’s pass") never opens "Home"';
    const given = (level: LevelId, group: GroupId): Following => ({
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, level, groups: [group] }]]),
    });
    const some = {
      ...policy,
      gates: [{ ...gates.observers, who: all(level('at least', observer), not(inGroup(crew))) }],
    };
    for (const following of [given(observer, crew), given(asId('no-longer'), asId('no-longer'))])
      expect(proved(text, some, following)).toMatchObject({ kind: 'broken' });
  });

  it('finds no gate that asks a product for more than what it gives', () => {
    const compiled = compile(
      {
        ...policy,
        gates: [
          { ...gates.crew, who: owns(pass) },
          { ...gates.school, id: asId('twice'), what: gates.crew.what, who: hasRole(trustee) },
        ],
      },
      outline,
      vocabulary,
    );
    const following: Following = {
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, roles: [trustee] }]]),
    };
    const kinds = (given: Following) =>
      analyse(compiled, TODAY, given, new Set([pass])).findings.flatMap(({ gate, kind }) =>
        gate === null ? [] : [`${gate} ${kind}`],
      );
    expect(kinds(nothingFollows)).toEqual([]);
    expect(kinds(following)).toEqual(['twice changes nothing']);
  });

  it('says which two can’t both be true', () => {
    const [first, second, third] = verdicts(
      policy,
      nothingFollows,
      'everyone opens branch "Dome crew"',
      'not signed in never sees "Rota"',
      'signed in never opens "Attic"',
    );
    expect(first).toMatchObject({ kind: 'broken', against: 'not signed in never sees "Rota"' });
    expect(second).toMatchObject({ kind: 'holds' });
    expect(third).toMatchObject({ kind: 'holds' });
  });

  it('decides nothing about what explodes, and the others all the same', () => {
    const pieces = Array.from({ length: 11 }, (_, at) => `profile valley contains "piece ${at}"`).join(
      ' or ',
    );
    const [huge, plain] = verdicts(
      policy,
      nothingFollows,
      `(${pieces}) opens "Home"`,
      'everyone opens "Home"',
    );
    expect(huge).toMatchObject({ kind: 'not decided' });
    expect(plain).toMatchObject({ kind: 'holds' });
  });
});

const claims: readonly Claim[] = [
  { kind: 'opens' },
  { kind: 'never opens' },
  { kind: 'never sees' },
  { kind: 'gets', outcome: 'teaser' },
];

it('is about those it names: whom it does not name it says nothing of', () => {
  for (const claim of claims) {
    const expectation: Expectation = {
      id: asId('none'),
      who: { kind: 'all', of: [inGroup(crew), not(inGroup(crew))] },
      claim,
      what: { targets: [{ kind: 'branch', item: outline.root }], except: [] },
    };
    const compiled = compile({ ...policy, expectations: [expectation] }, outline, vocabulary);
    expect(expectationsProved(compiled, TODAY, nothingFollows)).toMatchObject([
      { kind: 'holds', aboutNobody: true },
    ]);
  }
});
