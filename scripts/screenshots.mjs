/** `npm run screenshots`: takes the pictures in docs/screenshots anew, from fresh demo data. */
import { build, install, runScript } from './setup.mjs';
import { startDemo } from './with-demo.mjs';

const PORT = 4174;

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
install();
build();
const demo = await startDemo(PORT, '.data-screenshots');
try {
  runScript('scripts/take-screenshots.ts', [String(PORT)]);
} finally {
  await demo.stop();
}
