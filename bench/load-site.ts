/** The demo with what the benchmarks ask for besides: a page that lists twenty posts, and a file of ten megabytes. */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { larkfellOn } from '../demo/larkfell';
import { databaseIn, importSite, readEnvironment, type SiteFile, Trivet } from '../src/services';
import { LARGE, TWENTY } from './front-door';

type Item = SiteFile['items'][number];

const LARGE_BYTES = 10_000_000;

const posts = Array.from(
  { length: 20 },
  (_, at): Item => ({
    kind: 'post',
    id: `bench-${at}`,
    parent: 'site',
    title: `Note ${at} from the hill`,
    address: `${TWENTY}/${at}`,
    summary: 'Words that say something of the night, the hill and the sky above it.',
    facts: { category: 'Twenty', date: `2026-09-${String(at + 1).padStart(2, '0')}`, author: 'Somebody' },
    sections: [{ type: 'text', id: `bench-${at}-text`, title: 'Text', text: 'It was clear, and cold.' }],
  }),
);

const more: readonly Item[] = [
  ...posts,
  {
    kind: 'page',
    id: 'bench-list',
    parent: 'site',
    title: 'Twenty notes',
    address: TWENTY,
    sections: [{ type: 'posts', id: 'bench-posts', title: 'Notes', category: 'Twenty', count: 20 }],
  },
  {
    kind: 'file',
    id: 'bench-file',
    parent: 'site',
    title: 'A large file',
    name: basename(LARGE),
    data: Buffer.concat([Buffer.from('%PDF-1.4\n'), Buffer.alloc(LARGE_BYTES - 9, '%')]).toString('base64'),
  },
];

const env = readEnvironment(process.env);
if ('problems' in env) throw new Error(env.problems.join('\n'));
const database = databaseIn(env.dataFolder);
rmSync(database, { recursive: true, force: true });
mkdirSync(env.dataFolder, { recursive: true });
// So that it may be erased the next time.
writeFileSync(join(env.dataFolder, 'is-a-demo'), 'Made for the benchmarks.\n');
const trivet = await Trivet.open(database);
const demo = larkfellOn(new Date().toISOString().slice(0, 10));
const problems = await importSite(trivet, { ...demo, items: [...demo.items, ...more] }, 'The benchmarks');
await trivet.close();
if (problems.length > 0) throw new Error(problems.join('\n'));
