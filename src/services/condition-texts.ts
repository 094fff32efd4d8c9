/** Conditions of a file that stand in the text form, read where they stand. */
import { type Audience, type Condition, parseCondition, type SiteNames, type Vocabulary } from '@/core';

/**
 * A policy of a file with every condition that is a text read. What is not where a condition stands is left as it is:
 * the policy's shape is checked afterwards.
 */
export function readConditionTexts(
  policy: unknown,
  names: SiteNames,
): { readonly policy: unknown; readonly problems: readonly string[] } {
  const problems: string[] = [];
  if (!isRecord(policy)) return { policy, problems };
  // Audiences may use each other by name, so all of their names are known before the first is read.
  const audiences = listOf(policy.audiences)
    .filter(isRecord)
    .map((one) => ({ id: one.id, name: one.name, who: { kind: 'all', of: [] } }) as unknown as Audience);
  const vocabulary: Vocabulary = { ...names, audiences };
  const read = (place: string, condition: unknown): unknown => {
    if (typeof condition !== 'string') return condition;
    const parsed = parseCondition(condition, vocabulary);
    if (parsed.ok) return parsed.condition satisfies Condition;
    const { line, column, message } = parsed.error;
    problems.push(`${place}, line ${line}, column ${column}: ${message}`);
    return condition;
  };
  const withWho = (one: unknown, place: string) =>
    isRecord(one) ? { ...one, who: read(`${place} ${String(one.id)}`, one.who) } : one;
  const readWhat = (what: Record<string, unknown>, place: string) => {
    const targets = (list: unknown) =>
      listOf(list).map((target) =>
        isRecord(target) && target.kind === 'selection'
          ? { ...target, where: read(place, target.where) }
          : target,
      );
    return { targets: targets(what.targets), except: targets(what.except) };
  };
  const landings = listOf(policy.landings).map((one) =>
    isRecord(one) ? { ...one, when: read(`landing ${String(one.id)}`, one.when) } : one,
  );
  const gates = listOf(policy.gates).map((one) => {
    const gate = withWho(one, 'gate');
    if (!isRecord(gate)) return gate;
    const what = isRecord(gate.what) ? { what: readWhat(gate.what, `gate ${String(gate.id)}, what`) } : {};
    if (!isRecord(gate.otherwise)) return { ...gate, ...what };
    const cases = listOf(gate.otherwise.cases).map((entry, at) =>
      isRecord(entry)
        ? { ...entry, when: read(`gate ${String(gate.id)}, case ${at + 1}`, entry.when) }
        : entry,
    );
    return { ...gate, ...what, otherwise: { ...gate.otherwise, cases } };
  });
  const made = listOf(policy.audiences).map((one) => withWho(one, 'audience'));
  return { policy: { ...policy, gates, audiences: made, landings }, problems };
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
