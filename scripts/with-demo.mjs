/** A demo of its own for a program to work with, on a port and a data folder that nobody else uses. */
import { spawn } from 'node:child_process';

/** Starts the demo and waits until it is ready; `keep` leaves what is in its data folder. */
export async function startDemo(port, data, { keep = false, env = {} } = {}) {
  const server = spawn(process.execPath, ['scripts/demo.mjs', ...(keep ? ['--keep'] : [])], {
    env: { ...process.env, PORT: String(port), TRIVET_DATA: data, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  // However this program ends, the demo ends with it.
  process.on('exit', () => server.kill('SIGTERM'));
  await new Promise((resolve, reject) => {
    server.on('exit', (code) => reject(new Error(`The demo stopped with code ${code}.`)));
    server.stdout.on('data', (part) => String(part).includes('Trivet is ready') && resolve());
  });
  return {
    stop: () =>
      new Promise((resolve) => {
        if (server.exitCode !== null || server.signalCode !== null) return resolve();
        server.removeAllListeners('exit');
        server.on('exit', resolve);
        server.kill('SIGTERM');
      }),
  };
}
