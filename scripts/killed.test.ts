/**
 * A process that is killed (SIGKILL) while it puts gates live, takes a file in, moves pages or records what somebody is done
 * with, how a quiz went and what a tutor accepted leaves the old state or the new one.
 */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Bundled, bundled } from './bundle-for-tests';

/** How often each of the four is killed; `npm run kills` asks for more. */
const KILLS = Number(process.env.TRIVET_KILLS ?? 5);
const folder = mkdtempSync(join(tmpdir(), 'trivet-killed-'));
let program: Bundled;

beforeAll(() => {
  program = bundled('scripts/until-killed.ts');
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  program.remove();
});

const ended = (child: ChildProcess) => new Promise<void>((resolve) => child.once('close', () => resolve()));

/** Turns of the event loop: a wait of no particular length, so that the kill falls anywhere. */
async function turns(count: number): Promise<void> {
  for (let at = 0; at < count; at++) await new Promise((resolve) => setImmediate(resolve));
}

/** Starts the program, kills it some time after it began a change; answers what it found when it started. */
async function runAndKill(data: string, how: string, begun: number, wait: number): Promise<string> {
  const child = spawn(process.execPath, [...program.args, data, how], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const over = ended(child);
  const lines = createInterface({ input: child.stdout })[Symbol.asyncIterator]();
  const found = (await lines.next()).value as string | undefined;
  for (let at = 0; at < begun; at++) await lines.next();
  await turns(wait);
  child.kill('SIGKILL');
  await over;
  return found ?? 'nothing was said';
}

it.concurrent.each([['put live'], ['import'], ['move'], ['learn']])(
  'while it does: %s',
  async (how) => {
    const data = join(folder, how.replace(' ', '-'));
    const found: string[] = [];
    for (let kill = 0; kill < KILLS; kill++) {
      // From at once to long after the first change: spread over the kills rather than drawn, so that a failure comes again.
      found.push(await runAndKill(data, how, 1 + (kill % 3), (kill * 7919) % 20_000));
    }
    const child = spawn(process.execPath, [...program.args, data, how, 'look'], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const over = ended(child);
    const lines = createInterface({ input: child.stdout })[Symbol.asyncIterator]();
    found.push(((await lines.next()).value as string | undefined) ?? 'nothing was said');
    await over;
    expect(found.filter((line) => !line.startsWith('whole'))).toEqual([]);
    const changes = found.map((line) => Number(/after (\d+)/.exec(line)?.[1]));
    // What was done never goes back, and the kills fell where something was going on.
    expect(changes).toEqual(changes.toSorted((a, b) => a - b));
    expect(new Set(changes).size).toBeGreaterThan(KILLS / 4);
  },
  600_000,
);
