/**
 * Taking in what is there: sent first, then read and looked at, then put on the site in one step that can be taken back in
 * one. Until that, nothing of it is anywhere on the site.
 */
import { createHash, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { asId, counted, type ItemId, type Policy, vocabularyOf } from '@/core';
import {
  insertItems,
  insertTaking,
  noteOldAddress,
  readTakings,
  updateItem,
  writeBothPolicies,
  writeFileBytes,
} from '@/store';
import { id, MOST_TARGETS } from '../forms';
import type { SiteState, Trivet } from '../running';
import { type Administrator, environment, momentAt, requirePermission, yielder } from '../running';
import { searchTextsIn, writeSearchTexts } from '../texts';
import { withDefaults } from '../writing';
import { firstPage } from './first-page';
import { FULL, type Held, heldAt, hold, inTurn, letGo } from './held';
import { type Material, type Reading, readSource } from './material';
import { planPages } from './plan-pages';
import type { Plan, Wishes } from './planning';
import { reportOn, type TakingReport } from './report';
import { MOST_TEXTS, Stopped, stopIf } from './source';
import { openWeb } from './web';

const wishes = z.strictObject({
  above: id,
  posts: z.boolean(),
  published: z.boolean(),
  first: z.boolean(),
  menu: id.nullable(),
});

const asking = z.strictObject({
  /** What was sent before; or a site on the web, which is read now. */
  source: z.union([
    z.string().max(100),
    z.strictObject({
      sitemap: z.string().trim().min(1, 'Write the address of the sitemap.').max(2000),
      begins: z.string().trim().max(500),
    }),
  ]),
  wishes,
  /** The basis of the look that is followed; null for a look. */
  basis: z.string().max(200).nullable(),
});

export type TakingAnswer =
  | { readonly kind: 'report'; readonly source: string; readonly report: TakingReport }
  | { readonly kind: 'taken'; readonly taking: string; readonly summary: string }
  /** The site was changed since it was looked at. */
  | { readonly kind: 'stale'; readonly message: string }
  /** What was sent is not held any longer. */
  | { readonly kind: 'gone'; readonly message: string }
  | { readonly kind: 'stopped' }
  | { readonly kind: 'wrong'; readonly message: string };

/** How far it is. */
export type TakingProgress =
  | Reading
  | { readonly what: 'sitemap'; readonly done: number; readonly of: number };

export interface Following {
  readonly onProgress: (progress: TakingProgress) => void;
  readonly signal: AbortSignal;
}

const wrong = (message: string): TakingAnswer => ({ kind: 'wrong', message });

/** Looks at what would come in; or takes it in, once that was looked at. */
export async function takeIn(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
  following: Following,
): Promise<TakingAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = asking.safeParse(input);
  if (!parsed.success)
    return wrong(parsed.error.issues[0]?.message ?? 'Say what is to be taken in, and how.');
  const { source, basis } = parsed.data;
  const { above, menu, ...others } = parsed.data.wishes;
  const wished: Wishes = {
    ...others,
    above: asId<ItemId>(above),
    menu: menu === null ? null : asId<ItemId>(menu),
  };
  try {
    const held =
      typeof source === 'string'
        ? heldAt(trivet, source, administrator.id)
        : await holdWeb(trivet, administrator, source, following);
    if (typeof held === 'string') return wrong(held);
    if (!held) return { kind: 'gone', message: 'What was sent is not kept any longer. Send it again.' };
    const signal = AbortSignal.any([following.signal, held.stop.signal]);
    return await inTurn(held, () => {
      stopIf(signal);
      return withHeld(trivet, administrator, held, wished, basis, now, { ...following, signal });
    });
  } catch (error) {
    if (error instanceof Stopped) return { kind: 'stopped' };
    throw error;
  }
}

/** Holds a site on the web; or says why it can't be read. */
async function holdWeb(
  trivet: Trivet,
  administrator: Administrator,
  asked: { readonly sitemap: string; readonly begins: string },
  { onProgress, signal }: Following,
): Promise<Held | string> {
  const held = await hold(trivet, administrator.id);
  if (!held) return FULL;
  try {
    const source = await inTurn(held, () =>
      openWeb(asked, environment().takeInFrom, signal, (done) =>
        onProgress({ what: 'sitemap', done, of: MOST_TEXTS }),
      ),
    );
    if (!('problem' in source)) {
      held.source = source;
      return held;
    }
    await letGo(trivet, held);
    return source.problem;
  } catch (error) {
    await letGo(trivet, held);
    throw error;
  }
}

