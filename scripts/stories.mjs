/** `npm run stories [-- <number>]`: the browser's stories twice over on the same servers, in an order drawn from a number. */
import { binOf, build, install, run } from './setup.mjs';

const seed = Number(process.argv[2] ?? Date.now() % 1_000_000);
console.log(`The order is that of ${seed}.`);
// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
install();
build();
process.env.TRIVET_SHUFFLE = String(seed);
run(process.execPath, [binOf('@playwright/test', 'playwright'), 'test']);
