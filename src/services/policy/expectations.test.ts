/** What must stay so stops what would break it, and what was found can be set aside. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  aboutOf,
  analyse,
  any,
  asId,
  type Condition,
  compile,
  concerns,
  everyone,
  type Finding,
  type Gate,
  type GateId,
  guests,
  type ItemId,
  inGroup,
  keyOfFinding,
  level,
  missing,
  type Policy,
  parseExpectation,
  type What,
} from '@/core';
import {
  type Administrator,
  changeItem,
  exportSite,
  findingsSetAside,
  foundToday,
  NotAllowed,
  putLive,
  readSiteFile,
  revisionAt,
  saveDraft,
  setFindingAside,
  type Trivet,
  whomItConcerns,
} from '..';
import { plainRequest } from '../running';
import { gretaAt, later, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
  const { outline, live: before } = trivet.state;
  const read = parseExpectation(
    '(in group "Suspended") never opens branch "Observers’ room" except branch "A sample chart"',
    { outline, vocabulary: before.compiled.vocabulary },
  );
  if (!read.ok) throw new Error(read.error.message);
  await save({ ...live(), expectations: [{ id: asId('suspended-out'), ...read.expected }] });
  expect(await put()).toMatchObject({ kind: 'live' });
});
afterAll(() => trivet.close());

const live = (): Policy => trivet.state.live.policy;
const withGate = (id: string, change: (gate: Gate) => Gate): Policy => ({
  ...live(),
  gates: live().gates.map((one) => (one.id === id ? change(one) : one)),
});
/** Observers' room for everybody at a level, suspended ones too. */
const looser = (): Policy =>
  withGate('observers-room', (gate) => ({ ...gate, who: level('at least', asId('observer')) }));

async function save(policy: Policy): Promise<void> {
  const answer = await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy });
  if (answer.kind !== 'saved') throw new Error(JSON.stringify(answer));
}
const put = (more: object = {}, who = greta) =>
  putLive(
    trivet,
    who,
    { version: trivet.state.draft.version, revision: trivet.state.live.revision, ...more },
    now,
  );

