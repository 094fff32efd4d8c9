'use client';
/** Several cells of the board at once: what some visitors get at the rows that were marked, and what makes it otherwise. */
import { useMemo, useState } from 'react';
import {
  counted,
  decide,
  type ItemId,
  itemAt,
  keyOfStandIn,
  nameInContext,
  nameOf,
  outcomeName,
  outcomeOf,
  standInFacts,
} from '@/core';
import { Choice, Tick } from '@/ui';
import { useDesk } from '../context';
import { OutcomeMark } from '../marks';
import { Panel } from '../panel';
import { HandChanges } from './hand-changes';
import { MakeSo } from './make-so';

interface MakeSoPanelProps {
  readonly items: readonly ItemId[];
  /** The keys of the visitors meant. */
  readonly standIns: readonly string[];
}

type Wanted = 'open' | 'closed';

const WANTED: readonly { readonly value: Wanted; readonly label: string }[] = [
  { value: 'open', label: 'Open' },
  { value: 'closed', label: 'Closed' },
];

/** So many rows are listed; all of them are meant. */
const MOST_SHOWN = 100;

/** One visitor's marks, and their name above them. */
const COLUMN = 'w-20 shrink-0 truncate px-1 text-center';

export function MakeSoPanel({ items: ids, standIns: keys }: MakeSoPanelProps) {
  const { outline, standIns, compiled, request, setBench } = useDesk();
  const { draft } = compiled;
  const [wanted, setWanted] = useState<Wanted | null>(null);
  // What others have taken away meanwhile, or off the board, is no longer meant.
  const items = useMemo(() => ids.filter((id) => outline.items.has(id)), [ids, outline]);
  const chosen = useMemo(() => standIns.filter((one) => keys.includes(keyOfStandIn(one))), [standIns, keys]);
  const nameHere = (id: ItemId): string => {
    const item = itemAt(outline, id);
    return item ? nameInContext(item, outline) : '';
  };
  const cells = useMemo(
    () =>
      items.map((item) => ({
        item,
        gets: chosen.map((standIn) => ({
          standIn,
          outcome: outcomeOf(decide(draft, item, standInFacts(standIn), request)),
        })),
      })),
    [items, chosen, draft, request],
  );
  const all = cells.flatMap(({ gets }) => gets);
  const open = all.filter(({ outcome }) => outcome === 'open').length;
  const tick = (key: string, meant: boolean) =>
    setBench({
      kind: 'make so',
      items: ids,
      standIns: meant ? [...keys, key] : keys.filter((other) => other !== key),
    });
  const isSo = wanted !== null && open === (wanted === 'open' ? all.length : 0);
  return (
    <Panel
      title={`${counted(items.length, 'row')} together`}
      note="As it is in the draft"
      onClose={() => setBench({ kind: 'gates' })}
    >
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 text-quiet">For</legend>
        {standIns.map((one) => (
          <Tick
            key={keyOfStandIn(one)}
            checked={chosen.includes(one)}
            onChange={(meant) => tick(keyOfStandIn(one), meant)}
          >
            {nameOf(one)}
          </Tick>
        ))}
      </fieldset>
      {all.length === 0 ? (
        <p className="mt-4">
          {items.length === 0
            ? 'What was marked is no longer there.'
            : 'Choose for whom something is to be otherwise.'}
        </p>
      ) : (
        <>
          <p className="mt-5" role="status">
            Open at {open} of {counted(all.length, 'cell')}
          </p>
          {chosen.length > 1 && (
            <p aria-hidden="true" className="mt-1 flex justify-end text-quiet text-xs">
              {chosen.map((one) => (
                <span key={keyOfStandIn(one)} className={COLUMN}>
                  {nameOf(one)}
                </span>
              ))}
            </p>
          )}
          <ul className="mt-1 max-h-52 overflow-y-auto border-thin border-y" aria-label="What they get">
            {cells.slice(0, MOST_SHOWN).map(({ item, gets }) => (
              <li key={item} className="flex items-center border-thin border-b py-1 last:border-b-0">
                <span className="min-w-0 flex-1 truncate">{nameHere(item)}</span>
                {gets.map(({ standIn, outcome }) => {
                  const said = `${nameOf(standIn)}: ${outcomeName(outcome)}`;
                  return (
                    <span key={keyOfStandIn(standIn)} title={said} className={COLUMN}>
                      <span className="inline-block align-middle">
                        <OutcomeMark outcome={outcome} size={16} />
                      </span>
                      <span className="sr-only">{said}</span>
                    </span>
                  );
                })}
              </li>
            ))}
            {cells.length > MOST_SHOWN && (
              <li className="note py-1">and {counted(cells.length - MOST_SHOWN, 'more row')}</li>
            )}
          </ul>
          <p className="mt-4 flex items-center gap-2">
            <span>It should be</span>
            <Choice label="It should be" value={wanted} options={WANTED} onChoose={setWanted} />
          </p>
          {isSo ? (
            <p className="mt-3">It is so already.</p>
          ) : (
            wanted !== null && (
              <>
                <MakeSo key={wanted} items={items} standIns={chosen} open={wanted === 'open'} />
                <HandChanges items={items} standIns={chosen} open={wanted === 'open'} />
              </>
            )
          )}
        </>
      )}
    </Panel>
  );
}
