'use client';
import { forPeople, type Gate } from '@/core';
import { Passing, WhoEditor } from '../condition';
import { useDesk } from '../context';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

/** The second leg: who passes. */
export function WhoLeg({ gate, onChange }: LegProps) {
  const { vocabulary } = useDesk();
  return (
    <div className="grid gap-3">
      <WhoEditor who={gate.who} onChange={(who) => onChange(forPeople(gate, who, vocabulary))} />
      <Passing of={{ kind: 'gate', id: gate.id }} />
    </div>
  );
}
