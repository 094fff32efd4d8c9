/** Gates that are whole from the start, and whose third leg follows from the second for as long as nobody has set it. */
import { type Condition, expanded, guests, signedIn } from '../condition';
import { type Gate, type NextStep, type Otherwise, redirectToSignIn, type Target } from '../gate';
import type { GateId } from '../ids';
import { same } from '../same';
import { isMembersOnly, type Plain, plain } from '../sentence';
import { hasBelow, type Item, KINDS, type Outline, type Vocabulary } from '../site';

/**
 * A new gate over items, or over nothing yet: for members; guests are sent to sign in, parts of pages are left out, and parts of
 * courses locked with the reason.
 */
export function newGate(id: GateId, items: readonly Item[], outline: Outline, vocabulary: Vocabulary): Gate {
  const parts = items.length > 0 && items.every(({ kind }) => KINDS[kind].closest === 'leave out');
  const learnt = items.length > 0 && items.every(({ kind }) => kind === 'unit' || kind === 'activity');
  const target = (item: Item): Target => ({
    kind: hasBelow(outline, item.id) ? 'branch' : 'item',
    item: item.id,
  });
  return {
    id,
    what: { targets: items.map(target), except: [] },
    who: signedIn,
    otherwise: learnt
      ? { cases: [], last: { kind: 'locked', reason: { kind: 'written' }, next: { kind: 'none' } } }
      : parts
        ? { cases: [], last: { kind: 'leave out' } }
        : otherwiseFor(signedIn, vocabulary),
    stance: 'also',
  };
}

/** The gate for other people. What the rest get changes along if it still is what it began with. */
export const forPeople = (gate: Gate, who: Condition, vocabulary: Vocabulary): Gate => ({
  ...gate,
  who,
  otherwise: same(gate.otherwise, otherwiseFor(gate.who, vocabulary))
    ? otherwiseFor(who, vocabulary)
    : gate.otherwise,
});

/**
 * What those who do not pass get to begin with. Signing in comes first where it is needed; whoever is signed in and does not
 * pass is told why, with the step that would open it if they can take it themselves.
 */
export function otherwiseFor(who: Condition, vocabulary: Vocabulary): Otherwise {
  if (same(who, signedIn)) return { cases: [], last: redirectToSignIn };
  const whole = plain(expanded(who, vocabulary.audiences));
  const next = stepInto(whole, vocabulary);
  // Who buys needs no account before.
  const signsIn = isMembersOnly(whole, vocabulary) && next.kind !== 'buy';
  return {
    cases: signsIn ? [{ when: guests, give: redirectToSignIn }] : [],
    last: { kind: 'message', reason: { kind: 'written' }, next },
  };
}

/** The step by which a visitor passes a condition without anybody's help, where one is enough. Where nothing is sold it leads nowhere, and isn't shown. */
function stepInto(whole: Plain, vocabulary: Vocabulary): NextStep {
  const parts = whole.kind === 'all' || whole.kind === 'any' ? whole.of : [whole];
  const open = whole.kind === 'any' ? parts : parts.filter((part) => !same(part, signedIn));
  for (const part of whole.kind === 'any' || open.length === 1 ? open : []) {
    if (part.kind !== 'test') continue;
    if (part.fact === 'passphrase') return { kind: 'passphrase' };
    const product =
      part.fact === 'owns' || part.fact === 'subscribed'
        ? vocabulary.products.find(({ id }) => id === part.subject)
        : undefined;
    if (product) return { kind: 'buy', product: product.id };
    const group = part.fact === 'group' ? vocabulary.groups.find(({ id }) => id === part.value) : undefined;
    if (group?.open) return { kind: 'follow', group: group.id };
  }
  return { kind: 'none' };
}
