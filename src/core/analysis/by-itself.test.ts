/** What happens by itself is found beforehand: what closes for good, what opens later, and who can open nothing. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  expanded,
  factNamed,
  inGroup,
  not,
  signedIn,
  test,
  testsIn,
} from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId, type GroupId, type ItemId } from '../ids';
import { compile, decide, type Policy } from '../policy';
import { type Address, type Item, isOpenable, type RequestFacts, type VisitorFacts } from '../site';
import { gates as gatesOfAny, policies } from '../testing/arbitraries';
import { crew, id, outline, policy, request, soundOutline, vocabulary } from '../testing/larkfell';
import { found, gate, kinds } from '../testing/made-up-gates';
import { somebody } from '../testing/possible';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';

const SITES = Number(process.env.TRIVET_SITES ?? 1000);

/** Whether a gate asks about the request. */
const asksHow = ({ who }: Gate): boolean =>
  testsIn(expanded(who, vocabulary.audiences)).some(({ fact }) => factNamed(fact).of === 'request');

describe('by itself', () => {
  const until = test('date', 'before', '2026-12-01');
  const from = test('date', 'after', '2026-12-24');
  it('finds what closes for good, and what opens on a day to come', () => {
    expect(found(gate('advent', all(inGroup(crew), until), 'observers'))).toEqual([
      { gate: 'advent', kind: 'closes for good', after: '2026-12-01' },
    ]);
    const [one] = found(gate('feast', all(inGroup(crew), from), 'observers'));
    expect(one).toMatchObject({
      gate: 'feast',
      kind: 'opens by itself',
      witness: { visitor: { groups: [crew] } },
    });
    expect(one?.kind === 'opens by itself' && one.witness.request.today > '2026-12-24').toBe(true);
    // Whoever else passes, passes on other days as well.
    expect(kinds(gate('one', any(inGroup(crew), until), 'observers'))).toEqual([]);
    expect(kinds(gate('one', any(inGroup(crew), from), 'observers'))).toEqual([]);
    expect(kinds(gate('one', all(inGroup(crew), test('date', 'after', '2026-11-01')), 'observers'))).toEqual([
      'one: can be simpler',
    ]);
  });

  it('finds a member who can open nothing at all', () => {
    const whole = (who: Condition) =>
      gate('whole', who, 'site', { what: { targets: [{ kind: 'branch', item: outline.root }], except: [] } });
    expect(found(whole(inGroup(crew)))).toMatchObject([
      { gate: null, kind: 'gets nothing', witness: { visitor: { signedIn: true, groups: [] } } },
    ]);
    expect(kinds(whole(signedIn))).toEqual([]);
    expect(kinds(gate('part', inGroup(crew), 'observers'))).toEqual([]);
    // Somebody who has something more than others, and by it less.
    expect(found(whole(not(inGroup(crew))))).toMatchObject([
      { gate: null, kind: 'gets nothing', witness: { visitor: { groups: [crew] } } },
    ]);
  });

  it('and is right about whether there is one', () => {
    fc.assert(
      fc.property(policies, gatesOfAny, fc.array(somebody, { maxLength: 8 }), (some, over, those) => {
        const whole: Gate = {
          ...over,
          id: asId<GateId>('whole'),
          what: { targets: [{ kind: 'branch', item: outline.root }], except: [] },
        };
        const site = compile({ ...some, gates: [...some.gates, whole] }, outline, vocabulary);
        const getsNone = (facts: VisitorFacts, at: RequestFacts) =>
          [...outline.items.values()]
            .filter(isOpenable)
            .every((item) => decide(site, item.id, facts, at).kind !== 'open');
        const { findings } = analyse(site, request.today, nothingFollows, new Set());
        const one = findings.find(({ kind }) => kind === 'gets nothing');
        if (one?.kind === 'gets nothing')
          expect(getsNone(one.witness.visitor, one.witness.request)).toBe(true);
        // How somebody asks makes no member of its own: who gets something at some time of day gets something.
        else if (!site.policy.gates.some(asksHow))
          for (const facts of those) expect(facts.signedIn && getsNone(facts, request)).toBe(false);
      }),
      { numRuns: SITES / 10 },
    );
  });

  it('finds them on a site of which all answers together are too much to work out', () => {
    const groups = Array.from({ length: 40 }, (_, at) => asId<GroupId>(`group-${at}`));
    const some = (at: number) => inGroup(groups[at % groups.length] as GroupId);
    const pages = Array.from(
      { length: 120 },
      (_, at): Item => ({
        id: asId<ItemId>(`page-${at}`),
        kind: 'page',
        parent: id('site'),
        rank: at,
        title: `Page ${at}`,
        published: true,
        address: `/page-${at}` as Address,
      }),
    );
    const site = soundOutline([outline.items.get(id('site')) as Item, ...pages]);
    const over = pages.map((page, at) =>
      gate(
        `over-${at}`,
        any(all(some(at), not(some(at * 7 + 3))), all(some(at * 13 + 5), some(at + 1))),
        page.id,
      ),
    );
    const names = { ...vocabulary, groups: groups.map((one) => ({ id: one, name: one, private: false })) };
    const policyOver = { ...policy, audiences: [], gates: over } satisfies Policy;
    const { findings } = analyse(compile(policyOver, site, names), request.today, nothingFollows, new Set());
    expect(findings.filter(({ kind }) => kind === 'gets nothing')).toMatchObject([
      { witness: { visitor: { signedIn: true, groups: [] } } },
    ]);
  });
});
