/**
 * What a visitor gets where nothing is: what the gates over the site as a whole would give them for an item there that has
 * nothing of its own. So behind a gate that stands over everything, an address with an item and one without look alike.
 */
import { conditionCompiler, type Predicate } from '../condition';
import { casesIn, type Gate, selectorsOf, type Target } from '../gate';
import type { Address, Item, RequestFacts, VisitorFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { type Decision, open, type TurnedAway } from './decision';
import { fittedFor, turnedAwayBy } from './turn-away-at';

/** A gate that may stand over what is not there. */
interface Candidate {
  readonly gate: Gate;
  readonly covers: (item: Item) => boolean;
  readonly passes: Predicate;
  readonly cases: readonly Predicate[];
  /** What was decided before, by the kind of item and what is given: the same value the next time. */
  readonly decided: Map<string, TurnedAway>;
}

const known = new WeakMap<CompiledPolicy, readonly Candidate[]>();

function candidatesIn(compiled: CompiledPolicy): readonly Candidate[] {
  const { policy, outline, vocabulary } = compiled;
  const closures = conditionCompiler(vocabulary);
  const reaches = (target: Target, doubt: boolean): ((item: Item) => boolean) | null => {
    if (target.kind !== 'selection')
      return target.kind === 'branch' && target.item === outline.root ? () => true : null;
    const { closed, certain } = selectorsOf(target.where, vocabulary);
    return doubt ? closed : certain;
  };
  return policy.gates.flatMap((gate): Candidate[] => {
    const doubt = gate.stance === 'also';
    const of = (targets: readonly Target[], inDoubt: boolean) =>
      targets.flatMap((target) => reaches(target, inDoubt) ?? []);
    const [within, without] = [of(gate.what.targets, doubt), of(gate.what.except, !doubt)];
    if (within.length === 0) return [];
    const covers = (item: Item) => within.some((one) => one(item)) && !without.some((one) => one(item));
    const cases = casesIn(gate).map(closures);
    return [{ gate, covers, passes: closures(gate.who), cases, decided: new Map() }];
  });
}

/** The decision for a page or a file that is not there, at an address; null for what can't be one. */
export function decideNowhere(
  compiled: CompiledPolicy,
  kind: 'page' | 'file',
  address: Address | null,
  visitor: VisitorFacts,
  request: RequestFacts,
): Decision {
  const candidates = known.get(compiled) ?? candidatesIn(compiled);
  known.set(compiled, candidates);
  const item = nothingAt(compiled, kind, address);
  const over = candidates.filter(({ covers }) => covers(item));
  const from = over.findLastIndex(({ gate }) => gate.stance === 'instead');
  const speaks = over.slice(Math.max(0, from)).find(({ passes }) => !passes(visitor, item, request));
  if (!speaks) return open;
  const { gate, cases, decided } = speaks;
  const at = cases.findIndex((applies) => applies(visitor, item, request));
  const found = decided.get(`${kind} ${at}`);
  if (found) return found;
  const given = gate.otherwise.cases[at]?.give ?? gate.otherwise.last;
  const { policy, vocabulary } = compiled;
  const made = turnedAwayBy(gate, fittedFor(gate, given, kind, policy.turnAways, vocabulary), item.id);
  decided.set(`${kind} ${at}`, made);
  return made;
}

function nothingAt({ outline }: CompiledPolicy, kind: 'page' | 'file', address: Address | null): Item {
  const base = { id: '' as Item['id'], parent: outline.root, rank: 0, title: '', published: true };
  return kind === 'file'
    ? { ...base, kind, name: '', mediaType: 'application/octet-stream', size: 0 }
    : { ...base, kind, address: address ?? ('' as Address) };
}
