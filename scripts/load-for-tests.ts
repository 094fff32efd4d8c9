/** Loads Larkfell once for all unit tests; each begins with a copy. */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { loadLarkfell } from '../src/services/testing';
import { openEmbedded } from '../src/store';
import '../src/store/testing';

export default async function setup(project: TestProject): Promise<() => void> {
  const folder = 'test-results';
  const file = `${folder}/larkfell-${process.pid}.tar`;
  mkdirSync(folder, { recursive: true });
  const opened = await openEmbedded(null);
  const trivet = await loadLarkfell(opened);
  writeFileSync(file, new Uint8Array(await (await opened.dump()).arrayBuffer()));
  await trivet.close();
  project.provide('server', null);
  project.provide('larkfell', file);
  return () => rmSync(file, { force: true });
}
