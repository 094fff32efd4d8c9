/**
 * The whole site behind sign-in: one gate with an id of its own, first in order, over every page, post and file. Signing in,
 * signing up and the way to a passphrase are no items, so nothing can lock them.
 */
import { signedIn, test } from '../condition';
import { type Gate, type Pointed, redirectToSignIn } from '../gate';
import { asId, type GateId } from '../ids';
import { OPENABLE_KINDS } from '../site';
import type { Policy } from './policy';

export const WHOLE_SITE = asId<GateId>('whole-site-behind-sign-in');

/** The gate that keeps the whole site behind sign-in, when it is on. */
export const wholeSiteGate = (policy: Policy): Gate | null =>
  policy.gates.find(({ id }) => id === WHOLE_SITE) ?? null;

/** The policy with the whole site behind sign-in but for what stays open, or not. */
export function withWholeSite(policy: Policy, on: boolean, open: readonly Pointed[] = []): Policy {
  const others = policy.gates.filter(({ id }) => id !== WHOLE_SITE);
  if (!on) return { ...policy, gates: others };
  const gate: Gate = {
    id: WHOLE_SITE,
    what: {
      targets: [{ kind: 'selection', where: test('item kind', 'one of', OPENABLE_KINDS) }],
      except: open,
    },
    who: signedIn,
    otherwise: { cases: [], last: redirectToSignIn },
    stance: 'also',
  };
  return { ...policy, gates: [gate, ...others] };
}
