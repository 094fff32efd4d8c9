/** `npm run dev`: the demo with code that reloads as it is edited. */
import { install, runScript } from './setup.mjs';

process.env.TRIVET_DATA ??= '.data-dev';
install();
runScript('scripts/build-assets.ts');
runScript('scripts/load-demo.ts', ['--keep']);
runScript('scripts/serve.ts', ['--dev']);
