/** `npm run bench`: measures decisions and pages, and prints ratios of one run. */
import { cpSync, rmSync } from 'node:fs';
import { build, install, runScript } from './setup.mjs';
import { startDemo } from './with-demo.mjs';

const PORT = 4175;
const DATA = '.data-bench';
const ANEW = '.data-bench-anew';

install();
build();
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
