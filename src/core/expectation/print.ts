/** Expectations as text. What is printed reads back to the same. */
import type { Condition } from '../condition';
import { type Target, TURN_AWAYS } from '../gate';
import type { ItemId } from '../ids';
import { type ItemKind, KINDS, type Outline, pathOf, type Vocabulary } from '../site';
import { type Calling, printCondition } from '../text/print';
import { quoted } from '../text/quote';
import type { Claim } from './expectation';
import { type Expected, itemsCalled, type Nameable } from './parse';

/** The text of an expectation. Items whose title another one bears are printed by their address, or by their id. */
export function printExpectation(
  { who, claim, what }: Expected,
  { vocabulary, outline }: Nameable,
  calling: Calling = 'by name',
): string {
  const list = (targets: readonly Target[]) =>
    targets.map((one) => printTarget(one, outline, vocabulary, calling)).join(', ');
  const condition = printCondition(who, vocabulary, calling);
  const whom = /^(\w+|not signed in|signed in)$/.test(condition) ? condition : `(${condition})`;
  return [
    claim.kind === 'only opens' ? `only ${whom}` : whom,
    printClaim(claim),
    list(what.targets),
    what.except.length === 0 ? '' : `except ${list(what.except)}`,
  ]
    .filter((part) => part !== '')
    .join(' ');
}

const printClaim = (claim: Claim): string =>
  claim.kind === 'gets'
    ? `gets ${TURN_AWAYS[claim.outcome].outcome} at`
    : claim.kind === 'only opens'
      ? 'opens'
      : claim.kind;

function printTarget(target: Target, outline: Outline, vocabulary: Vocabulary, calling: Calling): string {
  if (target.kind === 'selection') {
    const short = ofKind(target.where);
    return short ?? `items where (${printCondition(target.where, vocabulary, calling)})`;
  }
  const named = printItem(target.item, outline, calling);
  return target.kind === 'branch' ? `branch ${named}` : named;
}

function printItem(id: ItemId, outline: Outline, calling: Calling): string {
  const item = calling === 'by id' ? undefined : outline.items.get(id);
  if (!item) return `id ${quoted(id)}`;
  const names = [item.title, pathOf(item)].filter((name): name is string => name !== null && name !== '');
  const name = names.find((one) => {
    const [first, ...others] = itemsCalled(one, outline);
    return first?.id === id && others.length === 0;
  });
  return name === undefined ? `id ${quoted(id)}` : quoted(name);
}

/** "posts", "posts in category "Night logs"": what is described so is said so. */
function ofKind(where: Condition): string | null {
  const kindOf = (one: Condition | undefined): ItemKind | null =>
    one?.kind === 'test' && one.fact === 'item kind' && one.op === 'is' && String(one.value) in KINDS
      ? (String(one.value) as ItemKind)
      : null;
  const kind = kindOf(where);
  if (kind !== null) return KINDS[kind].many;
  if (where.kind !== 'all' || where.of.length !== 2) return null;
  const [first, second] = where.of;
  const of = kindOf(first);
  return of !== null &&
    second?.kind === 'test' &&
    second.fact === 'item category' &&
    second.op === 'is' &&
    typeof second.value === 'string'
    ? `${KINDS[of].many} in category ${quoted(second.value)}`
    : null;
}
