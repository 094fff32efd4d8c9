/** Decisions and what would change them, as sentences. */
import { factNamed, type Scene, type Test } from '../condition';
import { listed, plural } from '../english';
import type { BuyingWay, Change, Decision, Explanation, Step } from '../policy';
import { priceInWords } from '../selling';
import {
  type Day,
  dayInWords,
  groupsAt,
  type Item,
  isAddressed,
  isDay,
  levelAt,
  nameOfId,
  type Outline,
  placeOf,
  rolesAt,
  type StandIn,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import { imperativeOf } from './imperative';
import { describeWho } from './who';

/** A cell of the board as a sentence: "Marek Dunmore gets a teaser of Observers' room". */
export function describeDecision(decision: Decision, who: string, item: Item, outline: Outline): string {
  const subject = who === 'Guest' ? 'A guest' : who;
  const thing = isAddressed(item) ? item.title : `the ${item.kind} ${item.title}`;
  if (decision.kind === 'open')
    return `${subject} ${isAddressed(item) || item.kind === 'file' ? 'can open' : 'is shown'} ${thing}`;
  const { turnAway } = decision;
  switch (turnAway.kind) {
    case 'teaser':
      return `${subject} gets a teaser of ${thing}`;
    case 'message':
      return `${subject} gets a message instead of ${thing}`;
    case 'redirect':
      switch (turnAway.to.kind) {
        case 'sign in':
          return `${subject} is sent to sign in on the way to ${thing}`;
        case 'passphrase':
          return `${subject} is asked for a passphrase on the way to ${thing}`;
        case 'outside':
          return `${subject} is sent to ${turnAway.to.url} instead of ${thing}`;
        case 'item':
          return `${subject} is sent to ${outline.items.get(turnAway.to.item)?.title ?? 'nowhere'} instead of ${thing}`;
        default:
          return turnAway.to satisfies never;
      }
    case 'missing':
      return `${subject} finds nothing at ${thing}`;
    case 'leave out':
      return `${subject} is not shown ${thing}`;
    case 'swap':
      return `${subject} gets something else in place of ${thing}`;
    case 'locked':
      return `${subject} finds ${thing} locked`;
    default:
      return turnAway satisfies never;
  }
}

/** Why, in one clause, or null when the item is open. */
export function describeBecause(explanation: Explanation, item: Item, vocabulary: Vocabulary): string | null {
  const step = explanation.steps.find((candidate: Step) => candidate.verdict === 'spoke');
  if (!step) return null;
  const own = placeOf(item.id)?.section ?? item.id;
  const place = step.at.id === own ? '' : ` (through ${step.at.title})`;
  if (step.kind === 'unpublished') return `${step.at.title} is not published${place}`;
  if (step.kind === 'hosts') return `nothing that ${step.at.title} stands on is open${place}`;
  const who = describeWho(step.gate.who, vocabulary);
  return `it opens ${who === 'nobody' ? '' : 'only '}to ${who}${place}`;
}

/** What a test met: what is known of the visitor, the item or the request about its fact. */
export function describeMet(test: Test, scene: Scene, vocabulary: Vocabulary): string {
  const { visitor, item, request } = scene;
  if (test.fact === 'signed in') return visitor.signedIn ? 'signed in' : 'not signed in';
  const { of, read, values, absent } = factNamed(test.fact);
  const met = read(test.subject ?? '', vocabulary)(visitor, item, request);
  if (met === null) {
    if (of === 'visitor' && !visitor.signedIn) return 'not known (not signed in)';
    return absent;
  }
  if (typeof met === 'boolean') return met ? 'yes' : 'no';
  if (typeof met === 'number') return test.fact === 'time' ? timeInWords(met) : String(met);
  const known = typeof met === 'string' ? [met] : met;
  if (known.length === 0) return values === null ? 'none' : `no ${plural(values)}`;
  if (values === null) return listed(known.map((one) => (isDay(one) ? dayInWords(one) : one)));
  return listed(known.map((id) => nameOfId(vocabulary, values, id) ?? `a ${values} that no longer exists`));
}

export const timeInWords = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** What is known of a visitor on a day, in a few words: "Observer · Dome crew · Volunteer". */
export function describeFacts(
  standIn: StandIn,
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
  day: Day,
): string {
  if (standIn.kind === 'guest') return 'not signed in';
  const level = levelAt(visitor, day, vocabulary.levels);
  const parts = [
    level && nameOfId(vocabulary, 'level', level),
    ...(groupsAt(visitor, day) ?? []).map((id) => nameOfId(vocabulary, 'group', id)),
    ...(rolesAt(visitor, day) ?? []).map((id) => nameOfId(vocabulary, 'role', id)),
  ].filter((name) => name !== null);
  return parts.length === 0 ? 'no level, group or role' : parts.join(' · ');
}

/** Something to buy that would open an item: "buy Observer pass (12.00 € a month)". */
export const describeBuying = ({ product, price }: BuyingWay, vocabulary: Vocabulary): string =>
  `buy ${nameOfId(vocabulary, 'product', product)} (${priceInWords(price)})`;

/** One set of changes that would open an item to a visitor: "join Dome crew and leave Suspended". */
export function describeChanges(
  changes: readonly Change[],
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): string {
  // Whatever a guest is to become, they have to sign in for it; a passphrase can be learnt by anybody.
  const asGuest = changes.every((change) => change.kind === 'make' && change.test.fact === 'passphrase');
  const first: Change[] =
    visitor.signedIn || changes[0]?.kind === 'sign in' || asGuest ? [] : [{ kind: 'sign in' }];
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
            : `reach ${nameOfId(vocabulary, 'level', change.level)} level`;
        case 'make':
          return imperativeOf(change.test, vocabulary, change.holds);
        default:
          return change satisfies never;
      }
    }),
  );
}
