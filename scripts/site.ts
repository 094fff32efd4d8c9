/** The site as one file, from the command line: out, in, checked. */
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import {
  databaseIn,
  fileOverSite,
  type ImportReport,
  importSite,
  LARGEST_SITE_FILE,
  readEnvironment,
  readSiteFile,
  siteAsFile,
  Trivet,
} from '../src/services';
import { claimDataFolder } from './data-folder';

const USAGE = `Say what to do, and with which file:
  npm run site -- export <file> [--with-people]   writes the site to a file
  npm run site -- check <file>                    says what is wrong with a file, and what it would do to the site
  npm run site -- import <file>                   takes a file in: all of it, or nothing`;

/** Ends with one sentence a line on the error stream, and code 1. */
class Stop extends Error {
  constructor(readonly lines: readonly string[]) {
    super(lines.join('\n'));
  }
}

function readInput(path: string): unknown {
  let size: number;
  try {
    size = statSync(path).size;
  } catch {
    throw new Stop([`There is no file ${path}.`]);
  }
  if (size > LARGEST_SITE_FILE)
    throw new Stop([
      `${path} has ${Math.ceil(size / 1_000_000)} MB, and a site file at most ${LARGEST_SITE_FILE / 1_000_000}. Take large files out of it and upload them at the desk.`,
    ]);
  try {
    // Some editors begin a file with a byte order mark.
    return JSON.parse(readFileSync(path, 'utf8').replace(/^\ufeff/, ''));
  } catch (error) {
    throw new Stop([`${path} is not JSON: ${(error as Error).message}`]);
  }
}

async function withSite<T>(work: (trivet: Trivet, folder: string) => Promise<T>): Promise<T> {
  const env = readEnvironment(process.env);
  if ('problems' in env) throw new Stop(env.problems);
  const claim = claimDataFolder(env.dataFolder);
  if ('problem' in claim) throw new Stop([claim.problem]);
  try {
    const trivet = await Trivet.open(databaseIn(env.dataFolder));
    try {
      return await work(trivet, env.dataFolder);
    } finally {
      await trivet.close();
    }
  } finally {
    claim.release();
  }
}

function tell({ items, names, people, changes, opens }: ImportReport): string {
  const list = (what: string, titles: readonly string[]) =>
    titles.length === 0
      ? []
      : [`  ${what} (${titles.length}): ${titles.slice(0, 20).join(', ')}${titles.length > 20 ? ', …' : ''}`];
  const lines = [
    ...list('Items added', items.added),
    ...list('Items changed', items.changed),
    ...list('Items taken away', items.removed),
    ...list('Names added', names.added),
    ...list('Names taken away', names.removed),
    ...list('People added', people?.added ?? []),
    ...list('People changed', people?.changed ?? []),
    ...(changes > 0 ? [`  Gates and rules that differ: ${changes}`] : []),
    ...(opens.length > 0 ? [`  OPENED (${opens.length}):`] : []),
    ...opens.slice(0, 50).map((one) => `    ${one.title} (${one.kind}) to ${one.to}`),
    ...(opens.length > 50 ? [`    and ${opens.length - 50} more`] : []),
  ];
  return lines.length === 0 ? '  Nothing: the site is like that already.' : lines.join('\n');
}

async function run([command, path, ...flags]: readonly string[]): Promise<string> {
  const known = flags.every((flag) => command === 'export' && flag === '--with-people');
  if (!path || path.startsWith('-') || !known) throw new Stop([USAGE]);
  switch (command) {
    case 'export':
      return withSite(async (trivet, folder) => {
        if (!trivet.hasSite) throw new Stop([`The data folder ${folder} holds no site.`]);
        const file = await siteAsFile(trivet, flags.includes('--with-people'));
        const draft = `${path}.part`;
        mkdirSync(dirname(path), { recursive: true });
        try {
          writeFileSync(draft, `${JSON.stringify(file, null, 2)}\n`);
          renameSync(draft, path);
        } finally {
          rmSync(draft, { force: true });
        }
        return `The site is in ${path}: ${file.items.length} items${file.people ? `, ${file.people.length} people` : ''}.`;
      });
    case 'check': {
      const input = readInput(path);
      const env = readEnvironment(process.env);
      if ('problems' in env) throw new Stop(env.problems);
      if (!existsSync(databaseIn(env.dataFolder))) {
        const read = await readSiteFile(input);
        if ('problems' in read) throw new Stop(read.problems);
        return `${path} is a site file: ${read.stored.length} items, ${read.policy.gates.length} gates.`;
      }
      return withSite(async (trivet, folder) => {
        const answer = await fileOverSite(trivet, input, null, 'The command line', new Date());
        if (answer.kind === 'wrong') throw new Stop(answer.problems);
        if (answer.kind !== 'report') throw new Error('A dry run only reports.');
        return `${path} is a site file. On the site in ${folder} it would do this:\n${tell(answer.report)}`;
      });
    }
    case 'import': {
      const input = readInput(path);
      return withSite(async (trivet, folder) => {
        if (!trivet.hasSite) {
          const problems = await importSite(trivet, input, 'The command line');
          if (problems.length > 0) throw new Stop(problems);
          return `The site is loaded into ${folder}.`;
        }
        const now = new Date();
        const looked = await fileOverSite(trivet, input, null, 'The command line', now);
        if (looked.kind === 'wrong') throw new Stop(looked.problems);
        if (looked.kind !== 'report') throw new Error('A dry run only reports.');
        const done = await fileOverSite(trivet, input, looked.report.basis, 'The command line', now);
        if (done.kind !== 'done') throw new Stop(['The site was changed meanwhile. Nothing was taken in.']);
        return `Taken in:\n${tell(done.report)}`;
      });
    }
    default:
      throw new Stop([USAGE]);
  }
}

try {
  console.log(`\n${await run(process.argv.slice(2))}\n`);
} catch (error) {
  if (!(error instanceof Stop)) throw error;
  for (const line of error.lines) console.error(`  ${line}`);
  process.exitCode = 1;
}
