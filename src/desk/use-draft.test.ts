// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { everyone, type Gate, type GateId, missing, nobody, openPolicy, type Policy } from '@/core';
import { byTheClock } from './testing';
import { useDraft } from './use-draft';

const gate = (id: string, who = everyone): Gate => ({
  id: id as GateId,
  what: { targets: [], except: [] },
  who,
  otherwise: { cases: [], last: missing },
  stance: 'also',
});
const policyOf = (...gates: Gate[]): Policy => ({ ...openPolicy, gates });
const begun = policyOf(gate('a'));
const mine = policyOf(gate('a', nobody));
const more = policyOf(gate('a', nobody), gate('b'));

const desk = () =>
  renderHook(() => useDraft({ draft: { policy: begun, version: 7 }, live: { policy: begun, revision: 1 } }))
    .result;
const edit = (draft: ReturnType<typeof desk>, policy: Policy) => act(async () => draft.current.edit(policy));
const { pass, asked, only, answered, answer } = byTheClock();

it('saves an edit a moment later, based on the version it has', async () => {
  const draft = desk();
  await edit(draft, mine);
  expect(draft.current.settled).toBe(false);
  await pass(200);
  expect(asked()).toEqual([]);
  await pass(60);
  expect(only()).toMatchObject({ method: 'PUT', path: 'draft', body: { version: 7, policy: mine } });
  await answer({ version: 8 });
  expect(draft.current).toMatchObject({ version: 8, settled: true, saving: { kind: 'saved' } });
});

it('sends what was edited last when edits follow one another', async () => {
  const draft = desk();
  await edit(draft, mine);
  await pass(200);
  await edit(draft, more);
  await pass(200);
  expect(asked()).toEqual([]);
  await pass(60);
  expect(only().body).toEqual({ version: 7, policy: more });
});

it('saves one at a time: an edit made meanwhile goes next, on top of the first', async () => {
  const draft = desk();
  await edit(draft, mine);
  await pass(250);
  await edit(draft, more);
  await pass(1000);
  expect(only().body).toMatchObject({ policy: mine });
  await answer({ version: 8 });
  await pass(250);
  expect(only().body).toEqual({ version: 8, policy: more });
});

it('stops and shows theirs when somebody was quicker, and goes on from there', async () => {
  const draft = desk();
  const theirs = { policy: policyOf(gate('a'), gate('theirs')), version: 9, by: 'Ines' };
  await edit(draft, mine);
  await pass(250);
  await answer({ title: 'Late.', theirs }, 409);
  expect(draft.current.saving).toEqual({ kind: 'stale', theirs });
  await pass(60_000 - 250);
  expect(asked().filter(({ method }) => method === 'PUT')).toEqual([]);
  asked().length = 0;
  await act(async () => draft.current.settle('mine'));
  await pass(250);
  expect(only().body).toEqual({ version: 9, policy: policyOf(gate('a', nobody), gate('theirs')) });
});

it('knows its own save again whose answer was lost, and goes on from it', async () => {
  const draft = desk();
  await edit(draft, mine);
  await pass(250);
  // It is there all the same.
  await answer({}, 503);
  expect(draft.current.saving).toMatchObject({ kind: 'refused', problems: [] });
  await edit(draft, more);
  await pass(250);
  expect(only().body).toEqual({ version: 7, policy: more });
  await answer({ title: 'Late.', theirs: { policy: mine, version: 8, by: 'Greta' } }, 409);
  expect(draft.current.saving.kind).not.toBe('stale');
  await pass(250);
  expect(only().body).toEqual({ version: 8, policy: more });
});

it.each([
  [
    'is wrong',
    { title: 'No.', problems: [{ gate: 'a', message: 'No.' }] },
    422,
    [{ gate: 'a', message: 'No.' }],
  ],
  ['one may not', { title: 'Not yours.' }, 403, [{ gate: null, message: 'Not yours.' }]],
])('does not send again what %s', async (_, body, status, problems) => {
  const draft = desk();
  await edit(draft, mine);
  await pass(250);
  await answer(body, status);
  expect(draft.current.saving).toMatchObject({ kind: 'refused', problems });
  await pass(14_000);
  expect(asked()).toEqual([]);
  await edit(draft, more);
  await pass(250);
  expect(only().body).toMatchObject({ policy: more });
});

it('keeps an edit while the server can’t be reached, and tries again', async () => {
  const draft = desk();
  await edit(draft, mine);
  await pass(250);
  await answered((one) => one.fail());
  expect(draft.current).toMatchObject({ policy: mine, saving: { kind: 'refused', problems: [] } });
  await pass(3900);
  expect(asked()).toEqual([]);
  await pass(200);
  await answer({ version: 8 });
  expect(draft.current.settled).toBe(true);
});

it('asks for news every now and then, and takes them while nothing is unsaved', async () => {
  const draft = desk();
  await pass(15_000);
  const theirs = { policy: more, version: 9, by: 'Ines' };
  expect(only()).toMatchObject({ method: 'GET', path: 'draft' });
  await answer({ draft: theirs, live: { policy: mine, revision: 2 } });
  expect(draft.current).toMatchObject({ policy: more, version: 9, live: { revision: 2 } });
  window.dispatchEvent(new Event('focus'));
  expect(asked()).toHaveLength(1);
});

it('asks before one leaves with something unsaved, and only then', async () => {
  const draft = desk();
  const leaves = () => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event.defaultPrevented;
  };
  expect(leaves()).toBe(false);
  await edit(draft, mine);
  expect(leaves()).toBe(true);
  await act(async () => draft.current.undo());
  expect(draft.current).toMatchObject({ policy: begun, settled: true, canUndo: false });
  expect(leaves()).toBe(false);
  await pass(1000);
  expect(asked()).toEqual([]);
});
