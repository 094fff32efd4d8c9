/** What law there is about memory: it is always what would be read from the database anew. */
import { decide, guest, same } from '@/core';
import { plainRequest, type SiteState, type Trivet } from './running';
import { readSiteState } from './running/site-state';

/** The parts of a site in memory that are not what would be read now; none. */
export async function staleParts(trivet: Trivet, now: Date): Promise<readonly string[]> {
  if (!trivet.hasSite) return [];
  const fresh = await readSiteState(trivet.db);
  if (!fresh) return ['the site is gone'];
  const [known, read] = [partsOf(trivet.state, now), partsOf(fresh, now)];
  return [...read].filter(([name, part]) => !same(part, known.get(name))).map(([name]) => name);
}

function partsOf(state: SiteState, now: Date): ReadonlyMap<string, unknown> {
  const { outline, people, draft, live } = state;
  const request = plainRequest(state, now);
  const decided = [guest, ...[...people.values()].map(({ facts }) => facts)].map((facts) =>
    [...outline.items.keys()].map((item) => decide(live.compiled, item, facts, request)),
  );
  return new Map<string, unknown>([
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

const byKey = (map: ReadonlyMap<string, unknown>): Readonly<Record<string, unknown>> =>
  Object.fromEntries(map);
