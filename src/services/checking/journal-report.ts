/** The journal as the desk reads it: where visitors were turned away, and what they did next. */
import { addDays, asId, type ItemId } from '@/core';
import { type JournalCount, type JournalKeeps, readJournal, readJournalNames } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, momentAt, NOWHERE, requirePermission } from '../running';

/** How many were turned away, and what became of them; the rest may still come back. */
export type Tally = Pick<JournalCount, 'count' | 'left' | 'signedIn' | 'signedUp' | 'gotIn'>;

export interface JournalEntry extends Tally {
  readonly item: ItemId;
  /** The id of the gate; empty where something was not published. */
  readonly gate: string;
  readonly given: string;
  readonly visitor: 'guest' | 'member';
}

export interface JournalReport {
  readonly keeps: JournalKeeps;
  readonly keptDays: number;
  /** The first day that is counted. */
  readonly from: string;
  readonly to: string;
  readonly entries: readonly JournalEntry[];
  readonly days: readonly { readonly day: string; readonly count: number }[];
  /** How often addresses were asked for that were never there. */
  readonly nowhere: number;
  /** Members who were turned away, by item; empty where they are not named. */
  readonly people: readonly {
    readonly item: string;
    readonly person: string;
    readonly name: string;
    readonly count: number;
  }[];
}

const add = (a: Tally, b: Tally): Tally => ({
  count: a.count + b.count,
  left: a.left + b.left,
  signedIn: a.signedIn + b.signedIn,
  signedUp: a.signedUp + b.signedUp,
  gotIn: a.gotIn + b.gotIn,
});

/** What was counted in the last so many days, today among them. */
export async function journalReport(
  trivet: Trivet,
  administrator: Administrator,
  days: number,
  now: Date,
): Promise<JournalReport> {
  requirePermission(administrator, 'look');
  await trivet.journal.flush(trivet, now);
  const { settings, people } = trivet.state;
  const span = Math.max(1, Math.min(Number.isInteger(days) ? days : 30, 3650));
  const to = momentAt(trivet.state, now).today;
  const from = addDays(to, 1 - span);
  const rows = await readJournal(trivet.db, from);
  const entries = new Map<string, JournalEntry>();
  const byDay = new Map<string, number>();
  let nowhere = 0;
  for (const row of rows) {
    if (row.item === NOWHERE) {
      nowhere += row.count;
      continue;
    }
    const { item, gate, given, visitor } = row;
    const key = JSON.stringify([item, gate, given, visitor]);
    const before = entries.get(key);
    entries.set(key, {
      item: item as ItemId,
      gate,
      given,
      visitor,
      ...(before
        ? add(before, row)
        : { ...add(row, { count: 0, left: 0, signedIn: 0, signedUp: 0, gotIn: 0 }) }),
    });
    byDay.set(row.day, (byDay.get(row.day) ?? 0) + row.count);
  }
  const named = new Map<string, { item: string; person: string; name: string; count: number }>();
  for (const { item, person, count } of settings.journal === 'names'
    ? await readJournalNames(trivet.db, from)
    : []) {
    if (item === NOWHERE) continue;
    const key = `${item} ${person}`;
    const name = people.get(asId(person))?.name ?? 'somebody who is gone';
    named.set(key, { item, person, name, count: (named.get(key)?.count ?? 0) + count });
  }
  return {
    keeps: settings.journal,
    keptDays: settings.journalDays,
    from,
    to,
    entries: [...entries.values()].sort((a, b) => b.count - a.count),
    days: Array.from({ length: span }, (_, at) => addDays(from, at)).map((day) => ({
      day,
      count: byDay.get(day) ?? 0,
    })),
    nowhere,
    people: [...named.values()].sort((a, b) => b.count - a.count).slice(0, 200),
  };
}
