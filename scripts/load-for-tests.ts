/** Loads Larkfell once for all unit tests; each begins with a copy. */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { loadLarkfell } from '../src/services/testing';

declare module 'vitest' {
  interface ProvidedContext {
    /** The file that holds it. */
    larkfell: string;
  }
}

export default async function setup(project: TestProject): Promise<() => void> {
  const folder = 'test-results';
  const file = `${folder}/larkfell-${process.pid}.tar`;
  mkdirSync(folder, { recursive: true });
  const trivet = await loadLarkfell();
  writeFileSync(file, new Uint8Array(await (await trivet.dump()).arrayBuffer()));
  await trivet.close();
  project.provide('larkfell', file);
  return () => rmSync(file, { force: true });
}
