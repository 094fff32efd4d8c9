'use client';
/** One finding: who shows it, whom it concerns today, what mends it, and setting it aside. */
import { useState } from 'react';
import { type CompiledPolicy, capital, describeGate, type Finding, permits } from '@/core';
import type { Concerned } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { Panel } from '../panel';
import { useAnswer } from '../use-answer';
import { Mending, useFindingText } from './found';
import { useSetAsides } from './use-set-asides';

export function FindingPanel({ finding }: { readonly finding: Finding }) {
  const { data, draft, outline, vocabulary, setScreen, setBench } = useDesk();
  const text = useFindingText();
  const setAsides = useSetAsides();
  const noted = setAsides.of(finding);
  const gate = draft.policy.gates.find(({ id }) => id === finding.gate);
  const legs = gate && describeGate(gate, outline, vocabulary, draft.policy.turnAways);
  return (
    <Panel
      title="Found"
      note="In the draft"
      onClose={() => setScreen({ kind: 'findings', open: null, expectation: null })}
      closes="Close"
    >
      <div className="grid gap-5">
        <p className="font-head text-lg leading-snug">{text(finding)}</p>
        {gate && legs && (
          <section aria-label="The gate">
            <h3 className="mb-1">The gate</h3>
            <button
              type="button"
              className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
              onClick={() => setBench({ kind: 'gate', gate: gate.id })}
            >
              {capital(legs.what)}, for {legs.who}
            </button>
            {legs.otherwise !== null && <p className="text-quiet">{capital(legs.otherwise)}</p>}
          </section>
        )}
        <Concerns finding={finding} />
        {permits(data.desk, 'gates') && (
          <div className="flex flex-wrap gap-2">
            <Mending finding={finding} />
          </div>
        )}
        {noted ? (
          <section
            aria-label="Set aside"
            className="grid justify-items-start gap-2 border-iron border-l-3 pl-3"
          >
            <p>
              {noted.by} set this aside: “{noted.reason}”
            </p>
            <p className="note">It comes back when what it is about changes.</p>
            {permits(data.desk, 'gates') && (
              <Button onClick={() => void setAsides.put(finding, null)}>Bring it back</Button>
            )}
          </section>
        ) : (
          permits(data.desk, 'gates') && (
            <SettingAside onSet={(reason) => void setAsides.put(finding, reason)} />
          )
        )}
      </div>
    </Panel>
  );
}

function SettingAside({ onSet }: { readonly onSet: (reason: string) => void }) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="grid gap-2 border-thin border-t pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') onSet(reason.trim());
      }}
    >
      <div className="grid gap-1">
        <span aria-hidden="true" className="text-quiet">
          Why it can stay as it is
        </span>
        <Input
          label="Why it can stay as it is"
          value={reason}
          maxLength={500}
          onChange={(event) => setReason(event.target.value)}
        />
      </div>
      <Button type="submit" disabled={reason.trim() === ''} className="justify-self-start">
        Set it aside
      </Button>
    </form>
  );
}

/** What is asked of the membership about a finding; null where it concerns nobody there is. */
function askedOf(finding: Finding, { covering }: CompiledPolicy): object | null {
  switch (finding.kind) {
    case 'hidden link':
      return { kind: 'difference', open: finding.page, closed: finding.link };
    case 'contradiction':
      return { kind: 'turned away', items: finding.items };
    case 'step to a closed door':
      return { kind: 'turned away', items: [finding.to] };
    case 'exact level':
      return { kind: 'turned away', items: [finding.item] };
    case 'opened by instead': {
      const aside = (covering.get(finding.item) ?? []).filter(({ setAside }) => setAside);
      return { kind: 'let by', gates: aside.map(({ gate }) => gate.id), items: [finding.item] };
    }
    case 'left open':
      return { kind: 'let by', gates: [finding.gate], items: finding.items };
    case 'never past': {
      const { course, item, next } = finding;
      return { kind: 'stuck', course, item, next };
    }
    case 'gets nothing':
      return { kind: 'nothing open' };
    default:
      return null;
  }
}

const WHOM: Readonly<Partial<Record<Finding['kind'], string>>> = {
  'hidden link': 'can open the page today and don’t get the link',
  contradiction: 'are turned away from it today',
  'step to a closed door': 'can’t open that page today',
  'exact level': 'are turned away from it today',
  'opened by instead': 'get it today, and would not by any of those',
  'left open': 'get some of it today, and would not by this gate',
  'never past': 'are enrolled today, and neither of the two is open to them',
  'gets nothing': 'can open nothing today',
};

function Concerns({ finding }: { readonly finding: Finding }) {
  const { compiled } = useDesk();
  const asked = askedOf(finding, compiled.draft);
  const whom = WHOM[finding.kind];
  return asked && whom !== undefined ? <Crowd of={asked} whom={whom} /> : null;
}

/** How many members something concerns today, and the first of them. */
export function Crowd({
  of,
  whom,
  inLine = false,
}: {
  readonly of: object;
  readonly whom: string;
  /** Without a head of its own. */
  readonly inLine?: boolean;
}) {
  const { data, draft } = useDesk();
  const answer = useAnswer<Concerned>('findings/concerned', { policy: draft.policy, of }, data);
  if (answer === null) return <p className="note">Counting …</p>;
  if (!answer.ok) return <p className="text-alarm">{answer.title}</p>;
  const { people, of: all, cut } = answer.value;
  return (
    <section aria-label="Whom it concerns">
      {!inLine && <h3 className="mb-1">Whom it concerns</h3>}
      <p>
        <strong>{people.count}</strong> of {all} members {whom}
        {people.count > 0 && (
          <>
            : <CrowdNames crowd={people} most={8} />
          </>
        )}
        .
      </p>
      {cut && <p className="note">The first 200 items were looked at.</p>}
    </section>
  );
}
