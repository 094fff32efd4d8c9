/** The site as one file, from the command line: out, in, checked. */
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { capital } from '../src/core';
import {
  type ExpectationReport,
  expectationsInFile,
  expectationsOfSite,
  fileOverSite,
  type ImportReport,
  importSite,
  isOnServer,
  LARGEST_SITE_FILE,
  moveIntoFolder,
  moveSite,
  NotMoved,
  NotOpened,
  type PeopleInFile,
  readEnvironment,
  readSiteFile,
  siteAsFile,
  Trivet,
} from '../src/services';
import { claimDataFolder } from './data-folder';
import { progress } from './progress';

const USAGE = `Say what to do, and with which file:
  npm run site -- export <file> [--with-people | --with-sign-in]
                                                  writes the site to a file; with its people; with what is kept of their
                                                  passwords and of passphrases, so that they can sign in elsewhere
  npm run site -- check <file> [--tap]            says what is wrong with a file, what it would do to the site, and
                                                  whether what it expects holds; ends with 1 if not
  npm run site -- check [--tap]                   says whether what the site expects holds
  npm run site -- import <file>                   takes a file in: all of it, or nothing
  npm run site -- move <address or folder>        brings everything onto a PostgreSQL server (postgres://…), or into a
                                                  data folder that holds nothing; what was here stays as it is`;

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

/** Works on the site that is there. */
async function withSite<T>(work: (trivet: Trivet, where: string) => Promise<T>): Promise<T> {
  const env = readEnvironment(process.env);
  if ('problems' in env) throw new Stop(env.problems);
  const { database, dataFolder } = env;
  if (isOnServer(database)) return opened(database, (trivet) => work(trivet, 'The database'));
  return claimed(dataFolder, () =>
    opened(database, (trivet) => work(trivet, `The data folder ${dataFolder}`)),
  );
}

/** Works while nobody else uses a data folder. */
async function claimed<T>(dataFolder: string, work: () => Promise<T>): Promise<T> {
  const claim = claimDataFolder(dataFolder);
  if ('problem' in claim) throw new Stop([claim.problem]);
  try {
    return await work();
  } finally {
    claim.release();
  }
}

async function opened<T>(database: string, work: (trivet: Trivet) => Promise<T>): Promise<T> {
  const trivet = await Trivet.open(database).catch((error: unknown) => {
    throw error instanceof NotOpened ? new Stop([error.message]) : error;
  });
  try {
    return await work(trivet);
  } finally {
    await trivet.close();
  }
}

