/** A port of this machine that nobody uses. */
import { createServer } from 'node:net';

export const freePort = () =>
  new Promise((found, failed) => {
    const server = createServer().once('error', failed);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => found(port));
    });
  });
