/** The names of a site with who has them and what asks for them. */
import { describeUse, type NameKind, namesOf, type SiteNames, usesOf } from '@/core';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { KINDS, type Kind } from './edit-names';

/** Where each name is used and how many people have it. */
export interface NameReport {
  readonly people: Readonly<Record<string, number>>;
  readonly uses: Readonly<Record<string, readonly string[]>>;
  /** The passphrases for which nothing has been chosen yet can't be typed by anybody. */
  readonly names: SiteNames;
}

/** The names with their uses in the draft and how many people have each, by "kind id". */
export function namesReport(trivet: Trivet, administrator: Administrator): NameReport {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const people: Record<string, number> = {};
  const count = (of: Kind, each: string) => {
    people[`${of} ${each}`] = (people[`${of} ${each}`] ?? 0) + 1;
  };
  for (const person of state.people.values()) {
    if (person.level !== null) count('level', person.level);
    for (const role of person.roles) count('role', role);
    for (const group of person.groups) count('group', group);
    for (const field of Object.keys(person.profile)) count('field', field);
    for (const product of new Set(person.purchases.map((one) => one.product))) count('product', product);
    for (const { course } of person.enrolments) count('course', course);
    for (const { activity } of person.completions) count('activity', activity);
  }
  const vocabulary = { ...state.names, audiences: [] };
  const uses = Object.fromEntries(
    KINDS.flatMap((of: NameKind) =>
      namesOf(vocabulary, of).map((each) => [
        `${of} ${each.id}`,
        usesOf(state.draft.policy, of, each.id).map((use) => describeUse(use, state.outline, vocabulary)),
      ]),
    ),
  );
  return { people, uses, names: state.names };
}
