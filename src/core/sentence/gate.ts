/** Gates and turn-aways as plain language. A gate reads as one sentence in three parts, as it stands on three legs. */

import { everyone } from '../condition';
import { capital, listed } from '../english';
import type { Gate, Given, NamedTurnAway, NextStep, Otherwise, Target, TurnAway, What } from '../gate';
import type { ItemId } from '../ids';
import { same } from '../same';
import { nameInContext, nameOfId, type Outline, type Vocabulary } from '../site';
import { plain } from './compose';
import { describeSelection } from './selection';
import { describeWho } from './who';

/** A gate's three legs, each a phrase. That it sets aside the gates above it is said with what it covers. */
export interface GateSentence {
  readonly what: string;
  readonly who: string;
  /** Null for a gate that turns nobody away. */
  readonly otherwise: string | null;
}

/** The three parts of a gate's sentence. */
export const describeGate = (
  gate: Gate,
  outline: Outline,
  vocabulary: Vocabulary,
  named: readonly NamedTurnAway[],
): GateSentence => ({
  what: `${describeWhat(gate.what, outline, vocabulary)}${gate.stance === 'instead' ? ', setting aside the gates above it' : ''}`,
  who: describeWho(gate.who, vocabulary),
  otherwise: same(plain(gate.who), everyone)
    ? null
    : describeOtherwise(gate.otherwise, outline, vocabulary, named),
});

/** What a gate covers: "Observers' room and everything below it, except A sample chart". */
export function describeWhat(what: What, outline: Outline, vocabulary: Vocabulary): string {
  if (what.targets.length === 0) return 'nothing yet';
  const targets = listed(what.targets.map((target) => describeTarget(target, outline, vocabulary)));
  if (what.except.length === 0) return targets;
  return `${targets}, except ${listed(what.except.map((target) => describeTarget(target, outline, vocabulary)))}`;
}

function describeTarget(target: Target, outline: Outline, vocabulary: Vocabulary): string {
  if (target.kind === 'selection') return describeSelection(target.where, vocabulary);
  if (target.kind === 'branch' && target.item === outline.root) return 'the whole site';
  const title = titleOf(target.item, outline);
  return target.kind === 'branch' ? `${title} and everything below it` : title;
}

const titleOf = (id: ItemId, outline: Outline): string => {
  const item = outline.items.get(id);
  return item ? nameInContext(item, outline) : 'an item that no longer exists';
};

/** What everyone else gets: "guests are sent to sign in and back; everyone else gets a teaser". */
function describeOtherwise(
  otherwise: Otherwise,
  outline: Outline,
  vocabulary: Vocabulary,
  named: readonly NamedTurnAway[],
): string {
  const given = (give: Given, number: 'one' | 'many') => {
    if (give.kind !== 'named') return describeTurnAway(give, outline, number, vocabulary);
    const name = named.find(({ id }) => id === give.turnAway)?.name;
    const gets = number === 'one' ? 'gets' : 'get';
    return name === undefined ? `${gets} nothing, by a turn-away that no longer exists` : `${gets} “${name}”`;
  };
  const cases = otherwise.cases.map((entry) => {
    const who = describeWho(entry.when, vocabulary);
    return `${who} ${given(entry.give, who === 'everyone' || who === 'nobody' ? 'one' : 'many')}`;
  });
  return [...cases, `everyone else ${given(otherwise.last, 'one')}`].join('; ');
}

/** What happens to those turned away, as a phrase that follows a subject of that number. */
export function describeTurnAway(
  turnAway: TurnAway,
  outline: Outline,
  number: 'one' | 'many',
  vocabulary: Vocabulary,
): string {
  const [gets, is, finds] = number === 'one' ? ['gets', 'is', 'finds'] : ['get', 'are', 'find'];
  switch (turnAway.kind) {
    case 'teaser':
      return `${gets} ${turnAway.preview ? 'a teaser with a blurred picture' : 'a teaser'}${offering(turnAway.next, outline, vocabulary)}`;
    case 'redirect':
      if (turnAway.to.kind === 'sign in') return `${is} sent to sign in and back`;
      if (turnAway.to.kind === 'passphrase') return `${is} asked for a passphrase`;
      if (turnAway.to.kind === 'outside') return `${is} sent to ${turnAway.to.url}`;
      return `${is} sent to ${titleOf(turnAway.to.item, outline)}`;
    case 'message':
      return `${gets} a message${offering(turnAway.next, outline, vocabulary)}`;
    case 'missing':
      return `${finds} nothing there`;
    case 'leave out':
      return `${is} not shown it${turnAway.keepSpace ? ', its space kept' : ''}`;
    case 'swap':
      return `${gets} something else in its place`;
    case 'locked':
      return `${finds} it locked${offering(turnAway.next, outline, vocabulary)}`;
    default:
      return turnAway satisfies never;
  }
}

function offering(next: NextStep, outline: Outline, vocabulary: Vocabulary): string {
  switch (next.kind) {
    case 'none':
      return '';
    case 'sign in':
      return ' with the way to sign in';
    case 'passphrase':
      return ' with the way to type a passphrase';
    case 'sign up':
      return ' with the way to sign up';
    case 'follow':
      return ` with the way into ${nameOfId(vocabulary, 'group', next.group) ?? 'a group that no longer exists'}`;
    case 'buy':
      return ` with the way to buy ${nameOfId(vocabulary, 'product', next.product) ?? 'a product that no longer exists'}`;
    case 'outside':
      return ` with the way to ${next.url}`;
    case 'item':
      return ` with the way to ${titleOf(next.item, outline)}`;
    default:
      return next satisfies never;
  }
}

/** The whole gate as one sentence, for places that have room for one line. */
export function gateAsOneSentence(
  gate: Gate,
  outline: Outline,
  vocabulary: Vocabulary,
  named: readonly NamedTurnAway[],
): string {
  const { what, who, otherwise } = describeGate(gate, outline, vocabulary, named);
  return [capital(what), who, ...(otherwise === null ? [] : [otherwise])].join(' · ');
}
