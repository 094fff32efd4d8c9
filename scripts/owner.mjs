/** `npm run owner -- <mail address>`: a link with which somebody chooses a password and owns the site in TRIVET_DATA. */
import { install, runScript } from './setup.mjs';

install();
runScript('scripts/owner.ts', process.argv.slice(2), { NODE_ENV: 'production' });
