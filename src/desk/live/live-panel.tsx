'use client';
/** Before anything goes live: what differs, who gains, who loses, what guests notice. */
import { useId, useState } from 'react';
import { toast } from 'sonner';
import {
  capital,
  counted,
  describeExpectation,
  describeVerdict,
  difference,
  keyOfFinding,
  permits,
} from '@/core';
import { Button } from '@/ui';
import { everyRow } from '../board-filter';
import { ChangeList } from '../changes';
import { useDesk } from '../context';
import { useBroken, useFindingText, useSetAsides } from '../findings';
import { Panel } from '../panel';
import { ask } from '../service';
import { EffectStateView } from './effect-view';
import { useEffectReport } from './use-effect-report';

export function LivePanel() {
  const { data, draft, compiled, analysis, outline, vocabulary, request } = useDesk();
  const { setBench, setSide, setScreen, filter, setFilter } = useDesk();
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const changes = difference(draft.live.policy, draft.policy);
  const effect = useEffectReport(draft.policy, data);
  const [reason, setReason] = useState('');
  const form = useId();
  const { isAside } = useSetAsides();
  const before = new Set(analysis.live?.findings.map(keyOfFinding));
  const added = (analysis.draft?.findings ?? []).filter(
    (one) => !before.has(keyOfFinding(one)) && !isAside(one),
  );
  const broken = useBroken();
  const findingText = useFindingText();

  const putLive = async () => {
    setGoing(true);
    setProblem(null);
    const result = await ask<{ revision: number }>('POST', 'live', {
      version: draft.version,
      revision: draft.live.revision,
      note,
      despite: broken.length > 0 && reason.trim() !== '' ? reason.trim() : null,
    });
    setGoing(false);
    await draft.refresh();
    if (!result.ok) {
      setProblem(result.title);
      return;
    }
    toast.success(`Revision ${result.value.revision} is live.`, {
      action: {
        label: 'History',
        onClick: () => setScreen({ kind: 'history', revision: result.value.revision }),
      },
    });
    setSide('live');
    // What was new is live now, and no row would be left.
    if (filter.gets === 'a change') setFilter(everyRow);
    setBench({ kind: 'gates' });
  };

  const discard = () => {
    draft.edit(draft.live.policy);
    toast('The draft is back to what is live.', { action: { label: 'Undo', onClick: draft.undo } });
    setBench({ kind: 'gates' });
  };

  if (changes.length === 0) {
    return (
      <Panel title="Put live" onClose={() => setBench({ kind: 'gates' })}>
        <p>
          The draft and what is live are the same. Change a gate, and what would change for whom is shown
          here.
        </p>
      </Panel>
    );
  }
  return (
    <Panel
      title="Before it is live"
      note={`${counted(changes.length, 'change')}, against revision ${draft.live.revision}`}
      onClose={() => setBench({ kind: 'gates' })}
      foot={
        <>
          {broken.length > 0 &&
            (permits(data.desk, 'everything') ? (
              <label className="mb-3 grid gap-1">
                <span className="text-alarm">
                  Something that must stay so would not. Mend it, or say why this goes live all the same:
                </span>
                <input
                  form={form}
                  value={reason}
                  maxLength={500}
                  onChange={(event) => setReason(event.target.value)}
                  className="rounded-[3px] border border-alarm bg-raised px-2 py-1.5"
                />
              </label>
            ) : (
              <p className="mb-3 text-alarm">
                Something that must stay so would not. Mend it; an owner can put it live all the same.
              </p>
            ))}
          {problem && (
            <p role="alert" className="mb-3 text-alarm">
              {problem}
            </p>
          )}
          {!draft.settled && <p className="note mb-2">The last edit is not saved yet.</p>}
          <div className="flex items-center gap-2">
            <Button
              weight="main"
              type="submit"
              form={form}
              disabled={going || !draft.settled || (broken.length > 0 && reason.trim() === '')}
              className="px-4 py-1.5"
            >
              Put {counted(changes.length, 'change')} live
            </Button>
            <Button weight="quiet" onClick={discard}>
              Drop the draft
            </Button>
          </div>
        </>
      }
    >
      <h3 className="mb-2">What differs</h3>
      <ChangeList before={compiled.live} after={compiled.draft} />
      {added.length > 0 && (
        <section aria-label="Found in the draft">
          <h3 className="mt-6 mb-2">Found in the draft</h3>
          <ul className="grid gap-2">
            {added.map((finding) => (
              <li key={keyOfFinding(finding)} className="border-alarm border-l-3 bg-wash px-3 py-2">
                <button
                  type="button"
                  className="text-left hover:text-copper"
                  onClick={() =>
                    setScreen({ kind: 'findings', open: keyOfFinding(finding), expectation: null })
                  }
                >
                  {findingText(finding)}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {broken.length > 0 && (
        <section aria-label="What would be broken">
          <h3 className="mt-6 mb-2">What would be broken</h3>
          <ul className="grid gap-2">
            {broken.map(({ expectation, verdict }) => (
              <li key={expectation.id} className="border-alarm border-l-3 bg-wash px-3 py-2">
                <button
                  type="button"
                  className="text-left hover:text-copper"
                  onClick={() => setScreen({ kind: 'findings', open: null, expectation: expectation.id })}
                >
                  <span className="block font-semibold">
                    {capital(describeExpectation(expectation, outline, vocabulary))}
                  </span>
                  {describeVerdict(verdict, compiled.draft, request.today)}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <h3 className="mt-6 mb-2">Who notices</h3>
      <EffectStateView {...effect} />
      <form
        id={form}
        className="mt-6 grid gap-2 border-thin border-t pt-4"
        onSubmit={(event) => {
          event.preventDefault();
          void putLive();
        }}
      >
        <label className="grid gap-1">
          <span className="text-quiet">Note for the record (may stay empty)</span>
          <input
            value={note}
            maxLength={500}
            onChange={(event) => setNote(event.target.value)}
            className="rounded-[3px] border border-iron bg-raised px-2 py-1.5"
          />
        </label>
      </form>
    </Panel>
  );
}
