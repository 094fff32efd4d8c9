/** What a change costs as a site grows: of one person among very many, and of one text among very many items. */
import { sql } from 'drizzle-orm';
import { larkfell } from '../demo/larkfell';
import { asId, type ItemId, type PersonId } from '../src/core';
import {
  administratorOf,
  changeItem,
  changePeople,
  findPeople,
  importSite,
  markDone,
  Trivet,
  tendSnapshot,
} from '../src/services';
import { noteEverything, updateItem } from '../src/store';

const now = new Date('2026-11-20T20:00:00Z');
const COURSE = 'dome-induction';
const ACTIVITY = 'clean-hands';
const GROUP = 'dome-crew';

const median = (list: readonly number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

async function timed<T>(work: () => Promise<T>): Promise<readonly [T, number]> {
  const start = performance.now();
  const answer = await work();
  return [answer, performance.now() - start];
}

/** The demo with so many more people: every third is in a group, every second in a course with something done. */
async function withPeople(count: number): Promise<Trivet> {
  const trivet = await Trivet.open(null);
  const people = larkfell.people?.map((one) => ({ ...one, password: undefined })) ?? [];
  const problems = await importSite(trivet, { ...larkfell, people }, 'The bench');
  if (problems.length > 0) throw new Error(problems.join('\n'));
  const more = sql`generate_series(1, ${sql.raw(String(count))}) n`;
  await trivet.db.transaction(async (tx) => {
    await noteEverything(tx);
    await tx.execute(sql`
    insert into people (id, email, name, profile, joined)
    select 'p-' || n, 'p' || n || '@larkfell.example', 'Member ' || (n::bigint * 7919) % ${sql.raw(String(count))} || ' ' || n, '{}', '2026-01-01'
    from ${more}`);
    await tx.execute(
      sql`insert into person_groups (person, group_id, since) select 'p-' || n, ${GROUP}, '2026-01-01' from ${more} where n % 3 = 0`,
    );
    await tx.execute(
      sql`insert into enrolments (person, course, "on") select 'p-' || n, ${COURSE}, '2026-01-01' from ${more} where n % 2 = 0`,
    );
  });
  return trivet;
}

/**
 * In ms: reading everything anew, and from what was written down of people; one activity that somebody is done with, one
 * group that somebody joins, and asking everybody something for the first time and after somebody changed; in bytes, what a
 * person takes in memory.
 */
export async function benchPeople(count: number, rounds = 100) {
  const trivet = await withPeople(count);
  global.gc?.();
  const before = process.memoryUsage().heapUsed;
  const [, reading] = await timed(() => trivet.reload());
  global.gc?.();
  const bytes = (process.memoryUsage().heapUsed - before) / count;
  await tendSnapshot(trivet, 0);
  const [, beginning] = await timed(() => trivet.reload());
  if (trivet.unheld === null) throw new Error('What was written down was not read.');
  const person = trivet.state.people.get(asId<PersonId>('greta'));
  const greta = person && administratorOf({ person, facts: person.facts, session: 'bench' });
  if (!greta) throw new Error('Nobody owns the site.');
  const [completing, joining]: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    const learner = `p-${((round * 7919) % Math.floor(count / 6)) * 6 + 2}`;
    const done = { course: COURSE, person: learner, activity: ACTIVITY, done: true };
    const [marked, marking] = await timed(() => markDone(trivet, greta, done, now));
    const joins = {
      who: { ids: [learner] },
      edit: { kind: 'join', group: GROUP },
    };
    const [joined, taken] = await timed(() => changePeople(trivet, greta, joins, false, now));
    if (marked.kind !== 'changed' || joined.kind !== 'changed')
      throw new Error(JSON.stringify([marked, joined]));
    completing.push(marking);
    joining.push(taken);
  }
  const ask = () => findPeople(trivet, greta, { condition: `in group "Dome crew"` }, now);
  const [, asking] = await timed(ask);
  const again: number[] = [];
  for (let round = 0; round < 3; round++) {
    const done = {
      course: COURSE,
      person: 'p-2',
      activity: ACTIVITY,
      done: round % 2 === 1,
      why: 'The bench',
    };
    await markDone(trivet, greta, done, now);
    again.push((await timed(ask))[1]);
  }
  await trivet.close();
  return {
    reading,
    beginning,
    bytes,
    completing: median(completing),
    joining: median(joining),
    asking,
    askingAgain: median(again),
  };
}

/** In ms, on a site of so many pages with a gate for every fiftieth, at most 500 of them: one text that is written anew, and one title. */
export async function benchItems(count: number, rounds = 20) {
  const trivet = await Trivet.open(null);
  const pages = Array.from({ length: count }, (_, at) => `page-${at}`);
  const people = larkfell.people?.map((one) => ({ ...one, password: undefined })) ?? [];
  const items = [
    ...larkfell.items,
    ...pages.map((id, at): (typeof larkfell.items)[number] => ({
      kind: 'page',
      id,
      parent: at < 100 ? 'site' : `page-${at % 100}`,
      title: `Page ${at}`,
      address: `/pages/${at}`,
      body: `Words of ${at}`,
    })),
  ];
  const gates = pages
    .filter((_, at) => at % Math.max(50, count / 500) === 0)
    .map((id) => ({
      id: `gate-${id}`,
      what: { targets: [{ kind: 'branch', item: id }], except: [] },
      who: 'signed in',
      otherwise: { cases: [], last: { kind: 'missing' } },
      stance: 'also',
    }));
  const policy = { ...(larkfell.policy as { gates: unknown[] }), expectations: [] };
  const problems = await importSite(
    trivet,
    {
      ...larkfell,
      people,
      items,
      policy: { ...policy, gates: [...policy.gates, ...gates] },
    } as typeof larkfell,
    'The bench',
  );
  if (problems.length > 0) throw new Error(problems.slice(0, 5).join('\n'));
  const person = trivet.state.people.get(asId<PersonId>('greta'));
  const greta = person && administratorOf({ person, facts: person.facts, session: 'bench' });
  if (!greta) throw new Error('Nobody owns the site.');
  const [writing, naming]: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    const id = pages[(round * 7919) % pages.length] ?? '';
    const item = trivet.state.outline.items.get(asId<ItemId>(id));
    if (!item) throw new Error(id);
    const content = { summary: '', body: `Other words ${round}` };
    const [, written] = await timed(() => trivet.change(() => updateItem(trivet.db, { item, content })));
    const [named, took] = await timed(() =>
      changeItem(trivet, greta, { kind: 'rename', item: id, title: `Named ${round}` }, now),
    );
    if (named.kind !== 'done') throw new Error(JSON.stringify(named));
    writing.push(written);
    naming.push(took);
  }
  await trivet.close();
  return { writing: median(writing), naming: median(naming) };
}