describe('an expectation', () => {
  it('stops what would break it, and says who would get what', async () => {
    await save(looser());
    const revision = trivet.state.live.revision;
    const answer = await put();
    expect(answer).toMatchObject({ kind: 'broken', expectations: [{}] });
    if (answer.kind !== 'broken') throw new Error('It went live.');
    expect(answer.expectations[0]?.expected).toMatch(/^people in Suspended can’t open Observers’ room/);
    expect(answer.expectations[0]?.instead).toMatch(/^A member at Observer level, in Suspended can open/);
    expect(trivet.state.live.revision).toBe(revision);
  });

  it('concerns those who are there today', async () => {
    const of = { kind: 'expectation', id: 'suspended-out', items: ['observers', 'charts'] };
    const answer = await whomItConcerns(trivet, greta, { policy: looser(), of }, now);
    expect(answer).toMatchObject({ people: { count: 2, first: [{ name: 'Basil Thorne' }, {}] }, cut: false });
    const asLive = await whomItConcerns(trivet, greta, { policy: live(), of }, now);
    expect(asLive).toMatchObject({ people: { count: 0 } });
    const gone = await whomItConcerns(trivet, greta, { policy: live(), of: { ...of, id: 'none' } }, now);
    expect(gone).toMatchObject({ problems: [{}] });
  });

  it('concerns, of what was found, exactly those who get what was found', async () => {
    const observers = asId<ItemId>('observers');
    const over = (more: Partial<Gate>): Gate => ({
      id: asId<GateId>('one'),
      what: { targets: [{ kind: 'branch', item: observers }], except: [] },
      who: inGroup(asId('dome-crew')),
      otherwise: { cases: [], last: missing },
      stance: 'also',
      ...more,
    });
    const whole: What = { targets: [{ kind: 'branch', item: trivet.state.outline.root }], except: [] };
    const inOrder: Condition = { kind: 'test', fact: 'completed the one before', op: 'is' };
    const course = asId<ItemId>('dome-induction');
    const [first, second] = [...trivet.state.outline.items.values()]
      .filter((item) => item.kind === 'activity' && item.within?.course === course)
      .map(({ id }) => id);
    if (!first || !second) throw new Error('The induction has no two activities.');
    const sites: readonly (readonly [Finding['kind'], readonly Gate[], (one: Finding) => object])[] = [
      [
        'left open',
        [over({ what: { ...whole, except: [{ kind: 'branch', item: observers }] } })],
        (one) => ({ kind: 'let by', gates: ['one'], items: one.kind === 'left open' ? one.items : [] }),
      ],
      [
        'opened by instead',
        [over({}), over({ id: asId('two'), who: level('at least', asId('observer')), stance: 'instead' })],
        (one) => ({
          kind: 'let by',
          gates: ['one'],
          items: one.kind === 'opened by instead' ? [one.item] : [],
        }),
      ],
      ['gets nothing', [over({ what: whole })], () => ({ kind: 'nothing open' })],
      [
        'never past',
        [
          over({
            who: inGroup(asId('suspended')),
            what: { targets: [{ kind: 'item', item: first }], except: [] },
          }),
          over({
            id: asId('two'),
            who: inOrder,
            what: { targets: [{ kind: 'item', item: second }], except: [] },
          }),
        ],
        () => ({ kind: 'stuck', course, item: first, next: second }),
      ],
    ];
    const { state } = trivet;
    for (const [kind, gates, of] of sites) {
      const policy: Policy = { ...live(), audiences: [], expectations: [], landings: [], gates };
      const compiled = compile(policy, state.outline, state.names);
      const today = plainRequest(state, now);
      const { findings } = analyse(
        compiled,
        today.today,
        { byGroup: new Map(), byProduct: new Map() },
        new Set(),
      );
      const one = findings.find((found) => found.kind === kind);
      if (!one) throw new Error(`It was not found: ${kind}.`);
      const answer = await whomItConcerns(trivet, greta, { policy, of: of(one) }, now);
      const those = [...state.people.values()].filter(({ facts }) =>
        concerns(one, compiled, { visitor: facts, request: today }),
      );
      expect(those.length, kind).toBeGreaterThan(0);
      expect([kind, answer]).toMatchObject([kind, { people: { count: those.length } }]);
    }
  });

  it('can be overridden by an owner, with a reason that is kept', async () => {
    const keeper: Administrator = { ...greta, desk: { right: 'gatekeeper', branch: null } };
    await expect(put({ despite: 'I say so.' }, keeper)).rejects.toThrow(NotAllowed);
    expect(await put({ despite: ' ' })).toMatchObject({ kind: 'wrong' });
    const answer = await put({ despite: 'Open evening for everybody.' });
    expect(answer).toMatchObject({ kind: 'live' });
    const kept = await revisionAt(trivet, greta, trivet.state.live.revision);
    expect(kept?.revision.effect?.despite).toMatchObject({
      reason: 'Open evening for everybody.',
      broken: [{ expected: expect.stringContaining('Suspended') }],
    });
  });

  it('goes on being broken until it is changed or mended, and then stops nothing', async () => {
    const note = (gate: Gate): Gate => ({ ...gate, who: everyone });
    await save(withGate('lending-shelf', note));
    expect(await put()).toMatchObject({ kind: 'broken' });
    await save({ ...live(), expectations: live().expectations.filter(({ id }) => id !== 'suspended-out') });
    expect(await put()).toMatchObject({ kind: 'live' });
  });

  it('is refused where it names what was never there, and kept where it went meanwhile', async () => {
    const draft = (item: string): Policy => ({
      ...live(),
      expectations: [
        {
          id: asId('new'),
          who: everyone,
          claim: { kind: 'opens' },
          what: { targets: [{ kind: 'item', item: asId(item) }], except: [] },
        },
      ],
    });
    const at = trivet.state.draft.version;
    expect(await saveDraft(trivet, greta, { version: at, policy: draft('never-was') })).toMatchObject({
      problems: [{ gate: 'new', message: expect.stringContaining('There is no item') }],
    });
    await save(draft('contact'));
    const gone = await changeItem(trivet, greta, { kind: 'remove', item: 'contact' }, now);
    expect(gone).toMatchObject({ kind: 'done' });
    // It stays in the draft, stands in a file, and is read from one: as something that can't be shown.
    await save(draft('contact'));
    const file = await exportSite(trivet, greta, 'nobody');
    const read = await readSiteFile(JSON.parse(JSON.stringify(file)));
    if ('problems' in read) throw new Error(read.problems.join());
    expect(read.draft.expectations).toEqual(draft('contact').expectations);
    expect(await put()).toMatchObject({
      kind: 'broken',
      expectations: [{ instead: expect.stringContaining('no longer there') }],
    });
  });
});

