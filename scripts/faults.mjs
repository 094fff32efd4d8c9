/** `npm run faults`: two hundred faults of three processes and their database; `npm test` makes six. `-- 1000` makes more. */
import { build, install, runScript } from './setup.mjs';

// Whatever database is set: nothing here is done to it.
delete process.env.TRIVET_DATABASE;
install();
build();
runScript('scripts/faults.ts', process.argv.slice(2));
