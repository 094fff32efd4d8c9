/** Whether a change of the policy stays within the branch that a gatekeeper is limited to. */
import {
  coverage,
  difference,
  type Gate,
  type Policy,
  type PolicyChange,
  vocabularyOf,
  WHOLE_SITE,
} from '@/core';
import type { SiteState } from '../running';
import { type Administrator, branchItems, branchName, NotAllowed, requirePermission } from '../running';

/**
 * Throws {@link NotAllowed} unless an administrator may change one policy into another. Whoever is limited to a branch may
 * change gates that point at items there, and nothing that reaches further: no audiences, no turn-aways with names, no
 * rules of the whole site, no gate that describes what it covers.
 */
export function requireGatePermission(
  administrator: Pick<Administrator, 'desk'>,
  { outline, names }: SiteState,
  before: Policy,
  after: Policy,
): void {
  requirePermission(administrator, 'gates');
  const { desk } = administrator;
  const reach = branchItems(desk, outline);
  if (reach === null) return;
  // A gate that new items start with stands over what is not there yet, and the whole site's over everything.
  const further = new Set([
    WHOLE_SITE,
    ...[before, after].flatMap((one) => one.defaults.map(({ gate }) => gate)),
  ]);
  // What is gone can't be shown to have been within the branch, and may come back.
  const within = (policy: Policy, gate: Gate): boolean =>
    !further.has(gate.id) &&
    gate.what.targets.every((target) => target.kind !== 'selection' && reach.has(target.item)) &&
    [...coverage(gate, outline, vocabularyOf(names, policy))].every((id) => reach.has(id));
  const allowed = (change: PolicyChange): boolean => {
    if (change.of !== 'gate') return false;
    return (
      (!('before' in change) || within(before, change.before)) &&
      (!('after' in change) || within(after, change.after))
    );
  };
  if (difference(before, after).every(allowed)) return;
  throw new NotAllowed(
    `Your right reaches gates that point at ${branchName(desk, outline)} and what is beneath it. Something that reaches further was changed as well.`,
  );
}
