/** What will change by itself in the coming weeks, for everybody: who gains or loses what, and on which day. */
import { z } from 'zod';
import {
  addDays,
  asId,
  askedOfDays,
  changeDays,
  type Day,
  decide,
  guest,
  type ItemId,
  isOpenable,
  type PersonId,
  representativesOf,
  type VisitorFacts,
} from '@/core';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission, yielder } from '../running';

/** What somebody gains and loses on a day. */
export interface ChangeAhead {
  readonly on: Day;
  /** Null for guests. */
  readonly person: { readonly id: PersonId; readonly name: string } | null;
  readonly opens: readonly ItemId[];
  readonly closes: readonly ItemId[];
}

export interface SiteAhead {
  readonly from: Day;
  readonly until: Day;
  /** How many people gain and lose something, on each day on which anybody does. */
  readonly days: readonly { readonly on: Day; readonly gain: number; readonly lose: number }[];
  /** In the order of the days; the first of them, where there are too many. */
  readonly changes: readonly ChangeAhead[];
  readonly cut: boolean;
  /** How many people were looked at. */
  readonly of: number;
}

const MOST_CHANGES = 2000;

const asked = z.object({
  days: z.coerce.number().int().min(1).max(366).catch(60),
  person: z.string().min(1).max(100).nullable().catch(null),
});

/** Looks ahead under what is live: at everybody, or at one person. Null when there is no such person. */
export async function siteAhead(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SiteAhead | null> {
  requirePermission(administrator, 'look');
  const { days, person } = asked.parse(input);
  const { state } = trivet;
  const { compiled } = state.live;
  const request = plainRequest(state, now);
  const { today } = request;
  const until = addDays(today, days);
  const one = person === null ? null : state.people.get(asId<PersonId>(person));
  if (one === undefined) return null;
  const ofDays = askedOfDays(compiled);
  const places = representativesOf(compiled).flatMap(({ item, items }) => {
    const openable = items.filter((id) => {
      const found = state.outline.items.get(id);
      return found !== undefined && isOpenable(found);
    });
    return openable.length === 0 ? [] : [{ item, openable }];
  });
  const counts = new Map<Day, { on: Day; gain: number; lose: number }>();
  const changes: ChangeAhead[] = [];
  let cut = false;
  const look = (who: ChangeAhead['person'], facts: VisitorFacts) => {
    let before: readonly boolean[] | null = null;
    let at = today;
    const openOn = (day: Day) =>
      places.map(({ item }) => decide(compiled, item, facts, { ...request, today: day }).kind === 'open');
    for (const on of changeDays(ofDays, facts, today, until)) {
      const was = at === addDays(on, -1) && before ? before : openOn(addDays(on, -1));
      const is = openOn(on);
      [before, at] = [is, on];
      const opens = places.flatMap(({ openable }, place) => (is[place] && !was[place] ? openable : []));
      const closes = places.flatMap(({ openable }, place) => (!is[place] && was[place] ? openable : []));
      if (opens.length + closes.length === 0) continue;
      const count = counts.get(on) ?? { on, gain: 0, lose: 0 };
      counts.set(on, count);
      if (opens.length > 0) count.gain += 1;
      if (closes.length > 0) count.lose += 1;
      if (changes.length < MOST_CHANGES) changes.push({ on, person: who, opens, closes });
      else cut = true;
    }
  };
  const rest = yielder();
  if (one === null) look(null, guest);
  for (const { id, name, facts } of one === null ? state.people.values() : [one]) {
    look({ id, name }, facts);
    await rest();
  }
  const byDay = (a: { readonly on: Day }, b: { readonly on: Day }) =>
    a.on < b.on ? -1 : a.on > b.on ? 1 : 0;
  return {
    from: today,
    until,
    days: [...counts.values()].toSorted(byDay),
    changes: changes.toSorted(byDay),
    cut,
    of: one === null ? state.people.size : 1,
  };
}
