import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** The tests of core alone, for `npm run mutants`: they need no database. */
export default defineConfig({
  resolve: {
    alias: { 'fast-check': fileURLToPath(new URL('./scripts/fast-check-for-mutants.ts', import.meta.url)) },
  },
  test: { include: ['src/core/**/*.test.ts'], testTimeout: 60_000 },
});
