/** `npm run demo`: everything on a fresh machine, from nothing to a served demo site. `-- --keep` keeps its data. */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { build, install, runScript } from './setup.mjs';

process.env.TRIVET_DATA ??= '.data-demo';
process.env.NODE_ENV = 'production';
// The stand-in till stands beside the site, and both know a key that nobody else does.
process.env.TRIVET_TILL ??= `http://localhost:${Number(process.env.PORT ?? 3000) + 100}`;
process.env.TRIVET_TILL_KEYS ??= `whsec_${randomBytes(32).toString('base64')}`;

install();
build();
runScript('scripts/load-demo.ts', process.argv.includes('--keep') ? ['--keep'] : []);

const till = spawn(process.execPath, ['.next/till.mjs'], { stdio: 'inherit' });
process.on('exit', () => till.kill('SIGTERM'));
till.on('exit', (code) => code && process.exit(code));

process.env.TRIVET_HINT = `  Everybody's password in the demo is larkfell-demo.

  greta@larkfell.example    runs the desk; a Keeper on the site
  marek@larkfell.example    signed in, and nothing else
  tobin@larkfell.example    an Observer
  wren@larkfell.example     an Observer, in the Dome crew
  basil@larkfell.example    an Observer, suspended
  … and 67 more people of Larkfell. The passphrase of /comet-night is: bring a red torch`;
await import('./start.mjs');
