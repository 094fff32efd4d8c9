'use client';
/** The board on paper: every row and visitor that was in view, with a legend and what it shows. */
import { useMemo } from 'react';
import {
  capital,
  changesAt,
  dayInWords,
  describeFacts,
  keyOfStandIn,
  nameOf,
  OUTCOMES,
  outcomeAt,
  outcomeName,
  standInFacts,
} from '@/core';
import { Button } from '@/ui';
import { filters } from '../board-filter';
import { useDesk } from '../context';
import { KindMark, OutcomeMark } from '../marks';
import { filteredRows } from './filter-rows';
import { linesOf } from './lines';
import { rowsOf } from './rows';
import { useMatrix } from './use-matrix';

const SIDES = {
  live: 'What visitors get now',
  draft: 'What visitors would get with the draft',
  difference: 'What would change if the draft went live',
} as const;

export function PrintScreen() {
  const { outline, filter, side, compiled, standIns, data, request, draft, setScreen, vocabulary } =
    useDesk();
  const decided = useMatrix();
  const which = side === 'live' ? 'live' : 'draft';
  const all = useMemo(() => rowsOf(outline), [outline]);
  const rows = filteredRows(all, filter, compiled[which], which, decided);
  if (!decided) return <p className="p-8">Working out every decision …</p>;
  const { matrix, rowOf } = decided;
  return (
    <main className="paper min-h-0 flex-1 overflow-auto bg-paper px-8 py-6 print:overflow-visible print:p-0">
      <div className="mb-4 flex gap-2 print:hidden">
        <Button weight="main" onClick={() => window.print()}>
          Print
        </Button>
        <Button onClick={() => setScreen({ kind: 'board' })}>Back to the board</Button>
      </div>
      <h2 className="text-2xl">{data.siteTitle}</h2>
      <p className="mb-4">
        {SIDES[side]}, on {dayInWords(request.today)}. Revision {draft.live.revision} is live.{' '}
        {filters(filter) ? `${rows.length} of ${all.length} items.` : `${rows.length} items.`}
      </p>
      <table className="w-full border-collapse text-xs">
        <thead>
          <tr>
            <th scope="col" className="border-iron border-b py-1 text-left align-bottom">
              Item
            </th>
            {standIns.map((one) => (
              <th
                key={keyOfStandIn(one)}
                scope="col"
                className="border-iron border-b px-1 py-1 text-center align-bottom leading-tight"
              >
                {nameOf(one)}
                <span className="block font-normal text-quiet">
                  {describeFacts(one, standInFacts(one), vocabulary, request.today)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {linesOf(rows).map((line) =>
            line.kind === 'heading' ? (
              <tr key={`heading ${line.text}`}>
                <th scope="rowgroup" colSpan={standIns.length + 1} className="pt-3 pb-1 text-left font-head">
                  {line.text}
                </th>
              </tr>
            ) : (
              <tr key={line.row.item.id} className="break-inside-avoid">
                <th scope="row" className="border-thin border-b py-1 text-left font-normal">
                  <span className="flex items-center gap-1.5" style={{ paddingLeft: line.row.depth * 12 }}>
                    <KindMark kind={line.row.item.kind} /> {line.row.item.title}
                    {'address' in line.row.item && (
                      <span className="text-quiet">{line.row.item.address}</span>
                    )}
                  </span>
                </th>
                {standIns.map((one, column) => {
                  const at = rowOf.get(line.row.item.id) ?? 0;
                  const outcome = outcomeAt(matrix, which, at, column);
                  const was = outcomeAt(matrix, 'live', at, column);
                  const changed = side === 'difference' && changesAt(matrix, at, column);
                  return (
                    <td key={keyOfStandIn(one)} className="border-thin border-b px-1 py-1 text-center">
                      <span className="inline-flex items-center gap-1">
                        {changed && (
                          <>
                            <OutcomeMark outcome={was} size={11} />
                            <span className="sr-only">{outcomeName(was)} becomes</span>
                            <span aria-hidden="true">›</span>
                          </>
                        )}
                        <OutcomeMark outcome={outcome} size={14} />
                        <span className={outcome === 'open' && !changed ? 'sr-only' : ''}>
                          {outcomeName(outcome)}
                        </span>
                      </span>
                    </td>
                  );
                })}
              </tr>
            ),
          )}
        </tbody>
      </table>
      <p className="mt-4 flex flex-wrap gap-x-5 gap-y-1 text-xs">
        {OUTCOMES.map((outcome) => (
          <span key={outcome} className="inline-flex items-center gap-1">
            <OutcomeMark outcome={outcome} size={12} /> {capital(outcomeName(outcome))}
          </span>
        ))}
      </p>
    </main>
  );
}
