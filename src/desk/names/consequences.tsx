'use client';
/** What a change of the names would do, before it is made. */
import { useEffect, useState } from 'react';
import { capital, counted } from '@/core';
import type { NamesEdit, NamesPreview } from '@/services';
import { Button } from '@/ui';
import { Panel } from '../panel';
import { useChange } from '../people/use-change';
import { ask } from '../service';

interface ConsequencesProps {
  readonly edit: NamesEdit;
  readonly title: string;
  /** What the button says. */
  readonly does: string;
  readonly onDone: () => void;
}

export function Consequences({ edit, title, does, onDone }: ConsequencesProps) {
  const change = useChange();
  const [preview, setPreview] = useState<NamesPreview | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    ask<NamesPreview>('POST', 'names?preview', edit).then((answer) => {
      if (answer.ok) setPreview(answer.value);
      setProblem(answer.ok ? null : answer.title);
    });
  }, [edit]);
  const go = async () => {
    const answer = await change('POST', 'names', edit);
    if (answer.ok) onDone();
    else setProblem(answer.title);
  };
  return (
    <Panel
      title={title}
      note="Nothing is changed yet. Afterwards it can be taken back."
      onClose={onDone}
      closes="Leave it as it is"
    >
      {problem && (
        <p role="alert" className="mb-3 text-alarm">
          {problem}
        </p>
      )}
      {!preview && !problem && <p className="note">Working it out …</p>}
      {preview && (
        <div className="grid gap-4" data-testid="consequences">
          <p>
            {preview.people === 0
              ? 'No person changes by it.'
              : `${counted(preview.people, 'person changes', 'people change')} by it`}
            {preview.people > 0 &&
              preview.lose === 0 &&
              '; what they have is converted, and nothing is lost.'}
            {preview.lose > 0 && (
              <>
                , and <strong className="text-alarm">{preview.lose} lose</strong> what they have.
              </>
            )}
          </p>
          <Breaks preview={preview} side="live" title="Live, this would be closed to all from now on" />
          <Breaks preview={preview} side="draft" title="In the draft, these conditions would need mending" />
          {preview.breaks.length === 0 && <p>No gate and no audience would notice.</p>}
          <div className="flex gap-2">
            <Button weight="main" onClick={() => void go()}>
              {does}
            </Button>
            <Button weight="quiet" onClick={onDone}>
              Leave it
            </Button>
          </div>
        </div>
      )}
    </Panel>
  );
}

function Breaks({
  preview,
  side,
  title,
}: {
  readonly preview: NamesPreview;
  readonly side: 'draft' | 'live';
  readonly title: string;
}) {
  const list = preview.breaks.filter((one) => one.side === side);
  if (list.length === 0) return null;
  return (
    <section>
      <h3 className="mb-1">{title}</h3>
      <ul className="grid gap-1">
        {list.map(({ where }) => (
          <li key={where} className="border-alarm border-l-3 pl-2.5">
            {capital(where)}
          </li>
        ))}
      </ul>
      {side === 'live' && (
        <p className="note mt-1">
          A test of what is gone is unknown of everybody, so it lets nobody by. Nothing opens by it.
        </p>
      )}
    </section>
  );
}
