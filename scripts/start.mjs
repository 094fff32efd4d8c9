/** `npm start`: serves an existing data folder. */
import { spawn } from 'node:child_process';
import { build, install } from './setup.mjs';

process.env.NODE_ENV = 'production';
install();
build();
const server = spawn(process.execPath, ['.next/serve.mjs'], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
