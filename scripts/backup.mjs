/** `npm run backup -- <file>`: everything of the site in TRIVET_DATA as one file, while it is served or not. */
import { install, runScript } from './setup.mjs';

install();
runScript('scripts/backup.ts', process.argv.slice(2), { NODE_ENV: 'production' });
