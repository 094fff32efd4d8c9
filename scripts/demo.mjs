/** `npm run demo`: everything on a fresh machine, from nothing to a served demo site. `-- --keep` keeps its data. */
import { build, install, runScript } from './setup.mjs';
import { nameTill, startTill } from './stand-in.mjs';

process.env.TRIVET_DATA ??= '.data-demo';
process.env.NODE_ENV = 'production';
const standsIn = nameTill();

install();
build();
runScript('scripts/load-demo.ts', process.argv.includes('--keep') ? ['--keep'] : []);

if (standsIn) startTill(['.next/till.mjs']);

process.env.TRIVET_HINT = `  Everybody's password in the demo is larkfell-demo.

  greta@larkfell.example    runs the desk; a Keeper on the site
  marek@larkfell.example    signed in, and nothing else
  tobin@larkfell.example    an Observer
  wren@larkfell.example     an Observer, in the Dome crew
  basil@larkfell.example    an Observer, suspended
  … and 67 more people of Larkfell. The passphrase of /comet-night is: bring a red torch`;
await import('./start.mjs');
