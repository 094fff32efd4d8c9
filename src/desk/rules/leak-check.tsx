'use client';
import { useState } from 'react';
import { counted, type ItemId } from '@/core';
import type { LeakReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';

/** Tries every door of a marked copy of the live site, as the board's visitors or as everybody. */
export function LeakCheck() {
  const { data, standIns, setScreen } = useDesk();
  const [answer, setAnswer] = useState<Answer<LeakReport> | null>(null);
  const [calling, setCalling] = useState<AbortController | null>(null);
  const start = async (everyone: boolean) => {
    const control = new AbortController();
    setCalling(control);
    setAnswer(null);
    try {
      setAnswer(await ask<LeakReport>('POST', 'leak-check', { everyone }, control.signal));
    } catch {
      // It was called off.
    }
    setCalling(null);
  };
  const report = answer?.ok ? answer.value : null;
  return (
    <>
      <p className="note">
        Marks everything in a copy of the live site, then asks for every page, list, feed, search, file, walk
        and answer of the API as each visitor, and reports whatever came through that should not have.
      </p>
      <p className="flex flex-wrap items-center gap-2">
        <Button disabled={calling !== null} onClick={() => void start(false)}>
          Check as the board’s {counted(standIns.length, 'visitor')}
        </Button>
        <Button disabled={calling !== null} onClick={() => void start(true)}>
          As all {data.memberCount} members
        </Button>
        {calling && (
          <>
            <span role="status">Trying the doors …</span>
            <Button weight="quiet" onClick={() => calling.abort()}>
              Stop
            </Button>
          </>
        )}
      </p>
      {answer && !answer.ok && (
        <p role="alert" className="text-alarm">
          {answer.title}
        </p>
      )}
      {report && (
        <div role="status" className="grid gap-1.5">
          <p className="font-semibold">
            {report.leaked === 0
              ? 'Nothing came through.'
              : `${report.leaked} things came through that should not have.`}
          </p>
          <p className="note">
            {report.requests} requests as {counted(report.visitors, 'visitor')}, {report.marks} marks.
          </p>
          <ul className="grid gap-1">
            {report.leaks.slice(0, 30).map((leak) => (
              <li
                key={`${leak.visitor} ${leak.path} ${leak.item} ${leak.part}`}
                className="border-alarm border-l-3 pl-3"
              >
                {leak.visitor}, by the {leak.door}: the {leak.part} of{' '}
                {leak.item === null ? (
                  leak.title
                ) : (
                  <button
                    type="button"
                    className="underline underline-offset-3 hover:text-copper"
                    onClick={() => setScreen({ kind: 'site', item: leak.item as ItemId })}
                  >
                    {leak.title}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
