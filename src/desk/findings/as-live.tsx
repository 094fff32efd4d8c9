'use client';
import { toast } from 'sonner';
import { coverage, type Expectation, permits, stands, type Verdict } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';

interface AsLiveProps {
  readonly expectation: Expectation;
  readonly verdict: Extract<Verdict, { kind: 'broken' }>;
}

/** Brings the gates over what is broken back to what is live, where it holds there. */
export function AsLive({ expectation, verdict }: AsLiveProps) {
  const { data, draft, analysis, outline, vocabulary } = useDesk();
  const there = analysis.live?.verdicts.get(expectation.id);
  if (!there || !stands(there) || !permits(data.desk, 'gates')) return null;
  const live = draft.live.policy.gates;
  const over = new Set(verdict.items);
  const concerns = (gate: (typeof live)[number]) =>
    [...coverage(gate, outline, vocabulary)].some((id) => over.has(id));
  const bringBack = () => {
    const before = new Map(live.filter(concerns).map((gate) => [gate.id, gate]));
    const isLive = new Set(live.map(({ id }) => id));
    const gates = draft.policy.gates
      .filter((gate) => isLive.has(gate.id) || !concerns(gate))
      .map((gate) => before.get(gate.id) ?? gate);
    // What was taken out goes back to where it stands.
    live.forEach((gate, at) => {
      if (before.has(gate.id) && !gates.some(({ id }) => id === gate.id)) gates.splice(at, 0, gate);
    });
    draft.edit({ ...draft.policy, gates });
    toast('The gates over it are as they are live.', { action: { label: 'Undo', onClick: draft.undo } });
  };
  return (
    <Button weight="main" onClick={bringBack}>
      Bring back the gates that are live
    </Button>
  );
}
