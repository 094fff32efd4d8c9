'use client';
import { useRef, useState } from 'react';
import { describeFacts, factsOf, keyOfStandIn, type Member, nameOf, type StandIn } from '@/core';
import { Button, type Findable, Finder } from '@/ui';
import { useDesk } from '../context';
import { ask } from '../service';

interface FoundStandIn extends Findable {
  readonly standIn: StandIn;
}

/** The head of the board's last column: adds a visitor by typing. */
export function FinderColumn() {
  const { standIns, setStandIns, vocabulary } = useDesk();
  const [found, setFound] = useState<readonly StandIn[]>([]);
  const latest = useRef(0);
  const search = async (text: string) => {
    const turn = ++latest.current;
    const answer = await ask<readonly Member[]>('GET', `members?q=${encodeURIComponent(text)}`);
    if (!answer.ok || turn !== latest.current) return;
    const guest: StandIn[] = 'guest'.startsWith(text.trim().toLowerCase()) ? [{ kind: 'guest' }] : [];
    setFound([...guest, ...answer.value.map((member): StandIn => ({ kind: 'member', member }))]);
  };
  const there = new Set(standIns.map(keyOfStandIn));
  return (
    <th
      scope="col"
      className="sticky top-0 z-10 w-12 border-iron border-b bg-paper px-1 py-2 align-bottom font-normal"
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
        found={found
          .filter((standIn) => !there.has(keyOfStandIn(standIn)))
          .map((standIn) => ({
            key: keyOfStandIn(standIn),
            label: nameOf(standIn),
            note: describeFacts(standIn, factsOf(standIn), vocabulary),
            standIn,
          }))}
        onType={search}
        onChoose={({ standIn }) => setStandIns([...standIns, standIn])}
      />
    </th>
  );
}
