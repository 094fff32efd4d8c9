/**
 * Backs a site up, brings one back, moves it or writes its people down until it is killed, for the test that kills it: what is
 * there is then what was there before, or what was brought back or came. The site says which it is by its title.
 */
import { createReadStream, createWriteStream, existsSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { sql } from 'drizzle-orm';
import { asId, type ItemId } from '../src/core';
import {
  administratorOf,
  backUp,
  changeItem,
  databaseIn,
  finishRestore,
  importSite,
  moveIntoFolder,
  restore,
  Trivet,
} from '../src/services';
import { staleParts } from '../src/services/testing-memory';
import { writeSnapshot } from '../src/store';

const [folder = '', how = '', to = ''] = process.argv.slice(2);
const say = (line: string) => process.stdout.write(`${line}\n`);
const file = join(folder, 'backup.tar');

async function backedUp(trivet: Trivet): Promise<void> {
  const { tar, made } = await backUp(trivet);
  await Promise.all([pipeline(tar, createWriteStream(`${file}.part`)), made]);
  renameSync(`${file}.part`, file);
}

async function called(trivet: Trivet, title: string): Promise<void> {
  const [person] = [...trivet.state.people.values()];
  const owner = person && administratorOf({ person, facts: person.facts, session: 'test' });
  if (!owner) throw new Error('Nobody owns the site.');
  const answer = await changeItem(trivet, owner, { kind: 'rename', item: 'home', title }, new Date());
  if (answer.kind !== 'done') throw new Error(JSON.stringify(answer));
}

finishRestore(folder);
const trivet = await Trivet.open(databaseIn(folder), 0, folder);
if (!trivet.hasSite) {
  await importSite(
    trivet,
    {
      format: 'trivet site',
      version: 1,
      levels: [],
      roles: [],
      groups: [],
      people: [
        {
          id: 'owner',
          name: 'Owner',
          email: 'owner@larkfell.example',
          desk: { right: 'owner', branch: null },
        },
      ],
      items: [
        { kind: 'site', id: 'site', parent: null, title: 'Kept' },
        { kind: 'page', id: 'home', parent: 'site', title: 'before', address: '/', body: 'Words.' },
      ],
      policy: { gates: [] },
    },
    'The test',
  );
  await backedUp(trivet);
  await called(trivet, 'after');
}
if (how === 'write down') {
  await trivet.change(() =>
    trivet.db.execute(sql`
      insert into people (id, email, name) select 'm' || n, 'm' || n || '@larkfell.example', 'Member ' || n
      from generate_series(1, 10000) n on conflict do nothing`),
  );
  const stale = await staleParts(trivet, new Date());
  say(`${stale.length === 0 ? 'whole' : stale} ${trivet.unheld ? 'as written down' : 'as in the tables'}`);
}
say(`whole ${trivet.state.outline.items.get(asId<ItemId>('home'))?.title} ${existsSync(file)}`);
if (how === 'write down')
  for (let at = 0; ; at++) {
    say('begins');
    await trivet.change(() =>
      trivet.db.execute(sql`update people set name = ${`Member ${at} `} || id where id <> 'owner'`),
    );
    const { state, number } = trivet.known;
    await writeSnapshot(
      trivet.db,
      number,
      state.people.parts().map(({ text }) => text),
    );
  }
if (how === 'backup')
  for (let at = 0; ; at++) {
    say('begins');
    await called(trivet, `after ${at}`);
    await backedUp(trivet);
  }
if (how === 'move') {
  let begun = false;
  await moveIntoFolder(trivet, to, () => {
    if (!begun) say('begins');
    begun = true;
  });
}
await trivet.close();
if (how === 'restore') {
  say('begins');
  await restore(createReadStream(file), folder);
  say('done');
}
