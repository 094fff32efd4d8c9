/** Gates and turn-aways as plain language. A gate reads as one sentence in three parts, as it stands on three legs. */
import type { Gate, NextStep, Otherwise, Target, TurnAway, What } from '../gate';
import type { ItemId } from '../ids';
import type { Outline, Vocabulary } from '../site';
import { describeWho } from './who';
import { capital, listed } from './words';

/** A gate's three legs, each a phrase. */
export interface GateSentence {
  readonly what: string;
  readonly who: string;
  readonly otherwise: string;
}

/** The three parts of a gate's sentence. */
export const describeGate = (gate: Gate, outline: Outline, vocabulary: Vocabulary): GateSentence => ({
  what: describeWhat(gate.what, outline),
  who: describeWho(gate.who, vocabulary),
  otherwise: describeOtherwise(gate.otherwise, outline, vocabulary),
});

/** What a gate covers: "Observers' room and everything below it, except A sample chart". */
export function describeWhat(what: What, outline: Outline): string {
  if (what.targets.length === 0) return 'nothing yet';
  const targets = listed(what.targets.map((target) => describeTarget(target, outline)));
  if (what.except.length === 0) return targets;
  return `${targets}, except ${listed(what.except.map((target) => describeTarget(target, outline)))}`;
}

function describeTarget(target: Target, outline: Outline): string {
  if (target.kind === 'branch' && target.item === outline.root) return 'the whole site';
  const title = titleOf(target.item, outline);
  return target.kind === 'branch' ? `${title} and everything below it` : title;
}

const titleOf = (id: ItemId, outline: Outline): string =>
  outline.items.get(id)?.title ?? 'an item that no longer exists';

/** What everyone else gets: "guests are sent to sign in and back; everyone else gets a teaser". */
function describeOtherwise(otherwise: Otherwise, outline: Outline, vocabulary: Vocabulary): string {
  const cases = otherwise.cases.map((entry) => {
    return `${describeWho(entry.when, vocabulary)} ${describeTurnAway(entry.give, outline, 'many')}`;
  });
  return [...cases, `everyone else ${describeTurnAway(otherwise.last, outline, 'one')}`].join('; ');
}

/** What happens to those turned away, as a phrase that follows a subject of that number. */
export function describeTurnAway(turnAway: TurnAway, outline: Outline, number: 'one' | 'many'): string {
  const [gets, is, finds] = number === 'one' ? ['gets', 'is', 'finds'] : ['get', 'are', 'find'];
  switch (turnAway.kind) {
    case 'teaser':
      return `${gets} a teaser${offering(turnAway.next, outline)}`;
    case 'redirect':
      if (turnAway.to.kind === 'sign in') return `${is} sent to sign in and back`;
      if (turnAway.to.kind === 'passphrase') return `${is} asked for a passphrase`;
      return `${is} sent to ${titleOf(turnAway.to.item, outline)}`;
    case 'message':
      return `${gets} a message${offering(turnAway.next, outline)}`;
    case 'missing':
      return `${finds} nothing there`;
    case 'leave out':
      return `${is} not shown it`;
    default:
      return turnAway satisfies never;
  }
}

function offering(next: NextStep, outline: Outline): string {
  switch (next.kind) {
    case 'none':
      return '';
    case 'sign in':
      return ' with the way to sign in';
    case 'passphrase':
      return ' with the way to type a passphrase';
    case 'item':
      return ` with the way to ${titleOf(next.item, outline)}`;
    default:
      return next satisfies never;
  }
}

/** The whole gate as one sentence, for places that have room for one line. */
export function gateAsOneSentence(gate: Gate, outline: Outline, vocabulary: Vocabulary): string {
  const { what, who, otherwise } = describeGate(gate, outline, vocabulary);
  return `${capital(what)} · ${who} · ${otherwise}`;
}
