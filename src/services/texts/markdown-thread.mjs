/**
 * Reads Markdown in a thread of its own, for texts that take longer than anybody should wait for somebody else's. Plain
 * JavaScript, because a thread is loaded by Node itself.
 */
import { parentPort } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const { htmlOf, plainTextOf } = await tsImport('./markdown.ts', import.meta.url);

parentPort.on('message', (markdown) => {
  parentPort.postMessage({ html: htmlOf(markdown), words: plainTextOf(markdown) });
});
