/** What a policy says of some items, said of copies of them as well. */
import { type Condition, factNamed, fold, type Test, type TestValue } from '../condition';
import type { Gate, Given, NextStep, Target, What } from '../gate';
import type { GateId, GroupId, ItemId } from '../ids';

/** The copies of some items, and the group that takes another's place at them. */
export interface Copy {
  readonly items: ReadonlyMap<ItemId, ItemId>;
  readonly groups: ReadonlyMap<GroupId, GroupId>;
}

const itemIn = ({ items }: Copy, id: ItemId): ItemId => items.get(id) ?? id;
const groupIn = ({ groups }: Copy, id: GroupId): GroupId => groups.get(id) ?? id;

/** A condition as it is asked at a copy. */
export const copiedCondition = (condition: Condition, copy: Copy): Condition =>
  fold<Condition>(condition, {
    group: (of, { kind }) => ({ kind, of }),
    not: (of) => ({ kind: 'not', of }),
    audience: (use) => use,
    test: (test) => copiedTest(test, copy),
  });

function copiedTest(test: Test, copy: Copy): Test {
  const { subject, values } = factNamed(test.fact);
  const named = (kind: string | null, id: string): string => {
    if (kind === 'group') return groupIn(copy, id as GroupId);
    return kind === 'course' || kind === 'unit' || kind === 'activity' ? itemIn(copy, id as ItemId) : id;
  };
  const value = (one: TestValue): TestValue => {
    if (typeof one === 'string') return named(values, one);
    return Array.isArray(one) && one.every((each) => typeof each === 'string')
      ? one.map((each) => named(values, each))
      : one;
  };
  return {
    ...test,
    ...(test.subject !== undefined && { subject: named(subject, test.subject) }),
    ...(test.value !== undefined && { value: value(test.value) }),
  };
}

const copiedTarget = (target: Target, copy: Copy): Target =>
  target.kind === 'selection'
    ? { ...target, where: copiedCondition(target.where, copy) }
    : { ...target, item: itemIn(copy, target.item) };

function copiedNext(next: NextStep, copy: Copy): NextStep {
  if (next.kind === 'item') return { ...next, item: itemIn(copy, next.item) };
  return next.kind === 'follow' ? { ...next, group: groupIn(copy, next.group) } : next;
}

function copiedGiven(given: Given, copy: Copy): Given {
  if (given.kind === 'redirect')
    return given.to.kind === 'item'
      ? { ...given, to: { ...given.to, item: itemIn(copy, given.to.item) } }
      : given;
  return 'next' in given ? { ...given, next: copiedNext(given.next, copy) } : given;
}

/** A gate as it stands over a copy. */
export const copiedGate = (gate: Gate, copy: Copy, id: GateId): Gate => ({
  ...gate,
  id,
  what: {
    targets: gate.what.targets.map((one) => copiedTarget(one, copy)),
    except: gate.what.except.map((one) => copiedTarget(one, copy)),
  },
  who: copiedCondition(gate.who, copy),
  otherwise: {
    cases: gate.otherwise.cases.map(({ when, give }) => ({
      when: copiedCondition(when, copy),
      give: copiedGiven(give, copy),
    })),
    last: copiedGiven(gate.otherwise.last, copy),
  },
});

/** What points at items of which there are copies points at those as well: it covers them, or leaves them out. */
export function pointingAtCopies(what: What, copies: readonly Copy[]): What {
  const also = (targets: readonly Target[]): readonly Target[] => [
    ...targets,
    ...copies.flatMap(({ items }) =>
      targets.flatMap((target): readonly Target[] => {
        const item = target.kind === 'selection' ? undefined : items.get(target.item);
        return item === undefined || target.kind === 'selection' ? [] : [{ ...target, item }];
      }),
    ),
  ];
  const targets = also(what.targets);
  const except = also(what.except);
  return targets.length === what.targets.length && except.length === what.except.length
    ? what
    : { targets, except };
}
