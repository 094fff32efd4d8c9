/** `npm run kills`: kills a process a hundred times while it changes things; `npm test` does so some twenty times. */
import { install, runBin } from './setup.mjs';

install();
process.env.TRIVET_KILLS = '34';
runBin('vitest', ['run', 'scripts/killed.test.ts']);
