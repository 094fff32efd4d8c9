/**
 * `npm run bench`: measures decisions and pages, and prints ratios of one run. `-- growing [people] [items]` measures what
 * changes cost on sites of so many, with commas between them. `-- several` measures several processes on a PostgreSQL server.
 */
import { cpSync, rmSync } from 'node:fs';
import { build, install, run, runScript } from './setup.mjs';
import { startDemo } from './with-demo.mjs';

const PORT = 4175;
const DATA = '.data-bench';
const ANEW = '.data-bench-anew';

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
install();
build();
const [what, ...sizes] = process.argv.slice(2);
if (what === 'growing') {
  const memory = ['--expose-gc', '--max-old-space-size=8000'];
  run(process.execPath, [...memory, '--import', 'tsx', 'bench/growing-main.ts', ...sizes], {
    NODE_ENV: 'production',
  });
  process.exit(0);
}
if (what === 'several') {
  runScript('bench/several.ts', [], { NODE_ENV: 'production' });
  process.exit(0);
}
runScript('bench/load-site.ts', [], { TRIVET_DATA: DATA, NODE_ENV: 'production' });
rmSync(ANEW, { recursive: true, force: true });
cpSync(DATA, ANEW, { recursive: true });
const kept = await startDemo(PORT, DATA, { keep: true });
const anew = await startDemo(PORT + 1, ANEW, { keep: true, env: { TRIVET_KEPT: '0' } });
try {
  runScript('bench/main.ts', [String(PORT)], { NODE_ENV: 'production' });
} finally {
  await kept.stop();
  await anew.stop();
}
