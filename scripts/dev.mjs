/** `npm run dev`: the demo with code that reloads as it is edited. */
import { install, runScript } from './setup.mjs';
import { nameTill, startTill } from './stand-in.mjs';

process.env.TRIVET_DATA ??= '.data-dev';
const standsIn = nameTill();
install();
runScript('scripts/build-assets.ts');
runScript('scripts/load-demo.ts', ['--keep']);
if (standsIn) startTill(['--import', 'tsx', 'till/main.ts']);
runScript('scripts/serve.ts', ['--dev']);
