import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** The tests of core, or of one room of it, for `npm run mutants`: they need no database. */
const { TRIVET_ROOM = '**' } = process.env;

export default defineConfig({
  resolve: {
    alias: { 'fast-check': fileURLToPath(new URL('./scripts/fast-check-for-mutants.ts', import.meta.url)) },
  },
  test: {
    include: [`src/core/${TRIVET_ROOM}/**/*.test.ts`],
    // Thousands of sentences are read there, and none of these rooms makes one.
    exclude: ['src/core/sentence/reading.test.ts'],
    testTimeout: 60_000,
  },
});
