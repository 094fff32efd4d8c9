/**
 * Whom a change of names would let in by emptying what they have. A gate that asks for "no level" opens to those whose
 * level is taken away; taking away is to open nothing, so such a change is not made.
 */
import { compile, counted, decide, expanded, type Item, type SiteNames, type Test, testsIn } from '@/core';
import type { PeopleChange } from '@/store';
import type { SiteState } from '../running';
import { byProductIn, personOf, plainRequest } from '../running';

/** Why a change of names that empties facts of people can't be made, in a sentence, or null when it opens nothing. */
export function openedByLoss(
  state: SiteState,
  after: SiteNames,
  people: readonly PeopleChange[],
  asks: (test: Test) => boolean,
  now: Date,
): string | null {
  const request = plainRequest(state, now);
  // What products give of it is gone with the name.
  const then = { ...state, byProduct: byProductIn([...state.shop.values()], after) };
  for (const side of ['live', 'draft'] as const) {
    const { compiled, policy } = state[side];
    const changed = compile(policy, state.outline, after);
    const asksForNothing = (test: Test) => asks(test) && (test.op === 'is set' || test.op === 'is not set');
    const telling = new Set(
      policy.gates.filter(({ who }) => testsIn(expanded(who, policy.audiences)).some(asksForNothing)),
    );
    const items: readonly Item[] = [...state.outline.items.values()].filter(({ id }) =>
      compiled.hurdles(id)?.some(({ gate }) => gate !== null && telling.has(gate)),
    );
    for (const item of items) {
      const letIn = people.filter((change) => {
        if (change.before === null || change.after === null) return false;
        const was = personOf(change.before, state).facts;
        const is = personOf(change.after, then).facts;
        return (
          decide(compiled, item.id, was, request).kind !== 'open' &&
          decide(changed, item.id, is, request).kind === 'open'
        );
      });
      const [first] = letIn;
      if (!first) continue;
      const rest = letIn.length - 1;
      const whom = `${first.after?.name}${rest > 0 ? ` and ${counted(rest, 'other', 'others')}` : ''}`;
      return `That would open “${item.title}” to ${whom}${side === 'draft' ? ' in the draft' : ''}: a gate there lets by those who have nothing here. Give them something else first, or change the gate.`;
    }
  }
  return null;
}
