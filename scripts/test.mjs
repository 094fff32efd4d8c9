/**
 * `npm test`: everything on a fresh machine with only Node. Types, lint, unit tests, build, browser tests; the last line
 * counts them.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { postgresPrograms } from './postgres.mjs';
import { binOf, build, install } from './setup.mjs';

let passed = 0;
let failed = 0;
/** Every test that was run, with how long it took. */
const took = [];
const SLOWEST = 10;

/** Each step with how many seconds it took. */
const steps = [];

function timed(name, work) {
  console.log(`\n— ${name}`);
  const start = performance.now();
  const answer = work();
  steps.push(`${name} ${((performance.now() - start) / 1000).toFixed(0)} s`);
  return answer;
}

/** Runs one step of the tests and goes on whatever comes of it. */
const step = (name, args) =>
  timed(name, () => {
    const { status } = spawnSync(process.execPath, args, {
      stdio: 'inherit',
      env: { ...process.env, CI: '1' },
    });
    return status === 0;
  });

/** A step that is one test in itself. */
function check(name, args) {
  if (step(name, args)) passed += 1;
  else failed += 1;
}

/** Programs of Debian's that tests run: the browser, what stands between it and a site, and a server for databases. */
const PROGRAMS = [
  { name: 'Chromium', at: process.env.CHROMIUM ?? '/usr/bin/chromium', packages: ['chromium'] },
  // The same without windows; where it is not to be had, stories take a little longer.
  {
    name: 'Chromium without windows',
    at: '/usr/bin/chromium-headless-shell',
    packages: ['chromium-headless-shell'],
  },
  { name: 'nginx', at: '/usr/sbin/nginx', packages: ['nginx', 'openssl'] },
  { name: 'Caddy', at: '/usr/bin/caddy', packages: ['caddy'] },
  { name: 'PostgreSQL', at: '/usr/lib/postgresql', packages: ['postgresql'] },
];

/** Installs those that are not there, while something else goes on; answers with how that can be waited for. */
function beginPrograms() {
  const absent = PROGRAMS.filter(({ at }) => !existsSync(at));
  if (absent.length === 0) return () => undefined;
  const packages = absent.flatMap((one) => one.packages);
  // One after the other, so that one that is not to be had keeps none of the others away.
  const install = packages.map((name) => `apt-get install -y -qq ${name}`).join('; ');
  const installing = spawn('sh', ['-c', `apt-get update -qq; ${install}`], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  const over = new Promise((resolve) => installing.once('close', resolve).once('error', resolve));
  return async () => {
    const start = performance.now();
    await over;
    const seconds = ((performance.now() - start) / 1000).toFixed(0);
    steps.push(`${absent.map(({ name }) => name).join(', ')} (after that) ${seconds} s`);
    const missing = absent.filter(({ at }) => !existsSync(at));
    if (missing.length > 0)
      console.error(
        `Could not be installed: ${missing.map(({ name, at }) => `${name} (${at})`).join(', ')}.`,
      );
  };
}

/**
 * Adds up what a runner wrote to its report; a runner that wrote none has failed as a whole. `read` answers how many passed
 * and failed, and each test with its milliseconds.
 */
function count(file, read, fine) {
  if (!existsSync(file)) {
    failed += 1;
    return;
  }
  const [good, bad, tests] = read(JSON.parse(readFileSync(file, 'utf8')));
  took.push(...tests);
  passed += good;
  failed += bad > 0 || fine ? bad : 1;
}

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
rmSync('test-results', { recursive: true, force: true });
mkdirSync('test-results', { recursive: true });
const programsAreThere = beginPrograms();
timed('Packages', install);
const compiler = binOf('typescript-native', 'tsc');
check('Types', [compiler, '--noEmit', '--incremental', 'false', '-p', '.']);
check('Types of core, without DOM and Node', [compiler, '-p', 'src/core']);
check('Lint', [binOf('@biomejs/biome', 'biome'), 'check', '--error-on-warnings', '.']);
// The pages that unit tests make link to the style sheet that is built.
timed('Build', build);
await programsAreThere();
if (postgresPrograms() === null)
  console.error(
    'Without PostgreSQL 15 or later nothing is tested on a server: neither the store and the services, nor several processes.',
  );
const units = step('Unit tests', [
  binOf('vitest'),
  'run',
  '--reporter=dot',
  '--reporter=json',
  '--outputFile.json=test-results/units.json',
]);
count(
  'test-results/units.json',
  ({ numPassedTests, numFailedTests, testResults }) => [
    numPassedTests,
    numFailedTests,
    testResults.flatMap(({ assertionResults }) =>
      assertionResults.map(({ fullName, duration = 0 }) => [fullName, duration]),
    ),
  ],
  units,
);
check('Leak check over HTTP', [
  '--import',
  'tsx',
  'scripts/leakcheck.ts',
  // The unit tests try every door as everybody with a story; over HTTP a few show that nothing else answers.
  '--as=ines,sunniva',
]);
// Three processes on one server: each kind of fault once; `npm run faults` asks for two hundred.
if (postgresPrograms() !== null) check('Several processes', ['--import', 'tsx', 'scripts/faults.ts', '6']);
const browser = step('Browser tests', [binOf('@playwright/test', 'playwright'), 'test']);
/** The stories of a suite of Playwright’s and of those within it. */
const storiesIn = ({ specs = [], suites = [] }) => [
  ...specs.map(({ title, tests }) => [
    title,
    tests.flatMap(({ results }) => results).reduce((sum, { duration }) => sum + duration, 0),
  ]),
  ...suites.flatMap(storiesIn),
];
count(
  'test-results/browser.json',
  ({ stats, suites }) => [stats.expected, stats.unexpected + stats.flaky, suites.flatMap(storiesIn)],
  browser,
);

console.log(`\n— ${steps.join(', ')}`);
console.log(`\n— The slowest ${SLOWEST} tests`);
for (const [name, ms] of took.sort((a, b) => b[1] - a[1]).slice(0, SLOWEST))
  console.log(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
