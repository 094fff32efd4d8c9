'use client';
/** What could be given to people by hand, or taken from them, so that they get what they should. */
import { useMemo } from 'react';
import {
  describeForGuests,
  describeHandChange,
  factsChangedByHand,
  type HandChange,
  handChangesFor,
  type ItemId,
  permits,
  reachDifference,
  type StandIn,
  standInFacts,
} from '@/core';
import { Button } from '@/ui';
import { followingIn, useDesk } from '../context';
import { useChange } from '../people/use-change';

/** Gives something to those of some stand-ins that are on the site, or takes it, at once. */
export function useGiving(): (standIns: readonly StandIn[], edit: HandChange) => void {
  const change = useChange();
  return (standIns, edit) => {
    const ids = standIns.flatMap((one) => (one.kind === 'member' ? [one.member.id] : []));
    void change('POST', 'people/change', { who: { ids }, edit });
  };
}

/** More decisions than this are not made while somebody waits. */
const MOST_DECIDED = 400_000;

interface HandChangesProps {
  readonly items: readonly ItemId[];
  readonly standIns: readonly StandIn[];
  /** Whether they are to be open to them. */
  readonly open: boolean;
}

/** Each with what else it brings or takes; nothing where not all of them are on the site. */
export function HandChanges({ items, standIns, open }: HandChangesProps) {
  const { data, compiled, request, outline, vocabulary } = useDesk();
  const give = useGiving();
  const policy = compiled.draft;
  const able = permits(data.desk, 'people') && standIns.every(({ kind }) => kind === 'member');
  const changes = useMemo(() => {
    if (!able) return [];
    const following = followingIn(data);
    const people = standIns.map(standInFacts);
    const found = handChangesFor(policy, { items, people, open, request, following });
    const isLarge = outline.items.size * people.length * found.length > MOST_DECIDED;
    return found.map((change) => {
      if (isLarge) return { change, others: null };
      const reach = people.map((facts) =>
        reachDifference(policy, facts, factsChangedByHand(facts, change, following, request.today), request),
      );
      const but = (ids: readonly ItemId[]) => [...new Set(ids)].filter((id) => !items.includes(id));
      const gains = but(reach.flatMap(({ opens }) => opens));
      const loses = but(reach.flatMap(({ closes }) => closes));
      return { change, others: { gains, loses, sees: [] } };
    });
  }, [able, items, standIns, open, policy, outline, request, data]);
  if (changes.length === 0) return null;
  const those = standIns.length === 1 ? 'the person' : 'the people';
  return (
    <section aria-label={`By a change of ${those}`} className="mt-5">
      <h3 className="mb-1">Or change {those}</h3>
      <ul className="mt-3 grid gap-4">
        {changes.map(({ change, others }) => {
          const text = describeHandChange(change, vocabulary);
          const more = others && describeForGuests(others, outline);
          return (
            <li key={text} className="grid justify-items-start gap-1 border-iron border-l-3 pl-3">
              <span className="font-semibold">{text}</span>
              <span className="text-[0.8125rem]">
                {others === null
                  ? 'What else this opens or closes stands on their page once it is done.'
                  : more
                    ? `Beside this they ${more}.`
                    : 'Nothing else opens or closes to them.'}
              </span>
              <Button
                title="On the site, at once; can be undone"
                aria-label={`Do it: ${text}`}
                onClick={() => give(standIns, change)}
              >
                Do it
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
