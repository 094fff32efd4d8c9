import { availableParallelism } from 'node:os';
import { defineConfig } from '@playwright/test';

// A browser and the server it asks keep two cores busy; with less for each, stories wait longer than a person would.
const WORKERS = Math.max(1, Math.floor(availableParallelism() / 2));
/** A server for each worker. */
export const PORTS = Array.from({ length: WORKERS }, (_, at) => 4173 + at);

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // A server with a site for each: its stories run one after the other, and each puts back what it changed.
  workers: WORKERS,
  fullyParallel: false,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  projects: [
    { name: 'stories', testIgnore: 'watchdog.spec.ts' },
    // How long one waits is measured while nobody else works.
    { name: 'watchdog', testMatch: 'watchdog.spec.ts', dependencies: ['stories'] },
  ],
  use: {
    actionTimeout: 15_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: PORTS.map((port) => ({
    command: 'node scripts/demo.mjs',
    url: `http://localhost:${port}/`,
    env: { PORT: String(port), TRIVET_DATA: `.data-browser-tests/${port}` },
    timeout: 300_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    stdout: 'ignore',
  })),
});
