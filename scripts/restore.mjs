/** `npm run restore -- <file>`: brings the site of a backup back into TRIVET_DATA. */
import { install, runScript } from './setup.mjs';

install();
runScript('scripts/restore.ts', process.argv.slice(2), { NODE_ENV: 'production' });
