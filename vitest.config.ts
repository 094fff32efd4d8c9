import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const IN_A_DESK = ['src/{desk,ui}/**/*.test.{ts,tsx}'];

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    globalSetup: 'scripts/load-for-tests.ts',
    // One process per core: the one that counts has next to nothing to do.
    maxWorkers: '100%',
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
          include: ['{src,demo,bench,scripts}/**/*.test.{ts,tsx}'],
          exclude: IN_A_DESK,
          env: { NODE_ENV: 'production' },
        },
      },
    ],
  },
});
