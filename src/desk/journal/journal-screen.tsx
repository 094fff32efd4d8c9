'use client';
/** Where visitors are turned away, by which gate, and what they do next. */
import { useEffect, useMemo, useState } from 'react';
import { asId, capital, counted, dayInWords, type ItemId, type Outcome, outcomeName, permits } from '@/core';
import type { JournalEntry, JournalReport, Tally } from '@/services';
import { Button, Choice } from '@/ui';
import { useDesk } from '../context';
import { legsOf } from '../gate-legs';
import { OutcomeMark } from '../marks';
import { type Answer, ask } from '../service';
import { type Bar, NEXT, TurnedAwayChart } from './turned-away-chart';

const SPANS = [
  { value: '7', label: '7 days' },
  { value: '30', label: '30 days' },
  { value: '90', label: '90 days' },
] as const;
const MOST_BARS = 14;

export function JournalScreen() {
  const { data, outline, compiled, setBench, setScreen } = useDesk();
  const [days, setDays] = useState<(typeof SPANS)[number]['value']>('30');
  const [answer, setAnswer] = useState<Answer<JournalReport> | null>(null);
  useEffect(() => {
    const calledOff = new AbortController();
    ask<JournalReport>('GET', `journal?days=${days}`, undefined, calledOff.signal).then(
      setAnswer,
      () => undefined,
    );
    return () => calledOff.abort();
  }, [days]);
  const report = answer?.ok ? answer.value : null;
  const bars = useMemo(
    () => (report ? byItem(report.entries, (id) => outline.items.get(id)?.title) : []),
    [report, outline],
  );
  const gateText = (id: string): string => {
    if (id === '') return 'not published';
    const gate = compiled.live.policy.gates.find((one) => one.id === id);
    return gate ? capital(legsOf(gate, compiled.live).who) : 'a gate that is no longer live';
  };
  const gateIsThere = (id: string) => compiled.draft.policy.gates.some((gate) => gate.id === id);
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-8 py-6">
      <div className="flex items-start justify-between gap-6">
        <div>
          <h2 className="text-2xl">Who stood before a closed door</h2>
          <p className="note mt-0.5">
            {report && `${dayInWords(report.from)} to ${dayInWords(report.to)}. ${KEEPS[report.keeps]} `}
            {report && report.keeps !== 'off' && `Kept for ${report.keptDays} days. `}
            {report &&
              report.nowhere > 0 &&
              `Addresses that were never there were asked for ${counted(report.nowhere, 'time')}. `}
            {permits(data.desk, 'everything') && (
              <button
                type="button"
                className="underline decoration-thin underline-offset-3 hover:text-copper"
                onClick={() => setScreen({ kind: 'settings' })}
              >
                Change what is kept
              </button>
            )}
          </p>
        </div>
        <Choice label="How far back" value={days} options={SPANS} onChoose={setDays} />
      </div>
      {!answer && <p className="note mt-6">Looking …</p>}
      {answer && !answer.ok && (
        <p role="alert" className="mt-6">
          {answer.title}
        </p>
      )}
      {report && bars.length === 0 && (
        <p className="mt-6">
          Nobody was turned away in this time. As soon as a visitor asks for something that a gate closes to
          them, it is counted here; what administrators do is not.
        </p>
      )}
      {report && bars.length > 0 && (
        <>
          <p className="mt-5 mb-2 flex flex-wrap gap-x-5 gap-y-1 text-[0.8125rem]">
            {NEXT.map(({ key, label, fill }) => (
              <span key={key} className="inline-flex items-center gap-1.5">
                <span aria-hidden="true" className="inline-block size-3" style={{ background: fill }} />{' '}
                {label}
              </span>
            ))}
            <span className="inline-flex items-center gap-1.5">
              <span aria-hidden="true" className="inline-block size-3 border border-iron border-dashed" /> may
              still come back
            </span>
          </p>
          <TurnedAwayChart bars={bars.slice(0, MOST_BARS)} />
          <h3 className="mt-6 mb-2">By item, gate and what they got</h3>
          <table className="w-full max-w-5xl text-[0.8125rem]">
            <thead>
              <tr className="text-left text-quiet">
                <th scope="col" className="py-1 font-normal">
                  Item
                </th>
                <th scope="col" className="font-normal">
                  Opens only to
                </th>
                <th scope="col" className="font-normal">
                  They got
                </th>
                <th scope="col" className="font-normal">
                  Who
                </th>
                <th scope="col" className="pr-3 text-right font-normal">
                  Times
                </th>
                {NEXT.map(({ key, label }) => (
                  <th key={key} scope="col" className="w-24 pr-3 text-right font-normal">
                    {capital(label)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {report.entries.map((entry) => (
                <tr
                  key={`${entry.item} ${entry.gate} ${entry.given} ${entry.visitor}`}
                  className="border-thin border-t"
                >
                  <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                    {outline.items.get(entry.item)?.title ?? 'something that is gone'}
                  </th>
                  <td className="pr-3">
                    {gateIsThere(entry.gate) ? (
                      <button
                        type="button"
                        className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
                        onClick={() => setBench({ kind: 'gate', gate: asId(entry.gate) })}
                      >
                        {gateText(entry.gate)}
                      </button>
                    ) : (
                      gateText(entry.gate)
                    )}
                  </td>
                  <td className="pr-3">
                    <span className="inline-flex items-center gap-1.5">
                      <OutcomeMark outcome={entry.given as Outcome} size={14} />
                      {outcomeName(entry.given as Outcome)}
                    </span>
                  </td>
                  <td className="pr-3">{entry.visitor === 'guest' ? 'guests' : 'members'}</td>
                  <td className="pr-3 text-right tabular-nums">{entry.count}</td>
                  {NEXT.map(({ key }) => (
                    <td key={key} className="pr-3 text-right tabular-nums">
                      {entry[key] === 0 ? <span className="text-faint">·</span> : entry[key]}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {report.people.length > 0 && (
            <>
              <h3 className="mt-6 mb-1">Members, by name</h3>
              <ul className="max-w-3xl text-[0.8125rem]">
                {report.people.map(({ item, person, name, count }) => (
                  <li key={`${item} ${person}`} className="flex gap-3 border-thin border-t py-1">
                    <Button weight="quiet" size="small" onClick={() => setScreen({ kind: 'person', person })}>
                      {name}
                    </Button>
                    <span className="flex-1">{outline.items.get(item as ItemId)?.title}</span>
                    <span className="tabular-nums">{count}×</span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </>
      )}
    </main>
  );
}

const KEEPS: Readonly<Record<JournalReport['keeps'], string>> = {
  off: 'The journal is off: nothing is counted.',
  counts: 'Counts alone, nobody’s name.',
  names: 'Counts, and the names of members.',
};

const TALLIES = [
  'count',
  'left',
  'signedIn',
  'signedUp',
  'gotIn',
] as const satisfies readonly (keyof Tally)[];

function byItem(
  entries: readonly JournalEntry[],
  titleOf: (id: ItemId) => string | undefined,
): readonly Bar[] {
  const bars = new Map<string, Record<keyof Tally, number> & { key: string; label: string }>();
  for (const entry of entries) {
    const bar = bars.get(entry.item) ?? {
      key: entry.item,
      label: titleOf(entry.item) ?? 'something that is gone',
      count: 0,
      left: 0,
      signedIn: 0,
      signedUp: 0,
      gotIn: 0,
    };
    for (const tally of TALLIES) bar[tally] += entry[tally];
    bars.set(entry.item, bar);
  }
  return [...bars.values()].sort((a, b) => b.count - a.count);
}
