/**
 * Explaining a decision: the same rules as deciding, walked without shortcuts and with everything written down.
 * The tests hold it against `decide`.
 */
import { TRUE, type Trace, trace } from '../condition';
import type { Gate } from '../gate';
import type { ItemId } from '../ids';
import { type Item, isShared, KINDS, placeOf, type RequestFacts, type VisitorFacts } from '../site';
import { type CompiledPolicy, hurdlesOf, restsOn } from './compile';
import { type Decision, open, type TurnedAway } from './decision';
import { asksAboutItem } from './places';
import { fittedFor, noSuchItem, shutAt, turnedAwayBy, unpublishedAt } from './turn-away-at';

/** How a gate stood to a visitor: it let them by, spoke, would have spoken had one above not, or was set aside. */
export type Verdict = 'passed' | 'spoke' | 'would speak' | 'set aside';

/** One step of an explanation. */
export type Step =
  | { readonly kind: 'unpublished'; readonly at: Item; readonly verdict: 'spoke' | 'would speak' }
  /** A shared section of itself: whether something that it stands on is open. */
  | { readonly kind: 'hosts'; readonly at: Item; readonly verdict: 'passed' | 'spoke' | 'would speak' }
  | {
      readonly kind: 'gate';
      /** Where the gate stands: over the item itself, over a container of it, or over its target. */
      readonly at: Item;
      readonly gate: Gate;
      readonly verdict: Verdict;
      readonly trace: Trace;
    };

/** A decision with every gate that had a say, in the order in which they speak. */
export interface Explanation {
  readonly decision: Decision;
  readonly steps: readonly Step[];
}

/** The same answer as {@link decide}, with the whole trace. */
export function explain(
  compiled: CompiledPolicy,
  id: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
): Explanation {
  const { outline, vocabulary, covering, policy, places } = compiled;
  const place = placeOf(id);
  const item = outline.items.get(place ? place.section : id);
  const host = place ? outline.items.get(place.host) : undefined;
  if (!item || (place && (!host || places.at(id) === null))) return { decision: noSuchItem, steps: [] };
  const steps: Step[] = [];
  let decision: Decision = open;
  const speak = (away: TurnedAway): 'spoke' | 'would speak' => {
    if (decision !== open) return 'would speak';
    decision = away;
    return 'spoke';
  };
  const publishedAt = (at: Item): void => {
    if (!at.published)
      steps.push({ kind: 'unpublished', at, verdict: speak(unpublishedAt(at.id, item.kind)) });
  };
  /** The gates over an item; `about` is what they ask for. */
  const gatesOver = (at: Item, about: Item, asked: (gate: Gate) => boolean): void => {
    for (const { gate, setAside } of covering.get(at.id) ?? []) {
      if (!asked(gate)) continue;
      const result = trace(gate.who, { visitor, item: about, request }, vocabulary);
      const verdict = verdictOf(gate, at, about, setAside, result);
      steps.push({ kind: 'gate', at, gate, trace: result, verdict });
    }
  };
  const visit = (at: Item): void => {
    publishedAt(at);
    const above = () => {
      for (const other of restsOn(outline, at)) visit(other);
    };
    if (KINDS[at.kind].afterAbove) above();
    if (isShared(at)) {
      // What asks about the host has to be asked there.
      gatesOver(at, at, (gate) => !asksAboutItem(gate, vocabulary));
      const somewhere = hurdlesOf(compiled, at.id)?.at(-1);
      const passes = somewhere?.passes(visitor, at, request) ?? false;
      steps.push({ kind: 'hosts', at, verdict: passes ? 'passed' : speak(shutAt(at.id, item.kind)) });
    } else gatesOver(at, at, () => true);
    if (!KINDS[at.kind].afterAbove) above();
  };
  const verdictOf = (gate: Gate, at: Item, about: Item, setAside: boolean, result: Trace): Verdict => {
    if (setAside) return 'set aside';
    if (result.truth === TRUE) return 'passed';
    const chosen = gate.otherwise.cases.find(
      (entry) => trace(entry.when, { visitor, item: about, request }, vocabulary).truth === TRUE,
    );
    const given = chosen?.give ?? gate.otherwise.last;
    return speak(turnedAwayBy(gate, fittedFor(gate, given, item.kind, policy.turnAways, vocabulary), at.id));
  };
  if (host) {
    publishedAt(item);
    gatesOver(item, host, () => true);
    visit(host);
  } else visit(item);
  return { decision, steps };
}
