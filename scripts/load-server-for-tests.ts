/** Starts a PostgreSQL server and loads Larkfell on it once for the tests that run there; each begins with a copy. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { loadLarkfell } from '../src/services/testing';
import { openDatabase } from '../src/store';
import '../src/store/testing';
import { startPostgres } from './postgres.mjs';

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  // Where whoever the server runs as can go, wherever this project is.
  const postgres = await startPostgres(mkdtempSync(join(tmpdir(), 'trivet-postgres-')));
  postgres.create('larkfell');
  const trivet = await loadLarkfell(await openDatabase(postgres.url('larkfell')));
  await trivet.close();
  project.provide('server', postgres.url('postgres'));
  project.provide('larkfell', 'larkfell');
  return postgres.clear;
}
