/** Decisions and what would change them, as sentences. */
import type { Condition } from '../condition';
import type { Change, Decision, Explanation, Step } from '../policy';
import type { Item, Outline, StandIn, VisitorFacts, Vocabulary } from '../site';
import { describeTest } from './who';
import { listed, plural } from './words';

/** A cell of the board as a sentence: "Marek Dunmore gets a teaser of Observers' room". */
export function describeDecision(decision: Decision, who: string, item: Item, outline: Outline): string {
  const subject = who === 'Guest' ? 'A guest' : who;
  const thing = item.kind === 'page' ? item.title : `the ${item.kind} ${item.title}`;
  if (decision.kind === 'open')
    return `${subject} ${item.kind === 'page' ? 'can open' : 'is shown'} ${thing}`;
  const { turnAway } = decision;
  switch (turnAway.kind) {
    case 'teaser':
      return `${subject} gets a teaser of ${thing}`;
    case 'message':
      return `${subject} gets a message instead of ${thing}`;
    case 'redirect':
      return turnAway.to.kind === 'sign in'
        ? `${subject} is sent to sign in on the way to ${thing}`
        : `${subject} is sent to ${outline.items.get(turnAway.to.item)?.title ?? 'nowhere'} instead of ${thing}`;
    case 'missing':
      return `${subject} finds nothing at ${thing}`;
    case 'leave out':
      return `${subject} is not shown ${thing}`;
    default:
      return turnAway satisfies never;
  }
}

/** Why, in one clause, or null when the item is open. */
export function describeBecause(explanation: Explanation, item: Item, vocabulary: Vocabulary): string | null {
  const step = explanation.steps.find((candidate: Step) => candidate.verdict === 'spoke');
  if (!step) return null;
  const place = step.at.id === item.id ? '' : ` (through ${step.at.title})`;
  if (step.kind === 'unpublished') return `${step.at.title} is not published${place}`;
  return `it opens only to those who ${whoFails(step.gate.who, vocabulary)}${place}`;
}

function whoFails(condition: Condition, vocabulary: Vocabulary, holds = true): string {
  switch (condition.kind) {
    case 'test':
      return describeTest(condition, vocabulary, holds);
    case 'not':
      return whoFails(condition.of, vocabulary, !holds);
    case 'all':
    case 'any': {
      if (condition.of.length === 0)
        return (condition.kind === 'all') === holds ? 'are anyone' : 'are nobody';
      const parts = condition.of.map((part) => whoFails(part, vocabulary, holds));
      return listed(parts, (condition.kind === 'all') === holds ? 'and' : 'or');
    }
    default:
      return condition satisfies never;
  }
}

/** The value that a test met: what is known of the visitor about its fact. */
export function describeMet(
  fact: 'signed in' | 'role' | 'group' | 'level',
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): string {
  if (fact === 'signed in') return visitor.signedIn ? 'signed in' : 'not signed in';
  if (!visitor.signedIn) return 'not known (not signed in)';
  if (fact === 'level') return nameIn(vocabulary.levels, visitor.level) ?? 'no level';
  const [held, names] =
    fact === 'role' ? [visitor.roles, vocabulary.roles] : [visitor.groups, vocabulary.groups];
  if (held === null) return 'not known';
  return held.length === 0
    ? `no ${plural(fact)}`
    : listed(held.map((id) => nameIn<string>(names, id) ?? `a ${fact} that no longer exists`));
}

/** What is known of a visitor, in a few words: "Observer · Dome crew · Volunteer". */
export function describeFacts(standIn: StandIn, visitor: VisitorFacts, vocabulary: Vocabulary): string {
  if (standIn.kind === 'guest') return 'not signed in';
  const parts = [
    nameIn(vocabulary.levels, visitor.level),
    ...(visitor.groups ?? []).map((id) => nameIn(vocabulary.groups, id)),
    ...(visitor.roles ?? []).map((id) => nameIn(vocabulary.roles, id)),
  ].filter((name) => name !== null);
  return parts.length === 0 ? 'no level, group or role' : parts.join(' · ');
}

/** One set of changes that would open an item to a visitor: "join Dome crew and leave Suspended". */
export function describeChanges(
  changes: readonly Change[],
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): string {
  // Whatever a guest is to become, they have to sign in for it.
  const first: Change[] = visitor.signedIn || changes[0]?.kind === 'sign in' ? [] : [{ kind: 'sign in' }];
  return listed(
    [...first, ...changes].map((change) => {
      switch (change.kind) {
        case 'sign in':
          return 'sign in';
        case 'sign out':
          return 'sign out';
        case 'level':
          return change.level === null
            ? 'have no level'
            : `reach ${nameIn(vocabulary.levels, change.level)} level`;
        case 'gain':
        case 'lose': {
          const { test } = change;
          const name =
            test.fact === 'role'
              ? nameIn(vocabulary.roles, test.value)
              : nameIn(vocabulary.groups, test.value);
          if (test.fact === 'role')
            return change.kind === 'gain' ? `become a ${name}` : `no longer be a ${name}`;
          return change.kind === 'gain' ? `join ${name}` : `leave ${name}`;
        }
        default:
          return change satisfies never;
      }
    }),
  );
}

const nameIn = <T extends string>(
  names: readonly { readonly id: T; readonly name: string }[],
  id: T | null,
): string | null => names.find((entry) => entry.id === id)?.name ?? null;
