/** What learners do themselves: being done with an activity. */
import { asId, completing, decide, type ItemId, KINDS, type RequestFacts } from '@/core';
import { applyChange } from '../people';
import { recordOf, type Trivet, type Visitor } from '../running';

export type DoneAnswer =
  | 'done'
  /** It is not this visitor's to do, and may not even be there. */
  | 'closed';

/**
 * Records that a member is done with an activity, and with its unit and course if nothing is left in them. Whether it is open
 * to them is decided as it is written: a form of before opens nothing.
 */
export async function completeActivity(
  trivet: Trivet,
  { person, facts }: Visitor,
  activity: string,
  request: RequestFacts,
  now: Date,
): Promise<DoneAnswer> {
  if (!person) return 'closed';
  const id = asId<ItemId>(activity);
  const answer = await applyChange(
    trivet,
    person,
    (state) => {
      const current = state.people.get(person.id);
      const item = state.outline.items.get(id);
      const { compiled } = state.live;
      if (!current || item?.kind !== 'activity') return 'There is no such activity any more.';
      const learner = { ...current.facts, passphrases: facts.passphrases };
      if (decide(compiled, id, learner, request).kind !== 'open') return 'This is not open.';
      const before = recordOf(current);
      const made = completing(compiled, learner, item, null, request);
      const named = made.flatMap((one) => {
        const done = state.outline.items.get(one.item);
        return done
          ? [done.kind === 'activity' ? done.title : `${KINDS[done.kind].one} “${done.title}”`]
          : [];
      });
      return {
        summary: `${before.name} is done with ${named.join(', and with ')}`,
        people:
          made.length === 0
            ? []
            : [{ before, after: { ...before, completions: [...before.completions, ...made] } }],
        names: null,
      };
    },
    now,
  );
  return answer.kind === 'wrong' ? 'closed' : 'done';
}
