/** What law there is about memory: it is always what would be read from the database anew. */
import { conditionsOfPolicy, decide, guest, same } from '@/core';
import { membershipOf } from './people';
import { plainRequest, type SiteState, type Trivet } from './running';
import { readSiteState } from './running/site-state';

/** The parts of a site in memory that are not what would be read now; none. */
export async function staleParts(trivet: Trivet, now: Date): Promise<readonly string[]> {
  if (!trivet.hasSite) return [];
  const fresh = await readSiteState(trivet.db);
  if (!fresh) return ['the site is gone'];
  const [known, read] = [await partsOf(trivet.state, now), await partsOf(fresh, now)];
  return [...read].filter(([name, part]) => !same(part, known.get(name))).map(([name]) => name);
}

async function partsOf(state: SiteState, now: Date): Promise<ReadonlyMap<string, unknown>> {
  const { outline, people, draft, live } = state;
  const request = plainRequest(state, now);
  const decided = [guest, ...[...people.values()].map(({ facts }) => facts)].map((facts) =>
    [...outline.items.keys()].map((item) => decide(live.compiled, item, facts, request)),
  );
  return new Map<string, unknown>([
    ['membership', await selectedIn(state, now)],
    ['settings', state.settings],
    ['items', byKey(outline.items)],
    ['addressed', byKey(outline.addressed)],
    ['children', byKey(outline.children)],
    ['contents', byKey(state.contents)],
    ['versions', byKey(state.versions)],
    ['earlier addresses', byKey(state.oldAddresses)],
    ['posts', state.posts],
    ['what groups bring', byKey(state.byGroup)],
    ['shop', byKey(state.shop)],
    ['what products give', byKey(state.byProduct)],
    ['seats', byKey(state.seatsSold)],
    ['bought', byKey(state.bought)],
    ['unconfirmed', [...state.unconfirmed.keys()].sort()],
    ['names', state.names],
    // In their order.
    ['people', [...people]],
    ['facts', [...people.values()].map(({ facts }) => facts)],
    ['draft', [draft.policy, draft.version, draft.by]],
    ['live', [live.policy, live.revision]],
    ['names of the draft', draft.compiled.vocabulary],
    ['names of the live policy', live.compiled.vocabulary],
    ['decisions', decided],
  ]);
}

/** Whom each condition of the policies selects; columns are made of those before, where there were any. */
async function selectedIn(state: SiteState, now: Date): Promise<readonly unknown[]> {
  const selected: unknown[] = [];
  for (const { policy, compiled } of [state.live, state.draft]) {
    const conditions = conditionsOfPolicy(policy);
    const { select } = await membershipOf(state, compiled.vocabulary, now, conditions);
    for (const condition of conditions) selected.push([...select(condition).bits]);
  }
  return selected;
}

const byKey = (map: ReadonlyMap<string, unknown>): Readonly<Record<string, unknown>> =>
  Object.fromEntries(map);
