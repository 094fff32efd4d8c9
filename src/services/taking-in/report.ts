/** What taking in would come to, told before anything is written. */
import {
  compile,
  decide,
  describeWhat,
  itemNamesIn,
  type Outline,
  outlineOf,
  type Policy,
  vocabularyOf,
} from '@/core';
import { newlyBroken } from '../areas';
import type { BrokenExpectation } from '../policy';
import { guestVisitor, plainRequest, type SiteState, yielder, yieldToOthers } from '../running';
import type { Material } from './material';
import type { Plan, PlannedPage } from './planning';
import type { LeftOut } from './source';

export interface TakingReport {
  /** Names the site as it was looked at; what is then taken in has to name it. */
  readonly basis: string;
  /** What it is taken in from. */
  readonly name: string;
  /** The title of the site's first page, if another text can take the place of its one; else null. */
  readonly first: string | null;
  /** In the order of the tree. */
  readonly pages: readonly (Omit<PlannedPage, 'item'> & { readonly id: string; readonly opens: Opens })[];
  readonly files: { readonly count: number; readonly bytes: number; readonly atTop: number };
  readonly leftOut: readonly LeftOut[];
  /** Gates that will stand over some of it, in words. */
  readonly gates: readonly string[];
  /** What would no longer be as it is expected; nothing is taken in then. */
  readonly broken: readonly BrokenExpectation[];
}

/** Who gets a page: everybody, those whom gates let by, or nobody until it is published. */
export type Opens = 'everybody' | 'some' | 'nobody';

/** Tells what a plan comes to, under the policy that will be live. */
export async function reportOn(
  plan: Plan,
  live: Policy,
  { name }: Material,
  state: SiteState,
  now: Date,
): Promise<Omit<TakingReport, 'basis' | 'first'>> {
  await yieldToOthers();
  const outline = outlineAfter(plan, state);
  const names = { ...state.names, ...itemNamesIn(outline) };
  await yieldToOthers();
  const compiled = compile(live, outline, names);
  const request = plainRequest(state, now);
  const rest = yielder();
  const over = new Set<string>();
  const pages: TakingReport['pages'][number][] = [];
  for (const { item, ...page } of plan.pages) {
    for (const { gate } of compiled.covering.get(item) ?? []) over.add(gate.id);
    const decision = page.published ? decide(compiled, item, guestVisitor.facts, request) : null;
    const opens = decision === null ? 'nobody' : decision.kind === 'open' ? 'everybody' : 'some';
    pages.push({ ...page, id: item, opens });
    await rest();
  }
  const vocabulary = vocabularyOf(names, live);
  const above = new Set<string>(plan.pages.map(({ item }) => item));
  return {
    name,
    pages,
    files: {
      count: plan.files.length,
      bytes: plan.files.reduce((sum, { file }) => sum + file.size, 0),
      atTop: plan.stored.filter(({ item }) => item.kind === 'file' && !above.has(item.parent ?? '')).length,
    },
    leftOut: plan.leftOut,
    gates: live.gates
      .filter((gate) => over.has(gate.id))
      .map(({ what }) => describeWhat(what, outline, vocabulary)),
    broken: await newlyBroken({ outline, names, compiled }, state, now),
  };
}

function outlineAfter({ stored, first }: Plan, { outline }: SiteState): Outline {
  const items = new Map(outline.items);
  for (const { item } of [...stored, ...first.map(({ after }) => after)]) items.set(item.id, item);
  const after = outlineOf([...items.values()]);
  if ('problems' in after) throw new Error(after.problems[0]?.message);
  return after;
}
