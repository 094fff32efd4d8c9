'use client';
/** The composer: a gate as its three legs, one below the other, reading as one sentence. */
import type { ReactNode } from 'react';
import {
  capital,
  describeGate,
  describeWhat,
  difference,
  type Gate,
  type GateChange,
  type GateId,
  type ItemId,
  keyOfStandIn,
  misledBy,
  nameOf,
  type Remark,
  remarksOn,
  type Vocabulary,
} from '@/core';
import { Button, Choice } from '@/ui';
import { conditionRemarkText } from '../condition';
import { useDesk } from '../context';
import { Found, WouldBreak } from '../findings';
import { Panel } from '../panel';
import { OtherwiseLeg } from './otherwise-leg';
import { WhatLeg } from './what-leg';
import { WhoLeg } from './who-leg';

export function Composer({ gate: id }: { readonly gate: GateId }) {
  const { draft, outline, vocabulary, setBench, changeGate, removeGate } = useDesk();
  const gate = draft.policy.gates.find((one) => one.id === id);
  if (!gate) return null;
  const change = difference(draft.live.policy, draft.policy).find(
    (one): one is Exclude<GateChange, { kind: 'removed' }> =>
      one.of === 'gate' && one.kind !== 'removed' && one.after.id === id,
  );
  const problems =
    draft.saving.kind === 'refused' ? draft.saving.problems.filter((problem) => problem.gate === id) : [];
  const named = draft.policy.turnAways;
  const legs = describeGate(gate, outline, vocabulary, named);
  return (
    <Panel
      title={capital(describeWhat(gate.what, outline, vocabulary))}
      note={
        change?.kind === 'added'
          ? 'A new gate, in the draft'
          : change
            ? 'Changed in the draft'
            : 'As it is live'
      }
      onClose={() => setBench({ kind: 'gates' })}
      actions={
        <Button weight="quiet" onClick={() => removeGate(id)}>
          Remove
        </Button>
      }
    >
      {problems.map((problem) => (
        <p key={problem.message} role="alert" className="mb-3 border-alarm border-l-3 pl-3 text-alarm">
          {problem.message}
        </p>
      ))}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5">
        <WouldBreak />
        <Found gate={gate} />
        <Leg name="What" after="these items">
          <WhatLeg gate={gate} onChange={changeGate} />
        </Leg>
        <Leg name="Who" after="passes">
          <WhoLeg gate={gate} onChange={changeGate} />
        </Leg>
        <Leg name="Otherwise" after="what the rest get">
          <OtherwiseLeg gate={gate} onChange={changeGate} />
        </Leg>
        <Stance gate={gate} onChange={changeGate} />
        <Remarks remarks={remarksOn(gate, outline, vocabulary)} />
        <Astray gate={gate} />
        <p className="border-thin border-t pt-3 text-quiet">
          {capital(legs.what)} open to {legs.who}
          {legs.otherwise === null ? ', so nobody is turned away' : `; ${legs.otherwise}`}.
        </p>
        {change?.kind === 'changed' && (
          <div>
            <Button onClick={() => changeGate(change.before)}>Put this gate back as it is live</Button>
          </div>
        )}
      </div>
    </Panel>
  );
}

const Leg = ({
  name,
  after,
  children,
}: {
  readonly name: string;
  readonly after: string;
  readonly children: ReactNode;
}) => (
  <section aria-label={name}>
    <h3 className="leg-name mb-2 flex items-baseline gap-2">
      {name} <span className="note font-normal font-text">{after}</span>
    </h3>
    {children}
  </section>
);

function Stance({ gate, onChange }: { readonly gate: Gate; readonly onChange: (gate: Gate) => void }) {
  return (
    <section aria-label="Stance" className="flex items-center gap-3 border-thin border-t pt-4">
      <Choice
        label="Stance towards the gates above"
        value={gate.stance}
        options={[
          { value: 'also', label: 'also' },
          { value: 'instead', label: 'instead' },
        ]}
        onChoose={(stance) => onChange({ ...gate, stance })}
      />
      <span className="note">
        {gate.stance === 'also'
          ? 'Adds to the gates above: visitors must pass them all.'
          : 'Sets aside the gates above it, for the items it covers.'}
      </span>
    </section>
  );
}

/** Visitors of the board whom this gate sends to where they don't arrive. */
function Astray({ gate }: { readonly gate: Gate }) {
  const { compiled, standIns, request, outline } = useDesk();
  const misled = misledBy(compiled.draft, gate, standIns, request);
  if (misled.length === 0) return null;
  const title = (id: ItemId) => outline.items.get(id)?.title ?? 'an item that no longer exists';
  return (
    <ul className="grid gap-2" aria-label="Redirects that lead astray">
      {misled.map(({ standIn, from, at, how }) => (
        <li key={keyOfStandIn(standIn)} className="rounded-[3px] bg-wash px-3 py-2">
          {nameOf(standIn)}, sent on from {title(from)},{' '}
          {how === 'circle'
            ? `comes round in a circle at ${title(at)}, so they get nothing there instead.`
            : `is turned away at ${title(at)} as well. Send them where they can go.`}
        </li>
      ))}
    </ul>
  );
}

function Remarks({ remarks }: { readonly remarks: readonly Remark[] }) {
  const { vocabulary } = useDesk();
  if (remarks.length === 0) return null;
  return (
    <ul className="grid gap-2" aria-label="Remarks">
      {remarks.map((remark) => (
        <li key={JSON.stringify(remark)} className="rounded-[3px] bg-wash px-3 py-2">
          {remarkText(remark, vocabulary)}
        </li>
      ))}
    </ul>
  );
}

function remarkText(remark: Remark, vocabulary: Vocabulary): string {
  switch (remark.kind) {
    case 'covers nothing':
      return 'This gate covers nothing yet, so it changes nothing. Add an item above.';
    case 'lets everyone by':
      return 'Everyone passes this gate and it adds to the others, so it changes nothing.';
    case 'sets aside':
      return 'This gate says “instead”: where it covers an item, the gates above it no longer count there.';
    case 'shadowed case':
      return `Case ${remark.index} is for everyone, so the cases after it are never used.`;
    default:
      return conditionRemarkText(remark, vocabulary);
  }
}
