/**
 * Reads texts in a thread of its own, so that nobody waits for somebody else's. Plain JavaScript, because a thread is loaded
 * by Node itself.
 */
import { parentPort } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const { readDocument } = await tsImport('./read-document.ts', import.meta.url);

parentPort.on('message', (question) => {
  parentPort.postMessage(readDocument(question));
});
