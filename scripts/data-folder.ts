/** Taking a data folder into use: it has to be writable, and nobody else may be using it. */
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { finishRestore } from '../src/services';

/** A data folder in use, or a sentence that says why it can't be. */
export type Claim = { readonly release: () => void } | { readonly problem: string };

/**
 * Claims a folder for this process by a file with its process number. The embedded database must not be opened twice; a
 * claim left behind by a process that is gone is taken over. What was brought back and did not get to its place takes it now.
 */
export function claimDataFolder(folder: string): Claim {
  const file = join(folder, 'in-use');
  try {
    mkdirSync(folder, { recursive: true });
    const other = holderOf(file);
    if (other !== null) {
      return {
        problem: `The data folder ${folder} is in use by process ${other}. Stop that one, or name another folder with TRIVET_DATA.`,
      };
    }
    rmSync(file, { force: true });
    writeFileSync(file, String(process.pid), { flag: 'wx' });
    finishRestore(folder);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? 'error';
    return {
      problem: `The data folder ${folder} can't be written (${code}). Give this user the right to write there, or name another folder with TRIVET_DATA.`,
    };
  }
  return { release: () => rmSync(file, { force: true }) };
}

function holderOf(file: string): number | null {
  let pid: number;
  try {
    pid = Number(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
  if (!Number.isInteger(pid) || pid <= 0 || pid === process.pid) return null;
  try {
    process.kill(pid, 0);
    return pid;
  } catch (error) {
    // A process that exists but belongs to somebody else may not be signalled.
    return (error as NodeJS.ErrnoException).code === 'EPERM' ? pid : null;
  }
}
