/**
 * `npm run site -- export <file>`, `-- import <file>`, `-- check <file>`: the site in TRIVET_DATA as one file. Stop its server
 * first. `--with-people` puts people into an export.
 */
import { install, runScript } from './setup.mjs';

install();
runScript('scripts/site.ts', process.argv.slice(2), { NODE_ENV: 'production' });
