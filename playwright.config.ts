import { createHash } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { defineConfig } from '@playwright/test';

// A browser and the server it asks wait for one another half of the time: two of each keep two cores busy.
const WORKERS = Math.max(2, Math.floor(availableParallelism() / 2));
/** A server for each worker. */
export const PORTS = Array.from({ length: WORKERS }, (_, at) => 4173 + at);
/** What answers when all of them do. */
const ALL_THERE = 4172;

/** What comes when everybody else is done. */
const LATE = ['watchdog.spec.ts', 'selling.spec.ts'];

/** The files of stories twice over, each time in an order of their own: what one leaves behind, another finds. */
const twiceShuffled = (seed: string) =>
  ['first', 'second'].flatMap((time) =>
    readdirSync('e2e')
      .filter((file) => file.endsWith('.spec.ts') && !LATE.includes(file))
      .map((file) => ({ name: `${time} ${file}`, testMatch: file }))
      .sort((a, b) => (drawn(seed, a.name) < drawn(seed, b.name) ? -1 : 1)),
  );

/** The same for the same seed and name, and in no order otherwise. */
const drawn = (seed: string, name: string): string =>
  createHash('sha256').update(`${seed} ${name}`).digest('hex');

/** Debian's Chromium; without the windows that nobody looks at, where there is that: stories take a sixth less. */
const WITHOUT_WINDOWS = '/usr/bin/chromium-headless-shell';
const CHROMIUM = existsSync(WITHOUT_WINDOWS) ? WITHOUT_WINDOWS : '/usr/bin/chromium';

const { TRIVET_SHUFFLE } = process.env;

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // A server with a site for each: its stories run one after the other, and each puts back what it changed.
  workers: WORKERS,
  fullyParallel: false,
  retries: 0,
  // Long, because it is waited for only by what fails.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  projects: TRIVET_SHUFFLE
    ? twiceShuffled(TRIVET_SHUFFLE)
    : [
        { name: 'stories', testIgnore: LATE },
        // How long one waits is measured while nobody else works.
        { name: 'watchdog', testMatch: 'watchdog.spec.ts', dependencies: ['stories'] },
        // It moves the clock on, and nobody can move it back.
        { name: 'selling', testMatch: 'selling.spec.ts', dependencies: ['watchdog'] },
      ],
  use: {
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? CHROMIUM,
      args: [
        '--no-sandbox',
        // A story is over before what is compiled better pays: an eighth of a page’s processor time went there.
        '--js-flags=--no-turbofan --no-maglev',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `node scripts/sites-for-stories.mjs ${ALL_THERE} ${PORTS.join(' ')}`,
    url: `http://127.0.0.1:${ALL_THERE}/`,
    timeout: 300_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    stdout: 'ignore',
  },
});
