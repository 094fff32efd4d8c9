'use client';
/** One audience: its name, its condition, who is in it, where it is used. */
import { useState } from 'react';
import { type Audience, capital, foldCase, printCondition, remarksOnCondition } from '@/core';
import { Button } from '@/ui';
import { conditionRemarkText, Passing, WhoEditor } from '../condition';
import { useDesk } from '../context';
import { Panel } from '../panel';

interface AudienceProps {
  readonly audience: Audience;
  /** Where it is used in the draft, in words. */
  readonly uses: readonly string[];
}

export function AudiencePanel({ audience, uses }: AudienceProps) {
  const { vocabulary, draft, changeAudience, removeAudience, setScreen } = useDesk();
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  const name = typed ?? audience.name;
  const taken = draft.policy.audiences.some(
    (one) => one.id !== audience.id && foldCase(one.name) === foldCase(name.trim()),
  );
  const wrong =
    name.trim() === ''
      ? 'Give the audience a name.'
      : taken
        ? `There is an audience called “${name.trim()}” already. Choose another name.`
        : null;
  const problems =
    draft.saving.kind === 'refused'
      ? draft.saving.problems.filter((problem) => problem.gate === audience.id)
      : [];
  const remarks = remarksOnCondition(audience.who, vocabulary);
  const condition = printCondition({ kind: 'audience', audience: audience.id }, vocabulary);
  return (
    <Panel
      title={audience.name}
      note="In the draft"
      onClose={() => setScreen({ kind: 'audiences', audience: null })}
      closes="Close"
      actions={
        <Button
          weight="quiet"
          onClick={() => (uses.length > 0 ? setRefused(true) : removeAudience(audience.id))}
        >
          Remove
        </Button>
      }
    >
      <div className="grid gap-5">
        {refused && uses.length > 0 && (
          <div role="alert" className="border-alarm border-l-3 pl-3">
            <p className="text-alarm">
              {audience.name} is used, so it can’t be removed. Take it out of these first:
            </p>
            <ul className="mt-1 list-disc pl-5">
              {uses.map((use) => (
                <li key={use}>{use}</li>
              ))}
            </ul>
          </div>
        )}
        {problems.map((problem) => (
          <p key={problem.message} role="alert" className="border-alarm border-l-3 pl-3 text-alarm">
            {problem.message}
          </p>
        ))}
        <div className="grid gap-1">
          <label htmlFor="audience-name" className="leg-name">
            Name
          </label>
          <input
            id="audience-name"
            value={name}
            maxLength={100}
            aria-describedby={wrong ? 'audience-name-problem' : undefined}
            aria-invalid={wrong !== null || undefined}
            onChange={(event) => {
              const next = event.target.value;
              setTyped(next);
              const free = !draft.policy.audiences.some(
                (one) => one.id !== audience.id && foldCase(one.name) === foldCase(next.trim()),
              );
              if (next.trim() !== '' && free) changeAudience({ ...audience, name: next.trim() });
            }}
            onBlur={() => wrong === null && setTyped(null)}
            className="rounded-[3px] border border-iron bg-raised px-2 py-1.5 aria-invalid:border-alarm"
          />
          {wrong && (
            <p role="alert" id="audience-name-problem" className="text-alarm">
              {wrong}
            </p>
          )}
        </div>
        <section aria-label="Who">
          <h3 className="leg-name mb-2">Who is in it</h3>
          <div className="grid gap-3">
            <WhoEditor who={audience.who} onChange={(who) => changeAudience({ ...audience, who })} />
            <Passing of={{ kind: 'audience', id: audience.id }} />
            <div>
              <Button onClick={() => setScreen({ kind: 'people', text: '', condition })}>
                Show these people
              </Button>
            </div>
          </div>
        </section>
        {remarks.length > 0 && (
          <ul className="grid gap-2" aria-label="Remarks">
            {remarks.map((remark) => (
              <li key={JSON.stringify(remark)} className="rounded-[3px] bg-wash px-3 py-2">
                {conditionRemarkText(remark, vocabulary)}
              </li>
            ))}
          </ul>
        )}
        <section aria-label="Uses">
          <h3 className="leg-name mb-1">Where it is used</h3>
          {uses.length === 0 ? (
            <p className="note">Nowhere yet. In a gate’s Who, choose “An audience”.</p>
          ) : (
            <ul className="grid gap-1">
              {uses.map((use) => (
                <li key={use} className="border-thin border-l-3 pl-2.5">
                  {capital(use)}
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </Panel>
  );
}
