/** Conditions of a file that stand in the text form, read where they stand. */
import {
  type Audience,
  type Condition,
  type Policy,
  parseCondition,
  type SiteNames,
  type Vocabulary,
} from '@/core';
import type { PolicyInFile } from './policy-form';

/** A policy of a file, whose shape is known to be right, with every condition that is a text read. */
export function readConditionTexts(
  policy: PolicyInFile,
  names: SiteNames,
): { readonly policy: Policy } | { readonly problems: readonly string[] } {
  const problems: string[] = [];
  // Audiences may use each other by name, so all of their names are known before the first is read.
  const audiences = policy.audiences.map(
    ({ id, name }) => ({ id, name, who: { kind: 'all', of: [] } }) as unknown as Audience,
  );
  const vocabulary: Vocabulary = { ...names, audiences };
  const read = (place: string, condition: Condition | string): Condition => {
    if (typeof condition !== 'string') return condition;
    const parsed = parseCondition(condition, vocabulary);
    if (parsed.ok) return parsed.condition;
    const { line, column, message } = parsed.error;
    problems.push(`${place}, line ${line}, column ${column}: ${message}`);
    return { kind: 'any', of: [] };
  };
  type What = PolicyInFile['gates'][number]['what'];
  const targets = (place: string, list: What['targets']) =>
    list.map((one) =>
      one.kind === 'selection' ? { ...one, where: read(`${place}, what`, one.where) } : one,
    );
  const what = (place: string, { targets: some, except }: What) => ({
    targets: targets(place, some),
    except: targets(place, except),
  });
  const whole = {
    ...policy,
    gates: policy.gates.map((gate) => {
      const place = `gate ${gate.id}`;
      return {
        ...gate,
        what: what(place, gate.what),
        who: read(place, gate.who),
        otherwise: {
          ...gate.otherwise,
          cases: gate.otherwise.cases.map((one, at) => ({
            ...one,
            when: read(`${place}, case ${at + 1}`, one.when),
          })),
        },
      };
    }),
    audiences: policy.audiences.map((one) => ({ ...one, who: read(`audience ${one.id}`, one.who) })),
    landings: policy.landings.map((one) => ({ ...one, when: read(`landing ${one.id}`, one.when) })),
    expectations: policy.expectations.map((one) => {
      const place = `expectation ${one.id}`;
      return { ...one, what: what(place, one.what), who: read(place, one.who) };
    }),
  };
  return problems.length > 0 ? { problems } : { policy: whole as unknown as Policy };
}
