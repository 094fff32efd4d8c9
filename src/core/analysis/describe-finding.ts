/** What was found, in a sentence or two. */

import { capital, counted, listed } from '../english';
import type { Gate } from '../gate';
import type { GateId, ItemId } from '../ids';
import type { CompiledPolicy } from '../policy';
import { describeGate } from '../sentence/gate';
import { describeWho } from '../sentence/who';
import { describeWitness } from '../sentence/witness';
import { type Day, dayInWords, nameInContext, nameOfId } from '../site';
import type { Finding } from './finding';

/** A finding about a policy, told to administrators. */
export function describeFinding(finding: Finding, compiled: CompiledPolicy, today: Day): string {
  const { outline, vocabulary, policy } = compiled;
  const title = (id: ItemId) => {
    const item = outline.items.get(id);
    return item ? `“${nameInContext(item, outline)}”` : 'something that is gone';
  };
  const gateSaid = (id: GateId) => {
    const gate = policy.gates.find((one) => one.id === id);
    return gate ? inShort(gate, compiled) : 'a gate that is gone';
  };
  const shown = () =>
    'witness' in finding
      ? capital(describeWitness(finding.witness.visitor, finding.witness.request, vocabulary, today))
      : '';
  const audience = (id: string) => `“${nameOfId(vocabulary, 'audience', id) ?? 'an audience that is gone'}”`;
  const product = (id: string) => `“${nameOfId(vocabulary, 'product', id) ?? 'a product that is gone'}”`;
  switch (finding.kind) {
    case 'nobody passes':
      return 'Nobody there could be passes this gate, on any day to come.';
    case 'contradiction': {
      const items = finding.items.map(title);
      const over = items.length > 3 ? counted(items.length, 'item') : listed(items);
      return `Nobody can pass this gate and the one that says “${gateSaid(finding.other)}” as well, so ${over} can be opened by nobody.`;
    }
    case 'led astray':
      if (finding.how === 'long')
        return `${shown()} is sent on from ${title(finding.from)} more than twice before they arrive at ${title(finding.at)}.`;
      return finding.how === 'circle'
        ? `${shown()} is sent on from ${title(finding.from)} and comes round to ${title(finding.at)} again, without end.`
        : `${shown()} is sent on from ${title(finding.from)} and arrives at ${title(finding.at)}, which is closed to them.`;
    case 'step to a closed door':
      return `${shown()} is offered ${title(finding.to)} as the next step at ${title(finding.from)}, and can’t open it.`;
    case 'names what is gone':
      return finding.names.join(' ');
    case 'hidden link':
      return `${shown()} can open ${title(finding.page)} and doesn’t get the link ${title(finding.link)} to it.`;
    case 'opened by instead':
      return `${shown()} gets ${title(finding.item)}, though every gate that this one sets aside there would turn them away.`;
    case 'left open': {
      const items = finding.items.map(title);
      const those = items.length > 3 ? counted(items.length, 'item') : listed(items);
      return `${shown()} gets ${those}, which this gate leaves out by a branch or a description. Whatever comes there is open as well.`;
    }
    case 'made up':
      return 'Whoever passes could have made up what they pass by. It hides, and does not protect.';
    case 'exact level':
      return `${shown()} is turned away from ${title(finding.item)}: the gate asks for one level exactly, and they are above it.`;
    case 'closes for good':
      return `Once ${dayInWords(finding.after)} is over, nobody there could be passes this gate any more.`;
    case 'opens by itself':
      return `Nobody passes this gate today, and it opens by itself: ${describeWitness(finding.witness.visitor, finding.witness.request, vocabulary, today)} passes it.`;
    case 'gets nothing':
      return `${shown()} can open nothing at all.`;
    case 'nobody passes today':
      return 'Of those who are there today nobody passes this gate.';
    case 'asks for the empty':
      return `This gate asks for the ${finding.of.kind} “${nameOfId(vocabulary, finding.of.kind, finding.of.id) ?? 'that is gone'}”, in which there is nobody.`;
    case 'changes nothing':
      return 'Whoever this gate turns away is turned away by others anyway. Without it, the same items would be open to the same visitors.';
    case 'set aside':
      return 'Gates below it say “instead” over everything it covers, so it never speaks.';
    case 'case never reached':
      return `Nobody ever comes to case ${finding.index + 1} of what the rest get: they pass the gate, or a case before it is theirs.`;
    case 'can be simpler':
      return `The same visitors pass if it says only: ${describeWho(finding.who, vocabulary)}.`;
    case 'audiences unused':
      return `Nothing uses the ${finding.audiences.length === 1 ? 'audience' : 'audiences'} ${listed(finding.audiences.map(audience))}.`;
    case 'audiences alike':
      return `The audiences ${audience(finding.audience)} and ${audience(finding.other)} are true of the same visitors.`;
    case 'names alike': {
      const { unused, like } = finding;
      const named = ({ kind, id }: typeof unused) =>
        `the ${kind} “${nameOfId(vocabulary, kind, id) ?? 'that is gone'}”`;
      return `${capital(named(unused))} is easily taken for ${named(like)}, and nothing asks for it.`;
    }
    case 'product opens nothing':
      return `Whoever buys ${product(finding.product)} opens nothing with it.`;
    case 'asks for what is not sold':
      return `This gate asks for ${product(finding.product)}, which can’t be bought now.`;
    case 'never completed': {
      const items = finding.items.map(title);
      const those = items.length > 3 ? counted(items.length, 'activity', 'activities') : listed(items);
      return `Nobody can ever complete ${those} of ${title(finding.course)}: what has to be done before waits for it, or can’t be done.`;
    }
    case 'never past':
      return `Somebody enrolled in ${title(finding.course)} never gets past ${title(finding.item)}, which stays closed to them while ${title(finding.next)} asks for it: ${describeWitness(finding.witness.visitor, finding.witness.request, vocabulary, today)}.`;
    case 'not decided':
      return `What this gate comes to for everybody could not be worked out. ${finding.why}`;
    default:
      return finding satisfies never;
  }
}

/** A gate in half a sentence: what it is over, and for whom. */
export function inShort(gate: Gate, { outline, vocabulary, policy }: CompiledPolicy): string {
  const { what, who } = describeGate(gate, outline, vocabulary, policy.turnAways);
  return `${capital(what)} open to ${who}`;
}