async function withHeld(
  trivet: Trivet,
  administrator: Administrator,
  held: Held,
  wished: Wishes,
  basis: string | null,
  now: Date,
  following: Following,
): Promise<TakingAnswer> {
  if (!held.source) return wrong('Nothing was sent yet.');
  const material =
    held.material ?? (await readSource(held.source, held.folder, following.signal, following.onProgress));
  held.material = material;
  if (basis !== null && basis !== basisOf(trivet.state)) return STALE;
  // Worked out before the site waits for it; whatever changes meanwhile is noticed.
  const { state: looked } = trivet;
  const worked = await workedOut(looked, material, wished, now);
  if ('problem' in worked) return wrong(worked.problem);
  const { planned, policies, report } = worked;
  if (basis === null) return { kind: 'report', source: held.id, report };
  const [broken] = report.broken;
  if (broken) return wrong(`Expected is: ${broken.expected}. Then, ${broken.instead} Nothing was taken in.`);
  const texts = await searchTextsIn(
    [...planned.stored, ...planned.first.map(({ after }) => after)],
    vocabularyOf(looked.names, policies.live),
    planned.words,
  );
  stopIf(following.signal);
  const summary = `${counted(planned.pages.length, 'page', 'pages')} taken in from ${material.name}`;
  const taken = await trivet.change(async (state): Promise<TakingAnswer> => {
    if (basis !== basisOf(state)) return STALE;
    const taking = randomUUID();
    await trivet.db.transaction(async (tx) => {
      await insertItems(tx, planned.stored, 'changed');
      for (const { after } of planned.first) await updateItem(tx, after);
      for (const { item, file } of planned.files) await writeFileBytes(tx, item, await readFile(file.at));
      for (const [address, item] of planned.formerly) await noteOldAddress(tx, address, item);
      await writeSearchTexts(
        tx,
        texts,
        planned.first.map(({ after }) => after.item.id),
      );
      if (policies.live !== state.live.policy || policies.draft !== state.draft.policy)
        await writeBothPolicies(tx, {
          ...policies,
          author: administrator.name,
          note: `${summary}, and starts with its gates.`,
        });
      await insertTaking(tx, {
        id: taking,
        at: now,
        by: administrator.name,
        summary,
        items: planned.stored.map(({ item }) => item.id),
        formerly: [...planned.formerly.keys()],
        first: planned.first,
      });
    });
    return { kind: 'taken', taking, summary };
  });
  if (taken.kind === 'taken') await letGo(trivet, held);
  return taken;
}

/** What would come of it on the site as it is, with what is to be known of that. */
async function workedOut(state: SiteState, material: Material, wished: Wishes, now: Date) {
  const above = state.outline.items.get(wished.above);
  if (above?.kind !== 'site' && above?.kind !== 'page')
    return { problem: 'What it was to stand below is no longer there. Choose another page.' };
  if (wished.menu !== null && state.outline.items.get(wished.menu)?.kind !== 'menu')
    return { problem: 'That menu is no longer there. Choose another.' };
  const planned = await planPages(state, material, wished, momentAt(state, now).today);
  if ('problem' in planned) return planned;
  const policies = await policiesWith(state, planned);
  if ('problem' in policies) return policies;
  const report: TakingReport = {
    ...(await reportOn(planned, policies.live, material, state, now)),
    basis: basisOf(state),
    first: firstPage(state)?.page.title ?? null,
  };
  return { planned, policies, report };
}

const STALE = {
  kind: 'stale',
  message: 'The site was changed meanwhile. Look again; nothing was taken in.',
} as const;

/** The site as it was looked at, as a text. */
const basisOf = ({ draft, live, oldAddresses, versions, names }: SiteState): string =>
  createHash('sha256')
    .update(JSON.stringify([draft.version, live.revision, [...versions], [...oldAddresses], names]))
    .digest('base64url');

/** The policies once new items stand under the gates that items of their kind start with. */
async function policiesWith(
  { draft, live }: SiteState,
  { stored }: Plan,
): Promise<{ readonly draft: Policy; readonly live: Policy } | { readonly problem: string }> {
  let policies = { draft: draft.policy, live: live.policy };
  const rest = yielder();
  for (const { item } of stored) {
    policies = { draft: withDefaults(policies.draft, item), live: withDefaults(policies.live, item) };
    const full = policies.live.gates
      .concat(policies.draft.gates)
      .some(({ what }) => what.targets.length > MOST_TARGETS);
    if (full)
      return {
        problem: `More than ${MOST_TARGETS} of it would start under one gate, which points at so many at most. Let that gate cover a selection, like everything of its kind, and take it out of the rules for new items.`,
      };
    await rest();
  }
  return policies;
}

/** What was taken in lately and can be taken back. */
export async function latestTakings(trivet: Trivet, administrator: Administrator) {
  requirePermission(administrator, 'everything');
  return readTakings(trivet.db, 5);
}
