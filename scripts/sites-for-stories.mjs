/**
 * The sites of browser stories, a server for each port: they begin side by side, and the first port answers when all of them do.
 */
import { createServer } from 'node:http';
import { build, install } from './setup.mjs';
import { startDemo } from './with-demo.mjs';

const [telling, ...ports] = process.argv.slice(2).map(Number);
// Once, before each of them looks whether it is done.
process.env.NODE_ENV = 'production';
install();
build();
const sites = await Promise.all(ports.map((port) => startDemo(port, `.data-browser-tests/${port}`)));
const teller = createServer((_, response) => response.end()).listen(telling, '127.0.0.1');
process.once('SIGTERM', async () => {
  teller.close();
  await Promise.all(sites.map(({ stop }) => stop()));
  process.exit();
});
