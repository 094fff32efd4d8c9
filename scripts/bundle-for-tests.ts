/** Programs that tests start over and over: in one file, and with the quickest start that the engine has. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildSync } from 'esbuild';

/** A program in one file, and what to start it with. */
export interface Bundled {
  readonly args: readonly string[];
  readonly remove: () => void;
}

/** Bundles one of our programs; what it needs of other packages is beside it. */
export function bundled(entry: string): Bundled {
  const file = join('test-results', `${entry.replace(/\W+/g, '-')}-${process.pid}.mjs`);
  buildSync({
    entryPoints: [entry],
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: ['@electric-sql/pglite', '@node-rs/argon2', 'next', 'sharp'],
    // Some of what is bundled asks for its parts in the old way.
    banner: {
      js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
    },
    outfile: file,
    logLevel: 'silent',
  });
  return {
    // The database is made for a long life; here it lives for a second, and is not worth optimising.
    args: ['--liftoff-only', file],
    remove: () => rmSync(file, { force: true }),
  };
}
