import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { claimDataFolder } from './data-folder';

const folder = mkdtempSync(join(tmpdir(), 'trivet-'));
afterAll(() => {
  chmodSync(folder, 0o700);
  rmSync(folder, { recursive: true });
});

it('claims a folder, makes it if need be, and gives it back', () => {
  const claim = claimDataFolder(join(folder, 'new'));
  if ('problem' in claim) throw new Error(claim.problem);
  expect(readFileSync(join(folder, 'new', 'in-use'), 'utf8')).toBe(String(process.pid));
  claim.release();
  expect(() => readFileSync(join(folder, 'new', 'in-use'))).toThrow();
});

it('refuses a folder that a living process uses, and says which', () => {
  writeFileSync(join(folder, 'in-use'), String(process.ppid));
  expect(claimDataFolder(folder)).toEqual({
    problem: expect.stringContaining(`process ${process.ppid}. Stop that one`),
  });
});

it('takes over what a dead process left behind', () => {
  writeFileSync(join(folder, 'in-use'), '999999999');
  const claim = claimDataFolder(folder);
  expect('problem' in claim).toBe(false);
});

it('says so when the folder is a file', () => {
  writeFileSync(join(folder, 'file'), '');
  expect(claimDataFolder(join(folder, 'file'))).toEqual({
    problem: expect.stringMatching(/can't be written \(.+TRIVET_DATA/),
  });
});
