/**
 * Explaining a decision: the same rules as deciding, walked without shortcuts and with everything written down.
 * The tests hold it against `decide`.
 */
import { TRUE, type Trace, trace } from '../condition';
import type { Gate } from '../gate';
import type { ItemId } from '../ids';
import type { Item, RequestFacts, VisitorFacts } from '../site';
import { type CompiledPolicy, restsOn } from './compile';
import { type Decision, open, type TurnedAway } from './decision';
import { fittedFor, noSuchItem, turnedAwayBy, unpublishedAt } from './turn-away-at';

/** How a gate stood to a visitor: it let them by, spoke, would have spoken had one above not, or was set aside. */
export type Verdict = 'passed' | 'spoke' | 'would speak' | 'set aside';

/** One step of an explanation. */
export type Step =
  | { readonly kind: 'unpublished'; readonly at: Item; readonly verdict: 'spoke' | 'would speak' }
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
  const { outline, vocabulary, covering, policy } = compiled;
  const item = outline.items.get(id);
  if (!item) return { decision: noSuchItem, steps: [] };
  const steps: Step[] = [];
  let decision: Decision = open;
  const speak = (away: TurnedAway): 'spoke' | 'would speak' => {
    if (decision !== open) return 'would speak';
    decision = away;
    return 'spoke';
  };
  const visit = (at: Item): void => {
    if (!at.published) {
      steps.push({ kind: 'unpublished', at, verdict: speak(unpublishedAt(at.id, item.kind)) });
    }
    for (const { gate, setAside } of covering.get(at.id) ?? []) {
      const result = trace(gate.who, { visitor, item: at, request }, vocabulary);
      steps.push({ kind: 'gate', at, gate, trace: result, verdict: verdictOf(gate, at, setAside, result) });
    }
    for (const other of restsOn(outline, at)) visit(other);
  };
  const verdictOf = (gate: Gate, at: Item, setAside: boolean, result: Trace): Verdict => {
    if (setAside) return 'set aside';
    if (result.truth === TRUE) return 'passed';
    const chosen = gate.otherwise.cases.find(
      (entry) => trace(entry.when, { visitor, item: at, request }, vocabulary).truth === TRUE,
    );
    const given = chosen?.give ?? gate.otherwise.last;
    return speak(turnedAwayBy(gate, fittedFor(gate, given, item.kind, policy.turnAways, vocabulary), at.id));
  };
  visit(item);
  return { decision, steps };
}
