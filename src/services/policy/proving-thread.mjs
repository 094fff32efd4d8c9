/**
 * Proves expectations in a thread of its own: what is certain of every visitor there could be takes longer than anybody should
 * wait for somebody else's. Plain JavaScript, because a thread is loaded by Node itself.
 */
import { parentPort, workerData } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const { compile, expectationsProved, outlineOf } = await tsImport('../../core/index.ts', import.meta.url);

const { items, names, policy, today, following } = workerData;
parentPort.postMessage(expectationsProved(compile(policy, outlineOf(items), names), today, following));
