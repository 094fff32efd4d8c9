/** Areas that are made: what a policy says once they are there. */
import { any, type Condition, expanded, guests, inGroup, testsIn } from '../condition';
import type { Expectation } from '../expectation';
import { type Gate, pointedIn, redirectToSignIn } from '../gate';
import type { ExpectationId, GateId, GroupId, ItemId, LandingId } from '../ids';
import { type Area, areasIn } from './areas';
import { type Copy, copiedCondition, copiedGate, pointingAtCopies } from './copies';
import type { Landing, Policy } from './policy';

/** An area about to be made. */
export interface NewArea {
  readonly page: ItemId;
  readonly group: GroupId;
  /** The items that it begins as a copy of; none for one that begins empty. */
  readonly copy: ReadonlyMap<ItemId, ItemId>;
}

interface Making {
  readonly areas: readonly NewArea[];
  /** The page at the top of what they are copies of; null where they begin empty. */
  readonly source: ItemId | null;
  /** Who else may enter; null for nobody. */
  readonly also: Condition | null;
  /** Whether those who have one arrive there after signing in. */
  readonly lands: boolean;
  /** Makes an id that nothing has; the same for the same thing, so that draft and live have the same. */
  readonly newId: (of: string) => string;
}

/**
 * The policy with new areas. Whatever gates point at what is copied they point at in the copies as well. What asks for the
 * group of the area that is copied asks for the new one's there. The gates of the areas stand at the bottom, so nothing that
 * stood before sets them aside, and no exclusion of theirs is copied from elsewhere.
 */
export function withNewAreas(policy: Policy, making: Making): Policy {
  const { areas, source, also, lands } = making;
  const before = source === null ? undefined : areasIn(policy).find(({ page }) => page === source);
  const copies = areas.map(({ group, copy }): Copy => {
    const groups = new Map<GroupId, GroupId>(before ? [[before.group, group]] : []);
    return { items: copy, groups };
  });
  const own = before ? ownGates(policy, before, areas[0]?.copy ?? new Map()) : [];
  const made = areas.map((area, at) => {
    const copy = copies[at] as Copy;
    const id = <T>(of: string) => making.newId(`${area.page} ${of}`) as T;
    const gate = areaGate(area, before, also, copy, id<GateId>('gate'));
    const landing: Landing = {
      id: id<LandingId>('landing'),
      after: 'sign in',
      when: inGroup(area.group),
      to: area.page,
      always: false,
    };
    const expectation = onlyTheirs(gate, area.page, id<ExpectationId>('expectation'));
    return {
      gates: [gate, ...own.map((one) => copiedGate(one, copy, id<GateId>(`gate ${one.id}`)))],
      landing,
      expectation,
    };
  });
  const apart = new Set([...own, ...(before ? [before.gate] : [])].map((one) => one.id));
  return {
    ...policy,
    gates: [
      ...policy.gates.map((one) => {
        const what = apart.has(one.id) ? one.what : pointingAtCopies(one.what, copies);
        return what === one.what ? one : { ...one, what };
      }),
      ...made.flatMap((one) => one.gates),
    ],
    // The first rule that holds decides, and those who have an area are some of all.
    landings: [...(lands ? made.map(({ landing }) => landing) : []), ...policy.landings],
    expectations: [...policy.expectations, ...made.map(({ expectation }) => expectation)],
  };
}

/** That nobody opens a page, and what is beneath it, but those whom its gate lets by. */
export const onlyTheirs = ({ who }: Gate, page: ItemId, id: ExpectationId): Expectation => ({
  id,
  who,
  claim: { kind: 'only opens' },
  what: { targets: [{ kind: 'branch', item: page }], except: [] },
});

/** The gates within an area that are its own: they ask for its group, and cover nothing outside of it. */
function ownGates(
  { gates, audiences }: Policy,
  { gate, group }: Area,
  inside: ReadonlyMap<ItemId, ItemId>,
): readonly Gate[] {
  return gates.filter((one) => {
    if (one.id === gate.id || one.what.targets.length === 0) return false;
    const within = one.what.targets.every((target) => target.kind !== 'selection' && inside.has(target.item));
    return (
      within &&
      testsIn(expanded(one.who, audiences)).some(({ fact, value }) => fact === 'group' && value === group) &&
      pointedIn(one).every((item) => inside.has(item))
    );
  });
}

function areaGate(
  { page, group }: NewArea,
  before: Area | undefined,
  also: Condition | null,
  copy: Copy,
  id: GateId,
): Gate {
  const what: Gate['what'] = { targets: [{ kind: 'branch', item: page }], except: [] };
  if (before) {
    const gate = copiedGate(before.gate, copy, id);
    const who = also === null ? copiedCondition(before.gate.who, copy) : any(inGroup(group), also);
    // What the area that is copied leaves out is closed in a copy, until somebody says otherwise.
    return { ...gate, what, who };
  }
  return {
    id,
    what,
    who: also === null ? inGroup(group) : any(inGroup(group), also),
    otherwise: { cases: [{ when: guests, give: redirectToSignIn }], last: { kind: 'missing' } },
    stance: 'also',
  };
}
