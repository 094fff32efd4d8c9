'use client';
import { useState } from 'react';
import { describeFacts, keyOfStandIn, type Member, member, nameOf, type StandIn, standInFacts } from '@/core';
import { Button, type Findable, Finder } from '@/ui';
import { useDesk } from '../context';
import { useMemberSearch } from '../use-member-search';

interface FoundStandIn extends Findable {
  /** Null for somebody to be made up. */
  readonly standIn: StandIn | null;
}

/** The head of the board's last column: adds a visitor by typing. */
export function FinderColumn() {
  const { standIns, setStandIns, vocabulary, makeUp, request } = useDesk();
  const [members, setMembers] = useState<readonly Member[]>([]);
  const [typed, setTyped] = useState('');
  const search = useMemberSearch(setMembers);
  const found: readonly StandIn[] = [
    ...('a guest'.includes(typed.trim().toLowerCase()) ? [{ kind: 'guest' } as const] : []),
    ...members.map((member): StandIn => ({ kind: 'member', member })),
  ];
  const there = new Set(standIns.map(keyOfStandIn));
  return (
    <th
      scope="col"
      className="sticky top-0 z-10 border-iron border-b bg-paper px-1 py-2 align-bottom font-normal"
    >
      <Finder<FoundStandIn>
        label="Members"
        placeholder="Name or mail address"
        nothing="Nobody by that name."
        trigger={
          <Button weight="quiet" aria-label="Add a visitor" title="Add a visitor" className="px-2">
            +
          </Button>
        }
        found={[
          ...found
            .filter((standIn) => !there.has(keyOfStandIn(standIn)))
            .map((standIn) => ({
              key: keyOfStandIn(standIn),
              label: nameOf(standIn),
              note: describeFacts(standIn, standInFacts(standIn), vocabulary, request.today),
              standIn,
            })),
          {
            key: 'made up',
            label: 'Make somebody up',
            note: 'any facts, for trying',
            action: true,
            standIn: null,
          },
        ]}
        onType={(text) => {
          setTyped(text);
          return search(text);
        }}
        onChoose={({ standIn }) =>
          standIn ? setStandIns([...standIns, standIn]) : makeUp('Somebody', member())
        }
      />
    </th>
  );
}
