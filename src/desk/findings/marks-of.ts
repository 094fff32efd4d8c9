/** What was found, by where it is marked: at gates, and at items. */
import { type Analysis, type Finding, type GateId, type ItemId, weightOf } from '@/core';

export interface Marks {
  /** What weighs something, by gate: what could merely be less is said where the gate is. */
  readonly byGate: ReadonlyMap<GateId, readonly Finding[]>;
  /** The expectation that is broken at an item, by item. */
  readonly broken: ReadonlyMap<ItemId, string>;
}

const kept = new WeakMap<Analysis, Marks>();

/** The marks of what is certain of a policy; made once for as long as that is the same. */
export function marksOf(analysis: Analysis): Marks {
  const found = kept.get(analysis);
  if (found) return found;
  const byGate = new Map<GateId, readonly Finding[]>();
  for (const finding of analysis.findings)
    if (finding.gate !== null && ['wrong', 'risk'].includes(weightOf(finding)))
      byGate.set(finding.gate, [...(byGate.get(finding.gate) ?? []), finding]);
  const broken = new Map<ItemId, string>();
  for (const [expectation, verdict] of analysis.verdicts)
    if (verdict.kind === 'broken')
      for (const item of verdict.items) if (!broken.has(item)) broken.set(item, expectation);
  const marks = { byGate, broken };
  kept.set(analysis, marks);
  return marks;
}

export const noMarks: Marks = { byGate: new Map(), broken: new Map() };