/** Moves the site to a server or into a data folder. */
async function move(where: string): Promise<string> {
  const line = { of: null as ReturnType<typeof progress> | null };
  const told = (done: number, all: number) => {
    line.of ??= progress('Moved', all, (count) => `${count} rows`);
    line.of(done);
  };
  const onServer = isOnServer(where);
  const { rows, items, people } = await withSite((from) =>
    onServer
      ? opened(where, (to) => moveSite(from, to, told))
      : claimed(where, () => moveIntoFolder(from, where, told)),
  ).catch((error: unknown) => {
    throw error instanceof NotMoved || error instanceof NotOpened ? new Stop([error.message]) : error;
  });
  return `Moved, and the same there: ${items} items, ${people} people, ${rows} rows in all.
  ${onServer ? 'Start Trivet with TRIVET_DATABASE set to that address.' : `Start Trivet with TRIVET_DATA=${where}, and without TRIVET_DATABASE.`} What was here is as it was.`;
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

const FLAGS: Readonly<Record<string, readonly string[]>> = {
  export: ['--with-people', '--with-sign-in'],
  check: ['--tap'],
};

const inFile = (flags: readonly string[]): PeopleInFile =>
  flags.includes('--with-sign-in')
    ? 'people who can sign in'
    : flags.includes('--with-people')
      ? 'people'
      : 'nobody';

/** What has become of expectations, as lines for people. */
function told(reports: readonly ExpectationReport[]): readonly string[] {
  if (reports.length === 0) return [];
  const broken = reports.filter((one) => !one.stands);
  return [
    `Expectations: ${reports.length - broken.length} of ${reports.length} hold.`,
    ...broken.map(({ expected, verdict }) => `  BROKEN: ${capital(expected)}.\n    ${verdict}`),
  ];
}

/** The same as TAP version 14 (Test Anything Protocol), for programs that hold a site to them. */
const asTap = (reports: readonly ExpectationReport[]): string =>
  [
    'TAP version 14',
    `1..${reports.length}${reports.length === 0 ? ' # SKIP nothing is expected' : ''}`,
    ...reports.flatMap(({ expected, stands, verdict }, at) => [
      `${stands ? 'ok' : 'not ok'} ${at + 1} - ${oneLine(expected)}`,
      '  ---',
      `  message: ${JSON.stringify(oneLine(verdict))}`,
      '  ...',
    ]),
  ].join('\n');

/** A description as TAP reads it: on one line, with its own signs marked. */
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').replace(/[\\#]/g, '\\$&');

/** Fails where something expected does not hold, having said all of it. */
function judged(reports: readonly ExpectationReport[], tap: boolean, before: string): string {
  if (!reports.every(({ stands }) => stands)) process.exitCode = 1;
  return tap ? asTap(reports) : [before, ...told(reports)].filter((line) => line !== '').join('\n');
}

async function checkSite(tap: boolean): Promise<string> {
  return withSite(async (trivet, where) => {
    if (!trivet.hasSite) throw new Stop([`${where} holds no site.`]);
    const reports = await expectationsOfSite(trivet, new Date());
    return judged(reports, tap, reports.length === 0 ? 'The site expects nothing yet.' : '');
  });
}

async function checkFile(path: string, tap: boolean): Promise<string> {
  const input = readInput(path);
  const env = readEnvironment(process.env);
  if ('problems' in env) throw new Stop(env.problems);
  const now = new Date();
  if (!isOnServer(env.database) && !existsSync(env.database)) {
    const read = await readSiteFile(input);
    if ('problems' in read) throw new Stop(read.problems);
    return judged(
      await expectationsInFile(read, now),
      tap,
      `${path} is a site file: ${read.stored.length} items, ${read.policy.gates.length} gates.`,
    );
  }
  return withSite(async (trivet) => {
    const answer = await fileOverSite(trivet, input, null, 'The command line', now);
    if (answer.kind === 'wrong') throw new Stop(answer.problems);
    if (answer.kind !== 'report') throw new Error('A dry run only reports.');
    return judged(
      answer.report.expectations,
      tap,
      `${path} is a site file. On the site that is there it would do this:\n${tell(answer.report)}`,
    );
  });
}

async function run([command = '', ...rest]: readonly string[]): Promise<string> {
  const flags = rest.filter((one) => one.startsWith('-'));
  const [path, ...more] = rest.filter((one) => !one.startsWith('-'));
  if (more.length > 0 || !flags.every((flag) => FLAGS[command]?.includes(flag))) throw new Stop([USAGE]);
  const tap = flags.includes('--tap');
  if (command === 'check') return path === undefined ? checkSite(tap) : checkFile(path, tap);
  if (path === undefined) throw new Stop([USAGE]);
  switch (command) {
    case 'move':
      return move(path);
    case 'export':
      return withSite(async (trivet, where) => {
        if (!trivet.hasSite) throw new Stop([`${where} holds no site.`]);
        const file = await siteAsFile(trivet, inFile(flags));
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
    case 'import': {
      const input = readInput(path);
      return withSite(async (trivet, where) => {
        if (!trivet.hasSite) {
          const problems = await importSite(trivet, input, 'The command line');
          if (problems.length > 0) throw new Stop(problems);
          return `The site is loaded. ${where} holds it now.`;
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
  const said = await run(process.argv.slice(2));
  console.log(said.startsWith('TAP') ? said : `\n${said}\n`);
} catch (error) {
  if (!(error instanceof Stop)) throw error;
  for (const line of error.lines) console.error(`  ${line}`);
  process.exitCode = 1;
}
