/**
 * `npm run leakcheck`: tries every door of a marked copy of the site, over HTTP, as its visitors. The site is the demo, or
 * what TRIVET_DATA (stop its server first) or TRIVET_DATABASE holds. `-- --everyone` tries as every member, `-- --as=marek,ines` as
 * these.
 */
import { build, install, runScript } from './setup.mjs';

install();
build();
runScript('scripts/leakcheck.ts', process.argv.slice(2), { NODE_ENV: 'production' });
