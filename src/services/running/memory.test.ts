import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, inject, it, vi } from 'vitest';
import { forgetChanges, isAway, lastChange, noteEverything } from '@/store';
import { ask } from '@/store/testing';
import {
  type Administrator,
  changeItem,
  changePeople,
  markDone,
  putLive,
  saveDraft,
  Trivet,
  tendSnapshot,
} from '..';
import { gretaAt, now, openLarkfell } from '../testing';
import { staleParts } from '../testing-memory';

let trivet: Trivet;
let greta: Administrator;
beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const write = (text: ReturnType<typeof sql>) => trivet.change(() => trivet.db.execute(text));
/** One of many, whatever number is drawn. */
const one = <T>(list: Iterable<T>, at: number): T => {
  const all = [...list];
  return all[at % all.length] as T;
};
const person = (at: number) =>
  one(
    [...trivet.state.people.values()].filter(({ id }) => id !== 'greta'),
    at,
  );
const item = (at: number) => one(trivet.state.outline.items.values(), at);
const page = (at: number) =>
  one(
    [...trivet.state.outline.items.values()].filter(({ kind }) => kind === 'page' || kind === 'post'),
    at,
  );
const group = (at: number) => one(trivet.state.names.groups, at);

let counted = 0;
/** Every kind of change, by service and as the database may be written to by anybody else. */
const CHANGES: Readonly<Record<string, (at: number) => Promise<unknown>>> = {
  'joins or leaves': (at) =>
    changePeople(
      trivet,
      greta,
      {
        who: { ids: [person(at).id, person(at + 3).id] },
        edit: { kind: at % 2 === 0 ? 'join' : 'leave', group: group(at).id },
      },
      false,
      now,
    ),
  'is done with': (at) =>
    markDone(
      trivet,
      greta,
      {
        course: 'dome-induction',
        person: one(['ines', 'lio', 'edda'], at),
        activity: one(['clean-hands', 'collimation'], at >>> 2),
        done: at % 3 !== 0,
        why: 'because',
      },
      now,
    ),
  'another name': (at) =>
    write(sql`update people set name = ${`Name ${at}`}, level = null where id = ${person(at).id}`),
  comes: (at) =>
    write(
      sql`insert into people (id, email, name, profile) values (${`new-${counted++}`}, ${`new-${counted}@larkfell.example`}, ${`New ${at}`}, '{}')`,
    ),
  goes: (at) => write(sql`delete from people where id = ${person(at).id}`),
  'has bought': (at) =>
    write(
      sql`insert into purchases (person, product, "on", state) select ${person(at).id}, id, '2026-02-02', 'paid' from products limit ${1 + (at % 2)}`,
    ),
  'orders change': (at) =>
    write(
      sql`update orders set person = ${person(at).id} where id in (select id from orders order by id limit 2)`,
    ),
  'a product gives': (at) =>
    write(
      sql`update product_terms set terms = jsonb_set(terms, '{grants,groups}', ${JSON.stringify([group(at).id])}::jsonb) where product in (select product from product_terms order by product limit ${1 + (at % 3)})`,
    ),
  'another title': (at) =>
    changeItem(trivet, greta, { kind: 'rename', item: item(at).id, title: `Title ${at}` }, now),
  'another text': (at) => write(sql`update items set body = ${`Text ${at}`} where id = ${item(at).id}`),
  'a course lets groups in': (at) =>
    write(
      sql`update items set enrolling = ${JSON.stringify({ open: at % 2 === 0, by: [], groups: [{ group: group(at).id, days: null }] })}::jsonb where kind = 'course'`,
    ),
  'is moved': (at) =>
    changeItem(
      trivet,
      greta,
      {
        kind: 'move',
        moves: [{ item: page(at).id, parent: page(at * 7 + 1).id, before: null }],
        leaving: true,
      },
      now,
    ),
  'is published or not': (at) =>
    changeItem(
      trivet,
      greta,
      { kind: 'publish', items: [page(at).id], published: at % 2 === 0, leaving: true },
      now,
    ),
  'is removed': (at) => changeItem(trivet, greta, { kind: 'remove', item: item(at).id, leaving: true }, now),
  'is new': (at) =>
    changeItem(trivet, greta, { kind: 'new page', parent: page(at).id, title: `New ${counted++}` }, now),
  'had another address': (at) =>
    write(
      sql`insert into old_addresses (address, item) values (${`/old-${at}`}, ${page(at).id}) on conflict do nothing`,
    ),
  'a group is called otherwise': (at) =>
    write(sql`update groups set name = ${`Group ${counted++}`} where id = ${group(at).id}`),
  'a draft': (at) => {
    const { draft } = trivet.state;
    const gates = draft.policy.gates.filter(
      (_, index) => index !== at % Math.max(1, draft.policy.gates.length),
    );
    return saveDraft(trivet, greta, { version: draft.version, policy: { ...draft.policy, gates } });
  },
  'put live': () =>
    putLive(
      trivet,
      greta,
      { version: trivet.state.draft.version, revision: trivet.state.live.revision, despite: 'a test' },
      now,
    ),
  words: (at) =>
    write(sql`update settings set words = ${JSON.stringify({ foot: `Foot ${at}`, missing: '' })}::jsonb`),
  'days of grace': (at) => write(sql`update settings set grace_days = ${at % 9}`),
  'everything at once': (at) =>
    trivet.change(() =>
      trivet.db.transaction(async (tx) => {
        await noteEverything(tx);
        await tx.execute(sql`update people set profile = '{}', joined = '2026-01-01'`);
        await tx.execute(sql`update items set summary = ${`Said ${at}`}`);
      }),
    ),
  'people are written down': () => tendSnapshot(trivet, 0),
  nothing: () => write(sql`update people set name = name where id = 'nobody'`),
  'goes wrong': (at) =>
    write(sql`insert into person_groups (person, group_id) values (${person(at).id}, 'none')`).catch(
      () => null,
    ),
};

