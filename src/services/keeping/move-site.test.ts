import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, inject, it } from 'vitest';
import { differingTables, isEmptyDatabase, putIntoOutbox, readOutbox } from '@/store';
import { databaseOnServer } from '@/store/testing';
import { databaseIn, moveIntoFolder, moveSite, NotMoved, Trivet } from '..';
import { siteAsFile } from '../site-file';
import { now } from '../testing';
import { staleParts } from '../testing-memory';

describe.skipIf(inject('server') === null)('moving a site', () => {
  const left: (() => Promise<unknown>)[] = [];
  afterEach(async () => {
    for (const close of left.splice(0).toReversed()) await close();
  });

  async function onServer(begins: 'empty' | 'loaded') {
    const { url, drop } = await databaseOnServer(begins);
    left.push(drop);
    const trivet = await Trivet.open(url);
    left.push(() => trivet.close());
    return { url, trivet };
  }
  async function embedded(): Promise<Trivet> {
    const trivet = await Trivet.open(null);
    left.push(() => trivet.close());
    return trivet;
  }
  const letter = { to: 'a@larkfell.example', subject: 'One', text: '', at: now };
  const quietly = () => undefined;

  it('brings all of it from a server into an embedded database, and back, and goes on counting', async () => {
    const { trivet: from } = await onServer('loaded');
    await putIntoOutbox(from.db, letter);
    const there = await embedded();
    const told: number[] = [];
    const { rows, items, people } = await moveSite(from, there, (done, all) => told.push(done / all));
    expect(told.at(-1)).toBe(1);
    expect({ items, people }).toEqual({
      items: from.state.outline.items.size,
      people: from.state.people.size,
    });
    expect(rows).toBeGreaterThan(items + people);
    const { trivet: back } = await onServer('empty');
    await moveSite(there, back, quietly);
    for (const trivet of [there, back]) {
      expect(await siteAsFile(trivet, 'people who can sign in')).toEqual(
        await siteAsFile(from, 'people who can sign in'),
      );
      expect(await staleParts(trivet, now)).toEqual([]);
      expect(await differingTables(from.db, trivet.db)).toEqual([]);
      await putIntoOutbox(trivet.db, letter);
      expect((await readOutbox(trivet.db, 2)).map(({ id }) => id)).toEqual([2, 1]);
      expect(await differingTables(from.db, trivet.db)).toEqual(['outbox']);
    }
  });

  it('is refused where something is, where others are at it, and where there is no site', async () => {
    const { trivet: from, url } = await onServer('loaded');
    const { trivet: full } = await onServer('loaded');
    const there = await embedded();
    await expect(moveSite(from, full, quietly)).rejects.toThrow(
      'There is something already where it is to go.',
    );
    await expect(moveSite(there, full, quietly)).rejects.toThrow('There is no site to move.');
    const serving = await Trivet.open(url);
    left.push(() => serving.close());
    const refused = moveSite(from, there, quietly);
    await expect(refused).rejects.toThrow(NotMoved);
    await expect(refused).rejects.toThrow('A process serves this site now. Stop it first.');
    expect(await isEmptyDatabase(there.db)).toBe(true);
  });

  it('moves all of it or nothing', async () => {
    const { trivet: from } = await onServer('loaded');
    const there = await embedded();
    const stops = (done: number, all: number) => {
      if (done > all / 2) throw new Error('The plug is pulled.');
    };
    await expect(moveSite(from, there, stops)).rejects.toThrow('The plug is pulled.');
    expect(await isEmptyDatabase(there.db)).toBe(true);
    await moveSite(from, there, quietly);
    expect(there.hasSite).toBe(true);
  });

  it('is in a folder whole, or the folder is as it was', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'trivet-moved-'));
    left.push(async () => rmSync(folder, { recursive: true, force: true }));
    const { trivet: from } = await onServer('loaded');
    const stops = () => {
      throw new Error('The plug is pulled.');
    };
    await expect(moveIntoFolder(from, folder, stops)).rejects.toThrow('The plug is pulled.');
    expect(readdirSync(folder)).toEqual([]);
    const { items } = await moveIntoFolder(from, folder, quietly);
    expect(readdirSync(folder)).toEqual(['database']);
    await expect(moveIntoFolder(from, folder, quietly)).rejects.toThrow('holds something already');
    const there = await Trivet.open(databaseIn(folder));
    left.push(() => there.close());
    expect(there.state.outline.items.size).toBe(items);
  });
});
