'use client';
/** What each client, class or chapter has: a list with what is wrong, new ones, and one that is open. */
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { dayInWords, permits } from '@/core';
import type { AreaInList } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { DoneLately } from '../done-lately';
import { AreaPanel } from './area-panel';
import { ChosenAreas } from './chosen-areas';
import { NewAreas } from './new-areas';
import { useAreas, useStepBack } from './use-areas';

// No item's id has such a character.
const NEW = '+';

export function AreasScreen({ area }: { readonly area: string | null }) {
  const { data, setScreen } = useDesk();
  const answer = useAreas();
  const back = useStepBack();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const may = permits(data.desk, 'everything');
  const open = (one: string | null) => setScreen({ kind: 'areas', area: one });
  const areas = answer?.ok ? answer.value.areas : [];
  const there = areas.filter(({ page }) => chosen.has(page));
  const shown = areas.find(({ page }) => page === area) ?? null;
  const close = () => open(null);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_31rem]">
      <div className="min-h-0 overflow-y-auto px-6 py-5">
        <header className="flex items-start justify-between gap-4">
          <div>
            <h2 className="text-2xl">Areas</h2>
            <p className="note max-w-prose">
              What one client, class or chapter has: pages that their people alone get into, and where they
              arrive.
            </p>
          </div>
          {may && (
            <Button weight="main" onClick={() => open(NEW)}>
              <Plus size={14} aria-hidden="true" /> New areas
            </Button>
          )}
        </header>
        {answer && !answer.ok && (
          <p role="alert" className="mt-3 text-alarm">
            {answer.title}
          </p>
        )}
        {answer?.ok && areas.length === 0 && (
          <p className="mt-6 max-w-prose">
            There are none yet. A page with all beneath it is an area once a gate over it opens it to a group;
            new ones come with everything that belongs to that.
          </p>
        )}
        {areas.length > 0 && (
          <table className="mt-4 w-full text-left">
            <thead>
              <tr className="text-quiet">
                {may && (
                  <th className="w-7">
                    <input
                      type="checkbox"
                      aria-label="Choose all"
                      checked={there.length === areas.length}
                      onChange={({ target }) =>
                        setChosen(new Set(target.checked ? areas.map(({ page }) => page) : []))
                      }
                    />
                  </th>
                )}
                <th className="font-normal">Area</th>
                <th className="font-normal">People</th>
                <th className="font-normal">Last visit</th>
                <th className="font-normal">What is wrong</th>
              </tr>
            </thead>
            <tbody>
              {areas.map((one) => (
                <Row
                  key={one.page}
                  area={one}
                  open={one.page === area}
                  onOpen={() => open(one.page)}
                  {...(may && {
                    chosen: chosen.has(one.page),
                    onChoose: (on: boolean) =>
                      setChosen(
                        new Set(
                          on ? [...chosen, one.page] : [...chosen].filter((other) => other !== one.page),
                        ),
                      ),
                  })}
                />
              ))}
            </tbody>
          </table>
        )}
      </div>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {area === NEW && may ? (
          <NewAreas areas={areas} onClose={close} />
        ) : shown ? (
          <AreaPanel key={shown.page} area={shown} onClose={close} />
        ) : there.length > 0 ? (
          <ChosenAreas areas={there} onClose={() => setChosen(new Set())} />
        ) : (
          <div className="px-5 py-5">
            <p className="text-quiet">
              {areas.length > 0 ? 'Choose an area to see who is in it.' : 'Make some, and they stand here.'}
            </p>
            {answer?.ok && may && (
              <DoneLately title="Done lately" list={answer.value.steps} onBack={(step) => void back(step)} />
            )}
          </div>
        )}
      </aside>
    </main>
  );
}

interface RowProps {
  readonly area: AreaInList;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly chosen?: boolean;
  readonly onChoose?: (chosen: boolean) => void;
}

function Row({
  area: { name, address, people, waiting, lastVisit, wrong },
  open,
  onOpen,
  chosen,
  onChoose,
}: RowProps) {
  return (
    <tr className="border-thin border-t align-top data-[open=true]:bg-wash" data-open={open}>
      {onChoose && (
        <td className="py-2">
          <input
            type="checkbox"
            aria-label={`Choose ${name}`}
            checked={chosen}
            onChange={({ target }) => onChoose(target.checked)}
          />
        </td>
      )}
      <td className="py-2 pr-4">
        <button type="button" aria-pressed={open} onClick={onOpen} className="text-left hover:text-copper">
          <strong>{name}</strong>
        </button>
        <span className="note block">{address}</span>
      </td>
      <td className="py-2 pr-4 whitespace-nowrap">
        {people}
        {waiting > 0 && <span className="note block">{waiting} invited</span>}
      </td>
      <td className="py-2 pr-4 whitespace-nowrap">
        {lastVisit ? dayInWords(lastVisit) : <span className="text-quiet">nobody yet</span>}
      </td>
      <td className="py-2">
        {wrong.length === 0 ? (
          <span className="text-open">nothing</span>
        ) : (
          <ul className="grid gap-0.5">
            {wrong.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        )}
      </td>
    </tr>
  );
}