/** Another process that begins now, over the same database. */
const another = () => Trivet.over({ db: trivet.db, close: () => Promise.resolve(), together: null });

describe('memory', () => {
  it('is what would be read, over any run of changes, and so it is of whoever begins afterwards', async () => {
    const step = fc.tuple(fc.constantFrom(...Object.keys(CHANGES)), fc.nat(10_000));
    const ran = new Set<string>();
    let begun = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 12 }), async (steps) => {
        for (const [name, at] of steps) {
          await CHANGES[name]?.(at);
          ran.add(name);
        }
        expect([steps, await staleParts(trivet, now)]).toEqual([steps, []]);
        const other = await another();
        begun += other.unheld ? 1 : 0;
        expect([steps, await staleParts(other, now)]).toEqual([steps, []]);
        await tendSnapshot(trivet, 0);
      }),
      // What went before is part of it, so that nothing smaller need fail.
      { numRuns: 25, endOnFailure: true },
    );
    expect(ran.size).toBeGreaterThan(15);
    expect(begun).toBeGreaterThan(5);
  }, 120_000);

  it.skipIf(inject('server') === null)(
    'is what the database holds, wherever in a change the connection is lost',
    async () => {
      const { query } = pg.Client.prototype;
      let holds: unknown = null;
      let left = 0;
      let cuts = 0;
      // The connection that takes the site’s lock is cut before so many of its queries are sent.
      const cutting = vi.spyOn(pg.Client.prototype, 'query').mockImplementation(async function (
        this: pg.Client,
        ...asked: unknown[]
      ) {
        if (JSON.stringify(asked[0]).includes('pg_advisory_lock(7301)')) holds = this;
        else if (holds === this) {
          left -= 1;
          if (left === 0) {
            cuts += 1;
            const { processID } = this as unknown as { readonly processID: number };
            await ask(inject('server') ?? '', `select pg_terminate_backend(${processID}, 5000)`);
          }
        }
        return (query as (...given: unknown[]) => unknown).apply(this, asked);
      } as never);
      const drawn = fc.tuple(
        fc.constantFrom(...Object.keys(CHANGES)),
        fc.nat(10_000),
        // Most changes ask some ten times.
        fc.integer({ min: 1, max: 10 }),
      );
      try {
        await fc.assert(
          fc.asyncProperty(drawn, async ([name, at, cut]) => {
            holds = null;
            left = cut;
            await CHANGES[name]?.(at).catch((error: unknown) => {
              if (!isAway(error)) throw error;
            });
            left = 0;
            // Whoever asks now waits until it is known what holds.
            expect(await trivet.currency?.becomesCurrent()).toBe(true);
            expect([name, cut, await staleParts(trivet, now)]).toEqual([name, cut, []]);
          }),
          { numRuns: 60, endOnFailure: true },
        );
      } finally {
        cutting.mockRestore();
      }
      expect(cuts).toBeGreaterThan(5);
    },
    120_000,
  );

  it('keeps what nothing was changed of', async () => {
    const { state } = trivet;
    await CHANGES.nothing?.(0);
    expect(trivet.state).toBe(state);
    await CHANGES['another name']?.(1);
    expect(trivet.state.outline).toBe(state.outline);
    expect(trivet.state.live).toBe(state.live);
    await CHANGES['another text']?.(2);
    expect(trivet.state.outline).toBe(state.outline);
    // What is kept of pages is of a policy, live or a draft on a walk, and would say what was said before.
    expect(trivet.state.live.compiled).not.toBe(state.live.compiled);
    expect(trivet.state.draft.compiled).not.toBe(state.draft.compiled);
    const { contents } = trivet.state;
    await write(sql`update file_bytes set bytes = bytes || '\\x00'::bytea`);
    expect(trivet.state.contents).not.toBe(contents);
  });

  it('takes in what another process wrote before it, and reads all anew where that is not told any more', async () => {
    const other = await another();
    await CHANGES['another text']?.(4);
    await CHANGES.comes?.(5);
    await other.change(() => Promise.resolve());
    expect(await staleParts(other, now)).toEqual([]);
    await CHANGES.comes?.(6);
    await CHANGES['another title']?.(7);
    await forgetChanges(trivet.db, (await lastChange(trivet.db)) + 50_000);
    await other.change(() => Promise.resolve());
    expect(await staleParts(other, now)).toEqual([]);
    expect(other.state.people.size).toBe(trivet.state.people.size);
  });

  // The tables and triggers are the same on a server; there it is not one client that is asked.
  it.skipIf(inject('server') !== null)('is told of every table of which it knows anything', async () => {
    interface Asked {
      query: (text: string, ...more: unknown[]) => unknown;
      transaction: (work: (tx: Asked) => Promise<unknown>) => Promise<unknown>;
    }
    const client = (trivet.db as unknown as { $client: Asked }).$client;
    const read = new Set<string | undefined>();
    const listenTo = (one: Asked) => {
      const { query } = one;
      vi.spyOn(one, 'query').mockImplementation((text, ...more) => {
        for (const found of text.matchAll(/(?:from|join) "(\w+)"/g)) read.add(found[1]);
        return query.call(one, text, ...more);
      });
    };
    listenTo(client);
    const { transaction } = client;
    vi.spyOn(client, 'transaction').mockImplementation((work) =>
      transaction.call(client, (tx) => {
        listenTo(tx);
        return work(tx);
      }),
    );
    await trivet.reload();
    vi.restoreAllMocks();
    // The log itself, what is written down by its numbers, and texts that are searched in the database alone.
    for (const name of ['changes', 'snapshots', 'snapshot_texts', 'search_texts']) read.delete(name);
    const { rows } = await trivet.db.execute<{ name: string; count: number }>(
      sql`select tgrelid::regclass::text as name, count(*)::int as count from pg_trigger where tgname like 'note_%' group by 1`,
    );
    expect(rows.filter(({ count }) => count === 3).map(({ name }) => name)).toEqual(
      // Of bytes it knows nothing; what is known of them elsewhere is known for as long as a text is.
      expect.arrayContaining([...read, 'file_bytes']),
    );
    expect(read.size).toBeGreaterThan(15);
  });
});
