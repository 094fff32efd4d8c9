/** What is unusual about a gate and easily overlooked while it is written. */
import { everyone, testsIn } from '../condition';
import { same } from '../same';
import type { Outline, Vocabulary } from '../site';
import { coverage, type Gate } from './gate';

/** Something about a gate that its author should have meant. */
export type Remark =
  | { readonly kind: 'covers nothing' }
  | { readonly kind: 'lets everyone by' }
  | { readonly kind: 'sets aside' }
  | { readonly kind: 'exact level'; readonly level: string; readonly excluded: readonly string[] }
  | { readonly kind: 'shadowed case'; readonly index: number };

/** The remarks on a gate, most serious first. */
export function remarksOn(gate: Gate, outline: Outline, vocabulary: Vocabulary): readonly Remark[] {
  const remarks: Remark[] = [];
  if (coverage(gate.what, outline).size === 0) remarks.push({ kind: 'covers nothing' });
  if (gate.stance === 'also' && same(gate.who, everyone)) remarks.push({ kind: 'lets everyone by' });
  if (gate.stance === 'instead') remarks.push({ kind: 'sets aside' });
  for (const test of testsIn(gate.who)) {
    if (test.fact !== 'level' || test.op !== 'exactly') continue;
    const rank = vocabulary.levels.findIndex((level) => level.id === test.value);
    const excluded = rank < 0 ? [] : vocabulary.levels.slice(rank + 1).map((level) => level.name);
    if (excluded.length > 0)
      remarks.push({ kind: 'exact level', level: vocabulary.levels[rank]?.name ?? '', excluded });
  }
  const catchAll = gate.otherwise.cases.findIndex(({ when }) => when.kind === 'all' && when.of.length === 0);
  if (catchAll >= 0 && gate.otherwise.cases.length > catchAll + 1) {
    remarks.push({ kind: 'shadowed case', index: catchAll + 1 });
  }
  return remarks;
}
