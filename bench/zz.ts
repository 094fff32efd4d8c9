import { sql } from 'drizzle-orm';
import { openEmbedded } from '../src/store/embedded';
import { everybodyPacked } from '../src/store/packed-person';
import { PgDialect } from 'drizzle-orm/pg-core';
const N = Number(process.argv[2] ?? 100000);
const o = await openEmbedded(null);
const db = o.db;
const t = async (name: string, f: () => Promise<any>) => { const s = performance.now(); const r = await f(); console.log(name, (performance.now() - s).toFixed(0), 'ms', r); };
const more = sql`generate_series(1, ${sql.raw(String(N))}) n`;
await db.execute(sql`insert into groups (id, name) values ('dome-crew','Dome crew')`);
await db.execute(sql`set session_replication_role = replica`);
await db.execute(sql`
    insert into people (id, email, name, profile, joined)
    select 'p-' || n, 'p' || n || '@larkfell.example', 'Member ' || (n::bigint * 7919) % ${sql.raw(String(N))} || ' ' || n, '{}', '2026-01-01'
    from ${more}`);
await db.execute(sql`insert into person_groups (person, group_id, since) select 'p-' || n, 'dome-crew', '2026-01-01' from ${more} where n % 3 = 0`);
await db.execute(sql`insert into enrolments (person, course, "on") select 'p-' || n, 'dome-induction', '2026-01-01' from ${more} where n % 2 = 0`);
const text = new PgDialect().sqlToQuery(everybodyPacked(64)).sql;
const variant2 = text.replace(`string_agg(E'\\n' || line, '' order by name, id)`, `string_agg(E'\\n' || line, '')`);

for (const set of ['enable_hashagg = on', 'enable_hashagg = off', "work_mem='64MB'"]) {
await db.execute(sql.raw(`set ${set}`));
for (const v of [text, variant2]) await t(set, async () => { const r: any = await db.execute(sql.raw(v)); return r.rows.length; });
}
console.log((await db.execute(sql.raw('explain analyze ' + text)) as any).rows.map((r: any) => r['QUERY PLAN']).join('\n'));
await o.close();
