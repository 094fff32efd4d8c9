'use client';
/** The named conditions: how many people each is true of, how they overlap, where they are used. */
import { useState } from 'react';
import { type Audience, type AudienceId, counted, signedIn } from '@/core';
import type { AudienceReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { useAnswer } from '../use-answer';
import { AudiencePanel } from './audience-panel';
import { Intersection, type Wanted } from './intersection';
import { OverlapChart } from './overlap-chart';

export function AudiencesScreen({ audience: id }: { readonly audience: AudienceId | null }) {
  const { draft, data, setScreen, changeAudience } = useDesk();
  const { audiences } = draft.policy;
  const answer = useAnswer<AudienceReport>('audiences', draft.policy, data);
  const report = answer?.ok ? answer.value : null;
  const [wanted, setWanted] = useState<Wanted>({ in: [], out: [] });
  const chosen = audiences.find((one) => one.id === id) ?? null;
  const add = () => {
    const taken = new Set(audiences.map(({ name }) => name));
    let name = 'New audience';
    for (let number = 2; taken.has(name); number++) name = `New audience ${number}`;
    const made: Audience = { id: crypto.randomUUID() as AudienceId, name, who: signedIn };
    changeAudience(made);
    setScreen({ kind: 'audiences', audience: made.id });
  };
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_29rem]">
      <section aria-label="Audiences" className="min-h-0 overflow-y-auto px-6 py-5">
        <div className="flex items-start justify-between gap-4">
          <div>
            <h2 className="text-xl">Audiences</h2>
            <p className="note">
              Conditions with names, in the draft. A circle where two meet is as large as what they share;
              choose one to see who.
            </p>
          </div>
          <Button onClick={add}>New audience</Button>
        </div>
        {answer && !answer.ok && (
          <p role="alert" className="mt-3 text-alarm">
            {answer.title}
          </p>
        )}
        {audiences.length === 0 ? (
          <p className="mt-6 max-w-prose">
            There are no audiences yet. Give a condition that you use often a name: it is then changed in one
            place, and every gate that asks for it follows.
          </p>
        ) : (
          <>
            <OverlapChart
              audiences={audiences}
              report={report}
              chosen={id}
              wanted={wanted}
              onChoose={(one) => setScreen({ kind: 'audiences', audience: one })}
              onMeet={(a, b) => setWanted({ in: [a, b], out: [] })}
            />
            <Intersection audiences={audiences} wanted={wanted} onChange={setWanted} />
          </>
        )}
      </section>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {chosen ? (
          <AudiencePanel
            key={chosen.id}
            audience={chosen}
            uses={report?.audiences.find((one) => one.id === chosen.id)?.uses ?? []}
          />
        ) : (
          <p className="px-5 py-5 text-quiet">
            {audiences.length > 0
              ? `Choose one of the ${counted(audiences.length, 'audience')} to read and change it.`
              : 'A new audience is written here.'}
          </p>
        )}
      </aside>
    </main>
  );
}
