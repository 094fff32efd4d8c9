/** Taking back what was taken in: all of it goes, if nobody has changed any of it since. */
import { asId, below, type Gate, givenBy, type ItemId, leadsTo, type Policy, pointedIn, same } from '@/core';
import {
  deleteItems,
  forgetOldAddresses,
  markTakingUndone,
  readTaking,
  type TakenOver,
  updateItem,
  writeBothPolicies,
} from '@/store';
import { newlyBroken, siteAfter } from '../areas';
import type { SiteState, Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { indexItems } from '../texts';
import { contentOf } from '../view';
import { goingWith, problemIn, turnsLost } from '../writing';

export type TakenBack =
  | { readonly kind: 'done'; readonly summary: string }
  | { readonly kind: 'wrong'; readonly message: string };

const wrong = (message: string): TakenBack => ({
  kind: 'wrong',
  message: `${message} Nothing was taken back.`,
});

/** Takes back what was taken in under an id. */
export function takeBackIn(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<TakenBack> {
  requirePermission(administrator, 'everything');
  return trivet.change(async (state): Promise<TakenBack> => {
    const which = typeof input === 'string' && input.length <= 100 ? input : '';
    const taking = await readTaking(trivet.db, which);
    if (!taking || taking.undone) return wrong('That was taken back already.');
    const items = taking.items.map((one) => asId<ItemId>(one));
    const changed = changedIn(state, items, taking.first);
    if (changed !== null) return wrong(changed);
    const ids = new Set(items);
    const policies = {
      draft: withoutItems(state.draft.policy, ids),
      live: withoutItems(state.live.policy, ids),
    };
    const left = [...state.outline.items.values()].filter((item) => !ids.has(item.id));
    const problem = problemIn(left) ?? turnsLost(state, left)[0] ?? null;
    if (problem !== null) return wrong(problem);
    const step = {
      items: [
        ...items.flatMap((one) => {
          const item = state.outline.items.get(one);
          return item ? [{ before: { item, content: contentOf(state, one) }, after: null }] : [];
        }),
        ...taking.first.map(({ before, after }) => ({ before: after, after: before })),
      ],
      groups: [],
      live: { before: state.live.policy, after: policies.live },
    };
    const [broken] = await newlyBroken(siteAfter(state, step), state, now);
    if (broken) return wrong(`Expected is: ${broken.expected}. Then, ${broken.instead}`);
    const summary = `Taken back: ${taking.summary}`;
    await trivet.db.transaction(async (tx) => {
      await deleteItems(tx, items);
      await forgetOldAddresses(tx, taking.formerly);
      for (const { before } of taking.first) await updateItem(tx, before);
      await indexItems(
        tx,
        taking.first.map(({ before }) => before),
        state.live.compiled.vocabulary,
      );
      if (policies.live !== state.live.policy || policies.draft !== state.draft.policy)
        await writeBothPolicies(tx, { ...policies, author: administrator.name, note: summary });
      await markTakingUndone(tx, which);
    });
    return { kind: 'done', summary };
  });
}

/** What is not as it came in any more, in a sentence; null where all of it is. */
function changedIn(state: SiteState, items: readonly ItemId[], first: readonly TakenOver[]): string | null {
  const { outline, versions } = state;
  const ids = new Set(items);
  for (const one of items) {
    const item = outline.items.get(one);
    if (!item) return 'Some of it was taken away since.';
    if (versions.get(one) !== 1) return `“${item.title}” was changed since.`;
    const other = below(outline, one).find(({ id }) => !ids.has(id));
    if (other) return `“${other.title}” came since.`;
  }
  const link = goingWith(outline, ...items).find(({ id }) => !ids.has(id));
  if (link) return `The menu link “${link.title}” leads to it.`;
  for (const { after } of first) {
    const item = outline.items.get(after.item.id);
    if (!item || !same(bare(item), bare(after.item)) || !same(contentOf(state, item.id), after.content))
      return `“${after.item.title || 'The first page'}” was changed since.`;
  }
  for (const { gates, landings, expectations } of [state.live.policy, state.draft.policy]) {
    const leads = (gate: Gate) => givenBy(gate).some((give) => ids.has(leadsTo(give) as ItemId));
    if (gates.some(leads) || landings.some(({ to }) => ids.has(to)))
      return 'A gate or a landing rule leads to it.';
    const named = expectations.some(({ what }) =>
      [...what.targets, ...what.except].some((one) => one.kind !== 'selection' && ids.has(one.item)),
    );
    if (named) return 'An expectation is about it.';
    const only = gates.find((gate) => {
      const pointed = pointedIn(gate);
      return (
        pointed.length > 0 &&
        pointed.every((one) => ids.has(one)) &&
        gate.what.targets.every((one) => one.kind !== 'selection')
      );
    });
    if (only) return 'A gate stands over nothing but it.';
  }
  return null;
}

/** An item but for what is worked out of where it stands. */
const bare = ({
  within: _,
  rank: __,
  ...item
}: {
  readonly within?: unknown;
  readonly rank: number;
}): unknown => item;

/** A policy whose gates point at none of these any more; each points at something else as well. */
function withoutItems(policy: Policy, gone: ReadonlySet<ItemId>): Policy {
  const points = (gate: Gate) => pointedIn(gate).some((one) => gone.has(one));
  if (!policy.gates.some(points)) return policy;
  const stays = (one: Gate['what']['targets'][number]) => one.kind === 'selection' || !gone.has(one.item);
  return {
    ...policy,
    gates: policy.gates.map((gate) =>
      points(gate)
        ? {
            ...gate,
            what: { targets: gate.what.targets.filter(stays), except: gate.what.except.filter(stays) },
          }
        : gate,
    ),
  };
}
