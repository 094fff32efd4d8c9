/** Whatever is accepted can be started with: each draft that is made to hurt is refused with a sentence, or does no harm. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Condition, type Gate, openPolicy, type Policy } from '@/core';
import { updateDraft } from '@/store';
import { type Administrator, saveDraft, type Trivet } from '..';
import { gretaAt, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const signedIn: Condition = { kind: 'test', fact: 'signed in', op: 'is' };
const uses = (...ids: readonly string[]): Condition => ({
  kind: 'any',
  of: ids.map((audience) => ({ kind: 'audience', audience }) as unknown as Condition),
});
const audience = (id: string, who: Condition) => ({ id, name: id, who });
const gate = (id: string, who: Condition, targets: unknown = [{ kind: 'item', item: 'visit' }]) => ({
  id,
  what: { targets, except: [] },
  who,
  otherwise: { cases: [], last: { kind: 'message', reason: { kind: 'written' }, next: { kind: 'none' } } },
  stance: 'also',
});
const nested = (depth: number): Condition =>
  depth === 0 ? signedIn : { kind: 'not', of: nested(depth - 1) };
const doubling = (steps: number) => [
  ...Array.from({ length: steps }, (_, at) => audience(`a${at}`, uses(`a${at + 1}`, `a${at + 1}`))),
  audience(`a${steps}`, signedIn),
];
const tests = (count: number): Condition => ({
  kind: 'all',
  of: Array.from({ length: count }, () => signedIn),
});

const HOSTILE: Readonly<Record<string, object>> = {
  'audiences that double forty times': { audiences: doubling(40), gates: [gate('g', uses('a0'))] },
  'audiences that double ten times, in every gate': {
    audiences: doubling(10),
    gates: Array.from({ length: 250 }, (_, at) => gate(`g${at}`, uses('a0'))),
  },
  'a long chain of audiences': {
    audiences: [
      ...Array.from({ length: 499 }, (_, at) => audience(`a${at}`, uses(`a${at + 1}`))),
      audience('a499', signedIn),
    ],
    gates: [gate('g', uses('a0'))],
  },
  'a gate nested as deep as there is': { gates: [gate('g', nested(39))] },
  'a gate nested deeper': { gates: [gate('g', nested(5000))] },
  'a thousand gates of selections': {
    gates: Array.from({ length: 1000 }, (_, at) =>
      gate(`g${at}`, signedIn, [
        { kind: 'selection', where: { kind: 'test', fact: 'item category', op: 'is', value: `c${at}` } },
      ]),
    ),
  },
  'a thousand gates of two hundred tests': {
    gates: Array.from({ length: 1000 }, (_, at) => gate(`g${at}`, tests(200))),
  },
  'five hundred targets, twice in every gate': {
    gates: Array.from({ length: 50 }, (_, at) =>
      gate(
        `g${at}`,
        signedIn,
        Array.from({ length: 500 }, () => ({ kind: 'branch', item: 'site' })),
      ),
    ),
  },
};

it.each(Object.entries(HOSTILE))('%s', async (_, over) => {
  const { version } = trivet.state.draft;
  const answer = await saveDraft(trivet, greta, { version, policy: { ...openPolicy, ...over } });
  if (answer.kind === 'wrong') expect(answer.problems[0]?.message).toMatch(/\.( \(at .*\))?$/);
  else expect(answer.kind).toBe('saved');
  await trivet.reload();
  expect(trivet.state.draft.version).toBe(answer.kind === 'saved' ? version + 1 : version);
  await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy: trivet.state.live.policy });
});

it('a draft of before that nobody would accept today is started with, and opens nothing', async () => {
  const old = { ...openPolicy, audiences: doubling(60), gates: [gate('g', uses('a0'))] } as unknown as Policy;
  expect(await updateDraft(trivet.db, old, trivet.state.draft.version, 'Somebody')).not.toBeNull();
  await trivet.reload();
  const [only] = trivet.state.draft.policy.gates as readonly Gate[];
  const { hurdles } = trivet.state.draft.compiled;
  const hurdle = hurdles('visit' as never)?.[0];
  expect(hurdle?.gate).toEqual(only);
  const facts = trivet.state.people.get('greta' as never)?.facts;
  expect(facts && hurdle?.passes(facts, hurdle.at, { today: '2026-11-20' } as never)).toBe(false);
});
