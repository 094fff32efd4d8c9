/** Findings: what is certain of a policy and was hardly meant. */
import type { Condition } from '../condition';
import type { AudienceId, GateId, ItemId, ProductId } from '../ids';
import { keysOf } from '../keys';
import type { Policy } from '../policy';
import type { Day, NameKind, RequestFacts, VisitorFacts } from '../site';

/** Somebody made up, who shows a claim. */
export interface Witness {
  readonly visitor: VisitorFacts;
  readonly request: RequestFacts;
}

/** What each kind of finding says, besides the gate that it is about. */
interface Shapes {
  'nobody passes': object;
  /** Nobody can pass both: what both are over is closed to everybody. */
  contradiction: { readonly other: GateId; readonly items: readonly ItemId[] };
  /** Somebody whom a gate sends on, and who arrives at a closed door, comes round in a circle, or is sent on too often. */
  'led astray': {
    readonly from: ItemId;
    readonly at: ItemId;
    readonly how: 'closed' | 'circle' | 'long';
    readonly witness: Witness;
  };
  /** The next step that somebody is offered is a page that they can't open. */
  'step to a closed door': { readonly from: ItemId; readonly to: ItemId; readonly witness: Witness };
  /** Something that a gate asks for is no longer there, so that it is unknown of everybody. */
  'names what is gone': { readonly names: readonly string[] };
  /** A link is hidden from somebody who can open the page that it leads to. */
  'hidden link': { readonly link: ItemId; readonly page: ItemId; readonly witness: Witness };
  /** It sets gates aside for somebody whom every one of them would turn away. */
  'opened by instead': { readonly item: ItemId; readonly witness: Witness };
  /** What a gate leaves out by a branch or a description is open to somebody whom it would turn away. */
  'left open': { readonly items: readonly ItemId[]; readonly witness: Witness };
  /** Whoever passes could have made up what they pass by. */
  'made up': object;
  /** Those at a higher level are turned away. */
  'exact level': { readonly item: ItemId; readonly witness: Witness };
  /** Nobody passes it any more once a day is over. */
  'closes for good': { readonly after: Day };
  /** Nobody passes it today, and somebody will. */
  'opens by itself': { readonly witness: Witness };
  /** A member who can open nothing at all. */
  'gets nothing': { readonly witness: Witness };
  /** Somebody could pass it, and nobody there is does. */
  'nobody passes today': object;
  /** A role, a group or a level that it asks for, in which there is nobody. */
  'asks for the empty': { readonly of: { readonly kind: NameKind; readonly id: string } };
  /** Whoever it turns away is turned away anyway. */
  'changes nothing': object;
  /** Later gates that say *instead* leave nothing to it. */
  'set aside': object;
  'case never reached': { readonly index: number };
  /** The same visitors pass with less said. */
  'can be simpler': { readonly who: Condition };
  'audiences unused': { readonly audiences: readonly AudienceId[] };
  'audiences alike': { readonly audience: AudienceId; readonly other: AudienceId };
  /** Two names that are easily taken for one another, one of which is asked for nowhere. */
  'names alike': {
    readonly unused: { readonly kind: NameKind; readonly id: string };
    readonly like: { readonly kind: NameKind; readonly id: string };
  };
  /** Whoever buys it opens nothing with it. */
  'product opens nothing': { readonly product: ProductId };
  /** A gate asks for a product that is not on sale. */
  'asks for what is not sold': { readonly product: ProductId };
  /** Activities that wait for one another, or for what can't be done. */
  'never completed': {
    readonly course: ItemId;
    readonly items: readonly ItemId[];
    readonly gates: readonly GateId[];
  };
  /** Somebody enrolled to whom an activity never opens that the next one asks for. */
  'never past': {
    readonly course: ItemId;
    readonly item: ItemId;
    readonly next: ItemId;
    readonly witness: Witness;
    readonly gates: readonly GateId[];
  };
  'not decided': { readonly why: string };
}

