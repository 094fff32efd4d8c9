/** `npm start`: serves an existing data folder. */
import { spawn } from 'node:child_process';
import { build, install } from './setup.mjs';

process.env.NODE_ENV = 'production';
install();
build();
// What lives for one request is swept away in larger, rarer sweeps.
const server = spawn(process.execPath, ['--max-semi-space-size=32', '.next/serve.mjs'], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
