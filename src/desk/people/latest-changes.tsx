'use client';
/** The latest changes of people and names, each with the way back. */
import { useEffect, useState } from 'react';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { ask } from '../service';
import { useUndo } from './use-change';

interface Latest {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly summary: string;
  readonly undone: boolean;
}

export function LatestChanges() {
  const { data } = useDesk();
  const [latest, setLatest] = useState<readonly Latest[]>([]);
  const undo = useUndo();
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when people or names were changed
  useEffect(() => {
    ask<readonly Latest[]>('GET', 'people/changes').then((answer) => answer.ok && setLatest(answer.value));
  }, [data]);
  if (latest.length === 0) return null;
  return (
    <section className="kept">
      <h3>Latest changes</h3>
      <ul>
        {latest.map(({ id, at, by, summary, undone }) => (
          <li key={id} className="flex items-baseline gap-2 border-thin border-b py-1 last:border-b-0">
            <span className="min-w-0 flex-1">
              {undone ? <del className="text-quiet">{summary}</del> : summary}
              <span className="block text-quiet text-xs">
                {by}, {new Date(at).toLocaleString()}
              </span>
            </span>
            {undone ? (
              <span className="note">taken back</span>
            ) : (
              <Button weight="quiet" onClick={() => void undo(id)}>
                Take back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
