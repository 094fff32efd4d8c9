'use client';
import type { Gate } from '@/core';
import { Passing, WhoEditor } from '../condition';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

/** The second leg: who passes. */
export const WhoLeg = ({ gate, onChange }: LegProps) => (
  <div className="grid gap-3">
    <WhoEditor who={gate.who} onChange={(who) => onChange({ ...gate, who })} />
    <Passing of={{ kind: 'gate', id: gate.id }} />
  </div>
);
