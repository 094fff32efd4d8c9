/** `npm run kills`: kills processes two hundred times while they change things and sell; `npm test` does so twenty times. */
import { install, runBin } from './setup.mjs';

install();
process.env.TRIVET_KILLS = '34';
runBin('vitest', ['run', 'scripts/killed.test.ts']);
