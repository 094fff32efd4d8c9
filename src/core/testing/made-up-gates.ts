/** Gates that are made up over Larkfell, and what is found of them. */
import { analyse } from '../analysis/analyse';
import { nothingFollows } from '../analysis/axioms';
import type { Finding } from '../analysis/finding';
import type { Condition } from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId } from '../ids';
import { compile, type Policy } from '../policy';
import { gates, id, outline, policy, request, vocabulary } from './larkfell';

export const gate = (name: string, who: Condition, item: string, more: Partial<Gate> = {}): Gate => ({
  ...gates.crew,
  id: asId<GateId>(name),
  what: { targets: [{ kind: 'branch', item: id(item) }], except: [] },
  who,
  ...more,
});
/** Nothing but these gates. */
export const compiled = (...list: readonly Gate[]) =>
  compile({ ...policy, audiences: [], gates: list } satisfies Policy, outline, vocabulary);

export const found = (...list: readonly Gate[]): readonly Finding[] =>
  analyse(compiled(...list), request.today, nothingFollows, new Set()).findings;
/** The kinds of what is found, each with the gate that it is about. */
export const kinds = (...list: readonly Gate[]) => found(...list).map((one) => `${one.gate}: ${one.kind}`);
