/** What a file over a site would open, and to whom: the first thing to know before it is taken in. */
import {
  asksForLess,
  below,
  compile,
  containerOf,
  counted,
  decide,
  guest,
  type Item,
  listed,
  same,
  type VisitorFacts,
} from '@/core';
import type { SiteState } from '../running';
import { personOf, plainRequest, recordOf, yielder } from '../running';
import type { SiteInFile } from './read-site-file';

/** An item that would be open to somebody to whom it is closed. */
export interface OpenedItem {
  readonly title: string;
  readonly kind: Item['kind'];
  readonly guests: boolean;
  /** How many people, and the first of them by name. */
  readonly count: number;
  readonly first: readonly string[];
}

const MOST_FIRST = 3;

/** The items of the site that are there before and after, and open to more. */
export async function openedByFile(
  site: SiteInFile,
  state: SiteState,
  now: Date,
): Promise<readonly OpenedItem[]> {
  const before = state.live.compiled;
  const after = compile(site.policy, site.outline, site.names);
  const request = plainRequest(state, now);
  const changed = new Map((site.people ?? []).map((person) => [person.id, person]));
  const sameFollows =
    same([...site.byGroup], [...state.byGroup]) && same([...site.byProduct], [...state.byProduct]);
  const follows = { byGroup: site.byGroup, byProduct: site.byProduct };
  const people = [...state.people.values()].map((person) => {
    const then = changed.get(person.id);
    const record = recordOf(person);
    const stays = sameFollows && (!then || same(record, then));
    const facts = stays ? person.facts : personOf(then ?? record, { ...state, ...follows }).facts;
    return { name: person.name, was: person.facts, is: facts, stays };
  });
  const sameNames = same(state.names, site.names);
  const less = asksForLess(before, after);
  const rest = yielder();
  const opened: OpenedItem[] = [];
  const told = new Map<Item['id'], string>();
  // Top down, so that what something is in comes first.
  for (const item of below(site.outline, site.outline.root)) {
    if (!state.outline.items.has(item.id)) continue;
    const opens = (was: VisitorFacts, is: VisitorFacts) =>
      decide(before, item.id, was, request).kind !== 'open' &&
      decide(after, item.id, is, request).kind === 'open';
    // Where as much is asked as before, it opens to those alone who are not as they were.
    const all = !sameNames || less(item);
    let count = 0;
    const first: string[] = [];
    for (const person of people) {
      if ((person.stays && !all) || !opens(person.was, person.is)) continue;
      count += 1;
      if (first.length < MOST_FIRST) first.push(person.name);
    }
    const guests = all && opens(guest, guest);
    if (guests || count > 0) {
      // What is in something that opens to the same people goes without saying.
      const whom = JSON.stringify([guests, count, first]);
      told.set(item.id, whom);
      const container = containerOf(site.outline, item);
      if (!container || told.get(container.id) !== whom)
        opened.push({ title: item.title, kind: item.kind, guests, count, first });
    }
    await rest();
  }
  return opened;
}

/** To whom it would open, in words: "guests and 12 members (Marek Dunmore, Odile Marsh, Tobin Aske …)". */
export function openedTo({ guests, count, first }: Omit<OpenedItem, 'title' | 'kind'>): string {
  const names = `${first.join(', ')}${count > first.length ? ' …' : ''}`;
  return listed([
    ...(guests ? ['guests'] : []),
    ...(count > 0 ? [`${counted(count, 'member')} (${names})`] : []),
  ]);
}
