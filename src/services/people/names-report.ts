/** The names of a site with who has them and what asks for them. */
import { describeUse, type NameKind, namesOf, type SiteNames, usesOf } from '@/core';
import type { Trivet } from '../running';
import { type Administrator, requirePermission, yielder } from '../running';
import { textUses } from '../texts';
import { KINDS } from './edit-names';
import { holdingsOf } from './holdings';

/** Where each name is used and how many people have it. */
export interface NameReport {
  readonly people: Readonly<Record<string, number>>;
  readonly uses: Readonly<Record<string, readonly string[]>>;
  /** The passphrases for which nothing has been chosen yet can't be typed by anybody. */
  readonly names: SiteNames;
}

/** The names with their uses in the draft and in texts, and how many people have each, by "kind id". */
export async function namesReport(trivet: Trivet, administrator: Administrator): Promise<NameReport> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const people: Record<string, number> = {};
  const rest = yielder();
  for (const person of state.people.values()) {
    await rest();
    for (const { kind, id } of holdingsOf(person)) {
      const key = `${kind} ${id}`;
      people[key] = (people[key] ?? 0) + 1;
    }
  }
  const vocabulary = { ...state.names, audiences: [] };
  const inTexts = textUses(state, state.live.compiled.vocabulary);
  const uses = Object.fromEntries(
    KINDS.flatMap((of: NameKind) =>
      namesOf(vocabulary, of).map((each) => [
        `${of} ${each.id}`,
        [
          ...usesOf(state.draft.policy, of, each.id).map((use) =>
            describeUse(use, state.outline, vocabulary),
          ),
          ...(inTexts.get(`${of} ${each.id}`) ?? []),
        ],
      ]),
    ),
  );
  return { people, uses, names: state.names };
}