export type FindingKind = keyof Shapes;
/** What was found, and about which gate; null where it is about something else. */
export type Finding = {
  [K in FindingKind]: { readonly kind: K; readonly gate: GateId | null } & Shapes[K];
}[FindingKind];

/** How much a finding weighs. */
export type Weight = 'wrong' | 'risk' | 'idle' | 'open';

/** The kinds there are, those that weigh most first. */
const WEIGHTS = {
  'nobody passes': 'wrong',
  contradiction: 'wrong',
  'led astray': 'wrong',
  'step to a closed door': 'wrong',
  'names what is gone': 'wrong',
  'never completed': 'wrong',
  'hidden link': 'risk',
  'opened by instead': 'risk',
  'left open': 'risk',
  'made up': 'risk',
  'exact level': 'risk',
  'closes for good': 'risk',
  'opens by itself': 'risk',
  'gets nothing': 'risk',
  'never past': 'risk',
  'product opens nothing': 'risk',
  'asks for what is not sold': 'risk',
  'nobody passes today': 'idle',
  'asks for the empty': 'idle',
  'changes nothing': 'idle',
  'set aside': 'idle',
  'case never reached': 'idle',
  'can be simpler': 'idle',
  'audiences unused': 'idle',
  'audiences alike': 'idle',
  'names alike': 'idle',
  'not decided': 'open',
} as const satisfies Record<FindingKind, Weight>;

export const FINDING_KINDS = keysOf(WEIGHTS);
export const weightOf = ({ kind }: Pick<Finding, 'kind'>): Weight => WEIGHTS[kind];

/** A text that is the same for the same finding, whoever shows it: "contradiction crew school". */
export function keyOfFinding(finding: Finding): string {
  const { gate, kind } = finding;
  const rest: readonly unknown[] = (() => {
    switch (finding.kind) {
      case 'contradiction':
        return [finding.other];
      case 'led astray':
        return finding.how === 'long' ? [finding.at, finding.how] : [finding.at];
      case 'step to a closed door':
        return [finding.to];
      case 'hidden link':
        return [finding.link];
      case 'opened by instead':
      case 'exact level':
      case 'never past':
        return [finding.item];
      case 'never completed':
        return [finding.course];
      case 'case never reached':
        return [finding.index];
      case 'audiences alike':
        return [finding.audience, finding.other];
      case 'names alike':
        return [finding.unused.id, finding.like.id];
      case 'asks for the empty':
        return [finding.of.id];
      case 'product opens nothing':
      case 'asks for what is not sold':
        return [finding.product];
      case 'nobody passes':
      case 'left open':
      case 'names what is gone':
      case 'made up':
      case 'closes for good':
      case 'opens by itself':
      case 'gets nothing':
      case 'nobody passes today':
      case 'changes nothing':
      case 'set aside':
      case 'can be simpler':
      case 'audiences unused':
      case 'not decided':
        return [];
      default:
        return finding satisfies never;
    }
  })();
  return [kind, gate ?? '', ...rest].join('|');
}

/** Of so many items it is kept which they are, and of more how many. */
const MOST_ITEMS = 1000;

/** What a finding is about: while that is the same, what was said of the finding stands. */
export function aboutOf(finding: Finding, { gates, audiences }: Policy): readonly unknown[] {
  const others = new Set<string>([
    ...(finding.gate === null ? [] : [finding.gate]),
    ...('other' in finding ? [finding.other] : []),
    ...('gates' in finding ? finding.gates : []),
    ...('audience' in finding ? [finding.audience] : []),
    ...('audiences' in finding ? finding.audiences : []),
  ]);
  return [
    ...[...gates, ...audiences].filter(({ id }) => others.has(id)),
    // What comes to what was looked at has not been looked at.
    ...(finding.kind === 'left open'
      ? [{ items: finding.items.slice(0, MOST_ITEMS), of: finding.items.length }]
      : []),
  ];
}
