import { defineConfig } from 'vitest/config';

/** The tests of core alone, for `npm run mutants`: they need no database. */
export default defineConfig({
  test: {
    include: ['src/core/**/*.test.ts'],
    setupFiles: 'scripts/mutants-setup.ts',
    testTimeout: 60_000,
  },
});
