import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { postgresPrograms } from './scripts/postgres.mjs';

const IN_A_DESK = ['src/{desk,ui}/**/*.test.{ts,tsx}'];
/** What asks a database, which is opened by what is there for tests; on a server as well where one is installed. */
const ON_A_SERVER =
  postgresPrograms() === null
    ? []
    : ['src/store', 'src/services'].flatMap((folder) =>
        readdirSync(folder, { recursive: true, encoding: 'utf8' })
          .map((path) => `${folder}/${path}`)
          .filter((path) => path.endsWith('.test.ts') && /\/testing'/.test(readFileSync(path, 'utf8'))),
      );
/** What is about the embedded database, its files and its thread. */
const EMBEDDED = [
  'src/store/{new-database,threaded-client,turns,upgrade}.test.ts',
  'src/services/keeping/keeping.test.ts',
];

/** What starts processes, knocks at every door or asks the compiler, which takes longest. */
const takesLong = ({ moduleId }: TestSpecification): boolean =>
  /\/scripts\/|leak-check|site-file\/|people\.test|hostile/.test(moduleId);

/** What takes longest begins first, so that no core waits for the other at the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    return [...sorted.filter(takesLong), ...sorted.filter((file) => !takesLong(file))];
  }
}

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    // One process per core: the one that counts has next to nothing to do.
    maxWorkers: '100%',
    // What is imported is read once a process, and databases of tests that are over serve those that follow.
    isolate: false,
    sequence: { sequencer: LongestFirst },
    testTimeout: 60_000,
    hookTimeout: 60_000,
    projects: [
      // Testing components needs the React of development.
      { extends: true, test: { name: 'desk', include: IN_A_DESK } },
      {
        extends: true,
        // Everything else runs what is shipped; React in development takes ten times as long over a page.
        oxc: { jsx: { development: false } },
        test: {
          name: 'rest',
          globalSetup: 'scripts/load-for-tests.ts',
          include: ['{src,demo,bench,scripts,till}/**/*.test.{ts,tsx}'],
          exclude: IN_A_DESK,
          env: { NODE_ENV: 'production' },
        },
      },
      {
        extends: true,
        oxc: { jsx: { development: false } },
        test: {
          name: 'server',
          globalSetup: 'scripts/load-server-for-tests.ts',
          include: ON_A_SERVER,
          exclude: EMBEDDED,
          env: { NODE_ENV: 'production' },
        },
      },
    ],
  },
});
