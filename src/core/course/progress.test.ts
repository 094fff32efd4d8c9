import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keysOf } from '../keys';
import { compile, decide } from '../policy';
import { activitiesOf, member } from '../site';
import { policies, visitors } from '../testing/arbitraries';
import { id, outline, people, request, vocabulary } from '../testing/larkfell';
import { lettersOf, PROGRESS, progressOf, standsAt, statesIn } from '.';

const activities = activitiesOf(outline, id('safety')).map((one) => one.id);
const states = fc.array(fc.constantFrom(...keysOf(PROGRESS)), { maxLength: 12 });

describe('progress', () => {
  it('is closed exactly where the decision is, but for what is done already', () => {
    fc.assert(
      fc.property(policies, visitors, fc.boolean(), (policy, learner, begun) => {
        const compiled = compile(policy, outline, vocabulary);
        progressOf(compiled, activities, learner, request, () => (begun ? 'begun' : null)).forEach(
          (state, at) => {
            const activity = activities[at] ?? id('none');
            const done = (learner.completions ?? []).some(({ item }) => item === activity);
            const open = decide(compiled, activity, learner, request).kind === 'open';
            expect(state).toBe(done ? 'done' : !open ? 'closed' : begun ? 'begun' : 'to do');
          },
        );
      }),
    );
  });

  it('never goes back when something more is done', () => {
    fc.assert(
      fc.property(
        policies,
        fc.subarray(activities),
        fc.constantFrom(...activities),
        (policy, before, more) => {
          const compiled = compile(policy, outline, vocabulary);
          const doneIn = (list: readonly (typeof more)[]) =>
            progressOf(
              compiled,
              activities,
              member({
                ...people.wren,
                completions: list.map((item) => ({ item, on: '2026-11-01', score: null })),
              }),
              request,
              () => null,
            ).flatMap((state, at) => (state === 'done' ? [at] : []));
          expect(doneIn([...before, more])).toEqual(expect.arrayContaining(doneIn(before)));
        },
      ),
    );
  });

  it('travels as letters and comes back the same', () => {
    fc.assert(
      fc.property(states, (list) => {
        expect(statesIn(lettersOf(list))).toEqual(list);
      }),
    );
    expect(new Set(keysOf(PROGRESS).map((state) => PROGRESS[state].letter)).size).toBe(
      keysOf(PROGRESS).length,
    );
    // What is not known is shown as what lets nobody by.
    expect(statesIn('d?')).toEqual(['done', 'closed']);
  });

  it('stands at the first thing that can be done, or that is closed; at nothing when all is done', () => {
    expect(standsAt(['done', 'closed', 'begun', 'to do'])).toBe(2);
    expect(standsAt(['done', 'closed', 'closed'])).toBe(1);
    expect([standsAt(['done', 'done']), standsAt([])]).toEqual([null, null]);
    fc.assert(
      fc.property(states, (list) => {
        const at = standsAt(list);
        expect(at === null).toBe(list.every((state) => state === 'done'));
        if (at !== null) expect(list[at]).not.toBe('done');
      }),
    );
  });
});
