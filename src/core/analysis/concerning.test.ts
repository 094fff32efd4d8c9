/** Whom what was found concerns: whoever shows it, and whoever gets what they get; nobody else. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { test as fact, inGroup, level } from '../condition';
import { type Gate, missing } from '../gate';
import { asId, type GateId } from '../ids';
import { compile, type Policy } from '../policy';
import { guest, member } from '../site';
import { expectations, policies } from '../testing/arbitraries';
import { crew, id, outline, people, policy, request, vocabulary } from '../testing/larkfell';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';
import { breaksFor, concerns } from './concerning';

const TODAY = '2024-02-29';
const certain = (some: Policy, from = TODAY) => {
  const site = compile(some, outline, vocabulary);
  return { site, ...analyse(site, from, nothingFollows, new Set()) };
};

it('concerns whoever shows it', () => {
  let shown = 0;
  fc.assert(
    fc.property(policies, fc.array(expectations, { maxLength: 3 }), (some, expected) => {
      const { site, findings, verdicts } = certain({ ...some, expectations: expected });
      // Of what opens by and by nobody is concerned yet.
      for (const one of findings)
        if ('witness' in one && one.kind !== 'opens by itself') {
          shown += 1;
          expect([one.kind, concerns(one, site, one.witness)]).toEqual([one.kind, true]);
        }
      for (const one of expected) {
        const verdict = verdicts.get(one.id);
        if (verdict?.kind !== 'broken') continue;
        shown += 1;
        expect(breaksFor(one, verdict, site, verdict.witness)).toBe(true);
      }
    }),
    { numRuns: 150 },
  );
  expect(shown).toBeGreaterThan(50);
});

const gate = (name: string, item: string, who: Gate['who']): Gate => ({
  id: asId<GateId>(name),
  what: { targets: [{ kind: 'item', item: id(item) }], except: [] },
  who,
  otherwise: { cases: [], last: missing },
  stance: 'also',
});

it('concerns those learners who never get past something, and no others', () => {
  const order = ['shutter', 'dark'].map((item) =>
    gate(`order-${item}`, item, fact('completed the one before', 'is')),
  );
  const { site, findings } = certain(
    { ...policy, audiences: [], gates: [...order, gate('shutter', 'shutter', inGroup(crew))] },
    request.today,
  );
  const past = findings.find(({ kind }) => kind === 'never past');
  if (!past) throw new Error('Nothing was found.');
  const enrolled = { enrolments: [{ course: id('induction'), on: '2026-01-01', until: null }] };
  const of = (visitor: typeof guest) => concerns(past, site, { visitor, request });
  expect(of(member(enrolled))).toBe(true);
  expect(of(member())).toBe(false);
  expect(of(guest)).toBe(false);
  const ladder = { item: id('ladder'), on: '2026-01-02', score: null };
  expect(of(member({ ...enrolled, groups: [crew], completions: [ladder] }))).toBe(false);
});

it('concerns those of whom something else is expected', () => {
  const expected = {
    id: asId<never>('only'),
    who: inGroup(crew),
    claim: { kind: 'only opens' as const },
    what: { targets: [{ kind: 'item' as const, item: id('rota') }], except: [] },
  };
  const lets = gate('rota', 'rota', level('at least', vocabulary.levels[1]?.id as never));
  const { site, verdicts } = certain({ ...policy, audiences: [], gates: [lets], expectations: [expected] });
  const verdict = verdicts.get(expected.id);
  if (!verdict) throw new Error('Nothing was decided.');
  const of = (visitor: typeof guest) => breaksFor(expected, verdict, site, { visitor, request });
  expect(of(people.tobin)).toBe(true);
  expect(of(people.ines)).toBe(false);
  expect(of(people.marek)).toBe(false);
  expect(breaksFor(expected, { kind: 'gone' }, site, { visitor: people.tobin, request })).toBe(false);
});
