'use client';
/** Changes of people and names: who made them, when and why, and what was otherwise before. */
import { useEffect, useState } from 'react';
import { counted, permits } from '@/core';
import type { PastChange } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { useUndo } from '../people/use-change';
import { ask } from '../service';
import { When } from '../when';

/** All changes, or those of one person. */
export function PastChanges({ person }: { readonly person: string | null }) {
  const { data, setScreen } = useDesk();
  const [list, setList] = useState<readonly PastChange[] | null>(null);
  const [ended, setEnded] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const undo = useUndo();
  const read = async (before: readonly PastChange[]) => {
    const query = new URLSearchParams();
    if (person !== null) query.set('person', person);
    const last = before.at(-1);
    if (last) query.set('before', last.at);
    const answer = await ask<readonly PastChange[]>('GET', `changes?${query}`);
    setProblem(answer.ok ? null : answer.title);
    if (!answer.ok) return;
    setList([...before, ...answer.value]);
    setEnded(answer.value.length < 50);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when people or names were changed
  useEffect(() => void read([]), [person, data]);
  if (problem) return <p role="alert">{problem}</p>;
  if (!list) return <p className="note">Looking …</p>;
  if (list.length === 0) return <p>Nothing was changed since this site was loaded.</p>;
  return (
    <>
      <ol className="grid max-w-3xl">
        {list.map((one) => (
          <li key={one.id} className="border-thin border-b py-3 last:border-b-0">
            <div className="flex items-start gap-3">
              <div className="min-w-0 flex-1">
                <p className={one.undone ? 'text-quiet line-through' : 'font-semibold'}>{one.summary}</p>
                <p className="note">
                  {one.by}, <When at={one.at} />
                </p>
                {one.why && <p className="font-head">“{one.why}”</p>}
              </div>
              {one.undone ? (
                <span className="note">taken back</span>
              ) : (
                permits(data.desk, 'people') && (
                  <Button weight="quiet" onClick={() => void undo(one.id)}>
                    Take back
                  </Button>
                )
              )}
            </div>
            <ul className="mt-1 grid gap-1 text-[0.8125rem]">
              {one.people.map((touched) => (
                <li key={touched.id}>
                  {person === null && (
                    <button
                      type="button"
                      onClick={() => setScreen({ kind: 'person', person: touched.id })}
                      className="underline decoration-thin underline-offset-3 hover:text-copper"
                    >
                      {touched.name}
                    </button>
                  )}{' '}
                  {touched.kind === 'came' && 'came to the site'}
                  {touched.kind === 'went' && 'was taken off the site'}
                  {touched.facts.map(({ fact, before, after }) => (
                    <span key={fact} className="block pl-3">
                      <span className="text-quiet">{fact}:</span>{' '}
                      {before && <del className="text-quiet">{before}</del>}
                      {before && after && ' '}
                      {after && <ins className="no-underline">{after}</ins>}
                      {!after && <span className="text-quiet"> no longer</span>}
                    </span>
                  ))}
                </li>
              ))}
              {one.count > one.people.length && person === null && (
                <li className="note">and {counted(one.count - one.people.length, 'other')}</li>
              )}
            </ul>
          </li>
        ))}
      </ol>
      {!ended && (
        <Button weight="quiet" onClick={() => void read(list)}>
          Earlier ones
        </Button>
      )}
    </>
  );
}
