/**
 * A process that is killed (SIGKILL) while it begins a site, puts gates live, takes a file in, moves pages, makes areas, takes
 * pages in, writes people down, is backed up, is brought back, is moved, sells, or records what somebody is done with, how a
 * quiz went and what a tutor accepted leaves the old state or the new one.
 */
import { type ChildProcess, spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Bundled, bundled } from './bundle-for-tests';

/** How often each is killed, and the shop twice as often; `npm run kills` asks for more. */
const KILLS = Number(process.env.TRIVET_KILLS ?? 2);
const folder = mkdtempSync(join(tmpdir(), 'trivet-killed-'));
let program: Bundled;
let shop: Bundled;
let keeper: Bundled;

beforeAll(() => {
  program = bundled('scripts/until-killed.ts');
  shop = bundled('scripts/sell-until-killed.ts');
  keeper = bundled('scripts/keep-until-killed.ts');
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  program.remove();
  shop.remove();
  keeper.remove();
});

const ended = (child: ChildProcess) => new Promise<void>((resolve) => child.once('close', () => resolve()));

/** Turns of the event loop: a wait of no particular length, so that the kill falls anywhere. */
async function turns(count: number): Promise<void> {
  for (let at = 0; at < count; at++) await new Promise((resolve) => setImmediate(resolve));
}

/** Starts the program, kills it some time after it began a change; answers what it found when it started. */
async function runAndKill(args: readonly string[], begun: number, wait: number): Promise<string> {
  const child = spawn(process.execPath, [...args], {
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

/** Starts the program to look at what there is; answers what it found. */
async function look(args: readonly string[]): Promise<string> {
  const child = spawn(process.execPath, [...args, 'look'], { stdio: ['ignore', 'pipe', 'inherit'] });
  const over = ended(child);
  const lines = createInterface({ input: child.stdout })[Symbol.asyncIterator]();
  const found = ((await lines.next()).value as string | undefined) ?? 'nothing was said';
  await over;
  return found;
}

/** Kills a program over and over, and looks at what it leaves; answers how far it was each time. */
async function killed(args: readonly string[], kills: number): Promise<readonly number[]> {
  const found: string[] = [];
  for (let kill = 0; kill < kills; kill++) {
    // From at once to long after the first change: spread over the kills rather than drawn, so that a failure comes again.
    found.push(await runAndKill(args, 1 + (kill % 3), (kill * 7919) % 20_000));
  }
  found.push(await look(args));
  expect(found.filter((line) => !line.startsWith('whole'))).toEqual([]);
  const changes = found.map((line) => Number(/after (\d+)/.exec(line)?.[1]));
  // What was done never goes back, and the kills fell where something was going on.
  expect(changes).toEqual(changes.toSorted((a, b) => a - b));
  expect(new Set(changes).size).toBeGreaterThan(kills / 4);
  return changes;
}

it.concurrent.each([['put live'], ['import'], ['move'], ['learn'], ['areas']])(
  'while it does: %s',
  async (how) => {
    await killed([...program.args, join(folder, how.replace(' ', '-')), how], KILLS);
  },
  600_000,
);

it.concurrent('while a site is begun: there is none, or all of it', async () => {
  for (let kill = 0; kill < KILLS; kill++) {
    const args = [...program.args, join(folder, `begin-${kill}`), 'begin'];
    expect(await runAndKill(args, 1, (kill * 7919) % 20_000)).toBe('whole nothing after 0');
    expect(await look(args)).toMatch(/^whole /);
  }
}, 600_000);

it.concurrent('while it sells: whoever paid is in, nobody else is, no seat is sold twice and no notice is lost', async () => {
  const sold = await killed([...shop.args, join(folder, 'sell')], KILLS * 2);
  expect(sold.at(-1)).toBeGreaterThan(KILLS);
}, 600_000);

it.concurrent('while it is backed up: the site is as it was, and a backup is there whole or the one before it', async () => {
  const to = join(folder, 'backup');
  mkdirSync(to);
  const args = [...keeper.args, to];
  for (let kill = 0; kill < KILLS; kill++)
    expect(await runAndKill([...args, 'backup'], 1 + (kill % 2), (kill * 7919) % 20_000)).toMatch(
      /^whole after.* true$/,
    );
  expect(await look(args)).toMatch(/^whole after.* true$/);
  expect(await look([...args, 'restore'])).toMatch(/^whole after/);
  // What was brought back is one of them, whole.
  expect(await look(args)).toMatch(/^whole (?:before|after.*) true$/);
}, 600_000);

it.concurrent('while people are written down: whoever begins reads what was written last, and has what the tables hold', async () => {
  const to = join(folder, 'write-down');
  mkdirSync(to);
  const args = [...keeper.args, to, 'write down'];
  expect(await runAndKill(args, 3, 0)).toBe('whole as in the tables');
  for (let kill = 0; kill < KILLS; kill++)
    expect(await runAndKill(args, 3 + (kill % 2), (kill * 7919) % 20_000)).toBe('whole as written down');
}, 600_000);

it.concurrent('while it is brought back: what was there, or what is brought back', async () => {
  const from = join(folder, 'restore');
  mkdirSync(from);
  expect(await look([...keeper.args, from])).toBe('whole after true');
  for (let kill = 0; kill < KILLS; kill++) {
    const to = join(folder, `restore-${kill}`);
    cpSync(from, to, { recursive: true });
    const args = [...keeper.args, to];
    expect(await runAndKill([...args, 'restore'], 1, (kill * 30_011) % 60_000)).toBe('whole after true');
    expect(await look(args)).toMatch(/^whole (?:before|after) true$/);
  }
}, 600_000);

it.concurrent('while it is moved to another folder: nothing is there, or all of it, and another try brings it', async () => {
  const from = join(folder, 'move-from');
  mkdirSync(from);
  expect(await look([...keeper.args, from])).toBe('whole after true');
  for (let kill = 0; kill < KILLS; kill++) {
    const to = join(folder, `move-to-${kill}`);
    mkdirSync(to);
    const move = [...keeper.args, from, 'move', to];
    expect(await runAndKill(move, 1, (kill * 30_011) % 60_000)).toBe('whole after true');
    if (!existsSync(join(to, 'database'))) expect(await look(move)).toBe('whole after true');
    expect(await look([...keeper.args, to])).toBe('whole after false');
  }
}, 600_000);
