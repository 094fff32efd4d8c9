/** Reads Markdown in a thread of its own, for texts that take longer than anybody should wait for somebody else's. */
import { parentPort } from 'node:worker_threads';
import { htmlOf, plainTextOf } from './markdown';

parentPort?.on('message', (markdown: string) => {
  parentPort?.postMessage({ html: htmlOf(markdown), words: plainTextOf(markdown) });
});
