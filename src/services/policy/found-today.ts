/** What is so of the members there are today, and was hardly meant: a gate that nobody passes, a group in which nobody is. */
import {
  conditionCompiler,
  conditionsOfPolicy,
  expanded,
  type Finding,
  guest,
  hasRole,
  inGroup,
  level,
  nobody,
  same,
  type Test,
  testsIn,
  vocabularyOf,
} from '@/core';
import { membershipOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission, yielder } from '../running';
import { type PolicyProblem, readPolicy } from './read-policy';

/** Looks at the gates of a policy with today's members. */
export async function foundToday(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<readonly Finding[] | { readonly problems: readonly PolicyProblem[] }> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const read = readPolicy(input, state);
  if ('problems' in read) return read;
  const { policy } = read;
  const vocabulary = vocabularyOf(state.names, policy);
  const { select } = await membershipOf(state, vocabulary, now, conditionsOfPolicy(policy));
  const passes = conditionCompiler(vocabulary);
  const request = plainRequest(state, now);
  const rest = yielder();
  const found: Finding[] = [];
  for (const { id, who } of policy.gates) {
    await rest();
    if (same(who, nobody)) continue;
    if (select(who).count === 0 && !passes(who)(guest, null, request))
      found.push({ kind: 'nobody passes today', gate: id });
    const named = new Map(
      testsIn(expanded(who, vocabulary.audiences)).flatMap((test) => {
        const of = nameIn(test);
        return of ? [[`${of.kind} ${of.id}`, of] as const] : [];
      }),
    );
    for (const of of named.values())
      if (select(of.has).count === 0)
        found.push({ kind: 'asks for the empty', gate: id, of: { kind: of.kind, id: of.id } });
  }
  return found;
}

/** The role, group or level that a test asks for, with the condition that somebody has it. */
function nameIn({ fact, value }: Test) {
  const id = String(value) as never;
  switch (fact) {
    case 'role':
      return { kind: 'role', id, has: hasRole(id) } as const;
    case 'group':
      return { kind: 'group', id, has: inGroup(id) } as const;
    case 'level':
      return value === undefined ? null : ({ kind: 'level', id, has: level('exactly', id) } as const);
    default:
      return null;
  }
}