describe('of those who are there today', () => {
  it('finds gates that nobody passes, and names in which there is nobody', async () => {
    const of = async (who: Gate['who']) => {
      const found = await foundToday(
        trivet,
        greta,
        withGate('crew', (gate) => ({ ...gate, who })),
        now,
      );
      if ('problems' in found) throw new Error(found.problems[0]?.message);
      return found.filter(({ gate }) => gate === 'crew').map(({ kind }) => kind);
    };
    expect(await of(inGroup(asId('dome-crew')))).toEqual([]);
    expect(await of(inGroup(asId('trustee-group')))).toEqual(['nobody passes today', 'asks for the empty']);
    expect(await of(any(inGroup(asId('trustee-group')), inGroup(asId('dome-crew'))))).toEqual([
      'asks for the empty',
    ]);
    expect(await of(any(inGroup(asId('trustee-group')), guests))).toEqual(['asks for the empty']);
  });
});

describe('a finding', () => {
  const finding: Finding = { kind: 'changes nothing', gate: asId<GateId>('crew') };

  it('is set aside with a reason, by whoever may change gates, and brought back', async () => {
    const about = aboutOf(finding, live());
    const of = { finding: keyOfFinding(finding), about };
    expect(await setFindingAside(trivet, greta, { ...of, reason: '' }, now)).toBe(
      'Say why it can stay as it is.',
    );
    expect(
      await setFindingAside(trivet, greta, { ...of, reason: 'It is there for safety.' }, now),
    ).toBeNull();
    expect(await setFindingAside(trivet, greta, { ...of, reason: 'It is meant.' }, later(1))).toBeNull();
    expect(await findingsSetAside(trivet, greta)).toEqual([
      { ...of, reason: 'It is meant.', by: greta.name, at: later(1).toISOString() },
    ]);
    expect(await setFindingAside(trivet, greta, { ...of, reason: null }, now)).toBeNull();
    expect(await findingsSetAside(trivet, greta)).toEqual([]);
  });

  it('is read strictly, and bounded', async () => {
    const huge = [{ text: 'x'.repeat(200_000) }];
    expect(await setFindingAside(trivet, greta, { finding: 'a', about: huge, reason: 'b' }, now)).toMatch(
      /too long/,
    );
    let deep: unknown = [];
    for (let at = 0; at < 5000; at++) deep = [deep];
    expect(await setFindingAside(trivet, greta, { finding: 'a', about: [deep], reason: 'b' }, now)).toMatch(
      /deep/,
    );
    expect(await setFindingAside(trivet, greta, { finding: '', about: [], reason: 'b' }, now)).not.toBeNull();
    expect(await setFindingAside(trivet, greta, null, now)).not.toBeNull();
    expect(await findingsSetAside(trivet, greta)).toEqual([]);
  });
});
