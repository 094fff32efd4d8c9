/** `npm run kills`: kills processes two hundred times while they change things and sell; `npm test` does so twenty times. */
import { install, runBin } from './setup.mjs';

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
install();
process.env.TRIVET_KILLS = '34';
runBin('vitest', ['run', 'scripts/killed.test.ts']);
