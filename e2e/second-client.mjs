/**
 * A client of its own beside the one that keeps the server busy, in a thread of its own, so that the first one's work is not
 * taken for the server's: asks after the server's health, one question after the other, until it is told to stop, and
 * answers the longest wait in milliseconds.
 */
import { get } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

const health = () =>
  new Promise((resolve, reject) => {
    const begun = performance.now();
    get(new URL('/api/health', workerData), { agent: false }, (response) => {
      response.resume().on('end', () => resolve(performance.now() - begun));
    }).on('error', reject);
  });

let going = true;
parentPort?.once('message', () => {
  going = false;
});
// The first question is the thread's own beginning.
await health();
parentPort?.postMessage('begun');
let longest = 0;
while (going) longest = Math.max(longest, await health());
parentPort?.postMessage(longest);
