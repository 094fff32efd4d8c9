/** `npm run bench`: measures decisions and pages, and prints ratios of one run. */
import { build, install, runScript } from './setup.mjs';
import { startDemo } from './with-demo.mjs';

const PORT = 4175;

install();
build();
const demo = await startDemo(PORT, '.data-bench');
try {
  runScript('bench/main.ts', [String(PORT)], { NODE_ENV: 'production' });
} finally {
  await demo.stop();
}
