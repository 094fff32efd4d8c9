/** What is unusual about a condition or a gate and easily overlooked while it is written. */
import {
  type Condition,
  everyone,
  expanded,
  factNamed,
  isFakeable,
  problemOf,
  type Test,
  testsIn,
} from '../condition';
import { same } from '../same';
import { nameOfId, type Outline, type Vocabulary } from '../site';
import { coverage, type Gate } from './gate';

/** Something about a condition that its author should have meant. */
export type ConditionRemark =
  | { readonly kind: 'exact level'; readonly level: string; readonly excluded: readonly string[] }
  /** Visitors can make this up, so it is fit for presentation and not for protection. */
  | { readonly kind: 'fakeable'; readonly test: Test; readonly why: 'browser says' | 'members fill in' }
  | { readonly kind: 'gone'; readonly message: string };

/** Something about a gate that its author should have meant. */
export type Remark =
  | ConditionRemark
  | { readonly kind: 'covers nothing' }
  | { readonly kind: 'lets everyone by' }
  | { readonly kind: 'sets aside' }
  | { readonly kind: 'shadowed case'; readonly index: number };

/** The remarks on a gate, most serious first. */
export function remarksOn(gate: Gate, outline: Outline, vocabulary: Vocabulary): readonly Remark[] {
  const remarks: Remark[] = [];
  if (coverage(gate, outline, vocabulary).size === 0) remarks.push({ kind: 'covers nothing' });
  if (gate.stance === 'also' && same(gate.who, everyone)) remarks.push({ kind: 'lets everyone by' });
  if (gate.stance === 'instead') remarks.push({ kind: 'sets aside' });
  remarks.push(...remarksOnCondition(gate.who, vocabulary));
  const catchAll = gate.otherwise.cases.findIndex(({ when }) => when.kind === 'all' && when.of.length === 0);
  if (catchAll >= 0 && gate.otherwise.cases.length > catchAll + 1) {
    remarks.push({ kind: 'shadowed case', index: catchAll + 1 });
  }
  return remarks;
}

/** The remarks on a condition; what stands in its audiences counts as well. Each is made once. */
export function remarksOnCondition(condition: Condition, vocabulary: Vocabulary): readonly ConditionRemark[] {
  const remarks = new Map<string, ConditionRemark>();
  for (const test of testsIn(expanded(condition, vocabulary.audiences))) {
    const problem = problemOf(test, vocabulary);
    if (problem !== null) remarks.set(problem.message, { kind: 'gone', message: problem.message });
    if (isFakeable(test, vocabulary)) {
      const why = factNamed(test.fact).fakeable ? 'browser says' : 'members fill in';
      remarks.set(`${test.fact} ${test.subject}`, { kind: 'fakeable', test, why });
    }
    if (test.fact !== 'level' || test.op !== 'exactly') continue;
    const rank = vocabulary.levels.findIndex((level) => level.id === test.value);
    const excluded = rank < 0 ? [] : vocabulary.levels.slice(rank + 1).map((level) => level.name);
    const level = nameOfId(vocabulary, 'level', String(test.value)) ?? '';
    if (excluded.length > 0) remarks.set(`exactly ${level}`, { kind: 'exact level', level, excluded });
  }
  return [...remarks.values()];
}
