import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts', 'bench/**/*.test.ts', 'scripts/**/*.test.ts'],
    globalSetup: 'scripts/load-for-tests.ts',
    // One process per core: the one that counts has next to nothing to do.
    maxWorkers: '100%',
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
