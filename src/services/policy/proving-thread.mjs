/**
 * Proves expectations in a thread of its own: what is certain of every visitor there could be takes longer than anybody should
 * wait for somebody else's. Plain JavaScript, because a thread is loaded by Node itself.
 */
import { parentPort } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const { proveNow } = await tsImport('./proving.ts', import.meta.url);

parentPort.on('message', (task) => parentPort.postMessage(proveNow(task)));
