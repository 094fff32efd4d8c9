/**
 * Areas: what one client, class or chapter has. An area is nothing beside the policy. It is a page with all beneath it, under
 * a gate that opens it to one group: so whoever makes one by hand has made one, and a site file brings them along.
 */
import { type Condition, inGroup } from '../condition';
import type { Expectation } from '../expectation';
import type { Gate } from '../gate';
import type { GroupId, ItemId } from '../ids';
import { same } from '../same';
import { below, type Outline } from '../site';
import type { Landing, Policy } from './policy';

export interface Area {
  /** The page at its top. */
  readonly page: ItemId;
  /** Those who have it. */
  readonly group: GroupId;
  readonly gate: Gate;
  /** Where they arrive after signing in, if that is said. */
  readonly landing: Landing | null;
  /** That nobody else ever opens it, if that is expected. */
  readonly expectation: Expectation | null;
}

/** The areas of a policy, in the order of their gates. A group has one area, and a page one group. */
export function areasIn({ gates, landings, expectations }: Policy): readonly Area[] {
  const found: Area[] = [];
  const taken = new Set<string>();
  for (const gate of gates) {
    const page = branchOf(gate.what.targets);
    const group = groupOf(gate.who);
    if (page === null || group === null || taken.has(page) || taken.has(group)) continue;
    taken.add(page).add(group);
    found.push({
      page,
      group,
      gate,
      landing: landings.find(({ after, when }) => after === 'sign in' && same(when, inGroup(group))) ?? null,
      expectation:
        expectations.find(
          ({ claim, what, who }) =>
            claim.kind === 'only opens' && branchOf(what.targets) === page && same(who, gate.who),
        ) ?? null,
    });
  }
  return found;
}

/** The page of which a list of targets is the branch, and nothing else. */
function branchOf(targets: Gate['what']['targets']): ItemId | null {
  const [only, ...others] = targets;
  return only?.kind === 'branch' && others.length === 0 ? only.item : null;
}

/** The group that passes by itself: the one asked for, or the first of several ways in. */
function groupOf(who: Condition): GroupId | null {
  const parts = who.kind === 'any' ? who.of : [who];
  for (const part of parts)
    if (part.kind === 'test' && part.fact === 'group' && part.op === 'includes') return part.value as GroupId;
  return null;
}

/** A policy from which areas are gone: what leads to them or expects something of them, and the gates that cover nothing else. */
export function withoutAreas(policy: Policy, areas: readonly Area[], outline: Outline): Policy {
  const gone = new Set<ItemId>(areas.flatMap(({ page }) => below(outline, page).map(({ id }) => id)));
  const groups = new Set<GroupId>(areas.map(({ group }) => group));
  const stays = (what: Gate['what']): Gate['what'] | null => {
    const left = (targets: Gate['what']['targets']) =>
      targets.filter((target) => target.kind === 'selection' || !gone.has(target.item));
    const targets = left(what.targets);
    if (targets.length === 0 && what.targets.length > 0) return null;
    const except = left(what.except);
    return targets.length === what.targets.length && except.length === what.except.length
      ? what
      : { targets, except };
  };
  // A gate that new items start with stays, even over nothing.
  const begun = new Set<string>(policy.defaults.map(({ gate }) => gate));
  const gates = policy.gates.flatMap((gate): readonly Gate[] => {
    const what = stays(gate.what) ?? (begun.has(gate.id) ? { targets: [], except: [] } : null);
    return what === null ? [] : what === gate.what ? [gate] : [{ ...gate, what }];
  });
  return {
    ...policy,
    gates,
    landings: policy.landings.filter(
      ({ to, when }) => !gone.has(to) && ![...groups].some((group) => same(when, inGroup(group))),
    ),
    expectations: policy.expectations.flatMap((one) => {
      const what = stays(one.what);
      return what === null ? [] : what === one.what ? [one] : [{ ...one, what }];
    }),
  };
}
