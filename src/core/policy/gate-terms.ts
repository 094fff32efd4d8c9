/**
 * What a gate says to visitors of items of a kind, made so that two can be compared: who passes, and what each of those
 * who don't gets. Gates of two policies that say the same are the same here, whatever they are called and cover.
 */
import { type Aspect, aspectOf, type Condition, keyOf } from '../condition';
import { expanded } from '../condition/audience';
import type { Gate } from '../gate';
import type { Item, ItemKind, Vocabulary } from '../site';
import type { CompiledPolicy } from './compile';
import { type Fitted, fittedFor, unpublishedAt } from './turn-away-at';

/** What those get for whom a case is the first that holds. */
export interface Answered {
  /** Null for the last case, which needs no condition. */
  readonly when: Condition | null;
  readonly give: Fitted;
  /** The same for answers in which a visitor would notice no difference. */
  readonly key: string;
}

export interface GateTerms {
  readonly who: Condition;
  readonly answers: readonly Answered[];
  /** What it depends on of the item that the gate asks about; the same text where it depends on nothing. */
  readonly aspect: Aspect;
  /** The same for speeches in which nobody would notice a difference. */
  readonly number: number;
}

/** Numbers texts: equal ones get the same. */
export type Numbering = (text: string) => number;

export function numbering(): Numbering {
  const numbers = new Map<string, number>();
  return (text) => {
    const number = numbers.get(text) ?? numbers.size;
    numbers.set(text, number);
    return number;
  };
}

/** Answers what gates of a policy say; each is worked out once. Those to be compared share a numbering. */
export function termsIn(
  { policy, vocabulary }: CompiledPolicy,
  numberOf: Numbering,
): (gate: Gate, kind: ItemKind) => GateTerms {
  const made = new Map<Gate, Map<ItemKind, GateTerms>>();
  return (gate, kind) => {
    const kinds = made.get(gate) ?? new Map<ItemKind, GateTerms>();
    made.set(gate, kinds);
    const terms = kinds.get(kind) ?? termsOf(gate, kind, policy.turnAways, vocabulary, numberOf);
    kinds.set(kind, terms);
    return terms;
  };
}

const NOTHING: Aspect = () => '';

function termsOf(
  gate: Gate,
  kind: ItemKind,
  named: CompiledPolicy['policy']['turnAways'],
  vocabulary: Vocabulary,
  numberOf: Numbering,
): GateTerms {
  const plain = (condition: Condition) => expanded(condition, vocabulary.audiences);
  const answer = (when: Condition | null, given: Gate['otherwise']['last']): Answered => {
    const give = fittedFor(gate, given, kind, named, vocabulary);
    return { when, give, key: inOrder(give) };
  };
  const who = plain(gate.who);
  const answers = [
    ...gate.otherwise.cases.map(({ when, give }) => answer(plain(when), give)),
    answer(null, gate.otherwise.last),
  ];
  const conditions = [who, ...answers.flatMap(({ when }) => (when ? [when] : []))];
  return {
    who,
    answers,
    aspect: aspectOf(conditions, vocabulary) ?? NOTHING,
    number: numberOf(
      JSON.stringify([keyOf(who), answers.map(({ when, key }) => [when && keyOf(when), key])]),
    ),
  };
}

/** What everybody gets of an item of a kind that is not published, as gates' answers have it. */
export function unpublishedKey(item: Item): string {
  const { turnAway, reason } = unpublishedAt(item.id, item.kind);
  return inOrder({ turnAway, reason });
}

/** A value as text in which the order of its fields makes no difference. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
