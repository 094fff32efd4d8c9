/** Words are searched for as the site's language forms them, from the moment that it is chosen. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { asId, guest, type ItemId } from '@/core';
import { insertSearchTexts, updateSettings } from '@/store';
import { search, type Trivet } from '..';
import { liveContext, openLarkfell } from '../testing';

let trivet: Trivet;
beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

const speak = (language: string) => trivet.change(() => updateSettings(trivet.db, { language }));
const hits = async (question: string): Promise<readonly ItemId[]> =>
  (await search(liveContext(trivet.state, guest), trivet.db, question)).hits.map(({ item }) => item);

it('finds other forms of a word in that language, what was there before and what comes after', async () => {
  const visits = await hits('visits');
  expect(visits.length).toBeGreaterThan(0);
  expect(await hits('visiting')).toEqual(visits);
  await speak('de');
  const visit = asId<ItemId>('visit');
  await insertSearchTexts(trivet.db, [{ item: visit, kind: 'title', path: '', text: 'Die Häuser am Hang' }]);
  expect(await hits('Haus')).toEqual([visit]);
  // German does not know that English visits visiting.
  expect(await hits('visiting')).not.toEqual(visits);
  // As it stands, where nobody knows how words are formed.
  await speak('tlh');
  expect(await hits('Haus')).toEqual([]);
  expect(await hits('häuser')).toEqual([visit]);
  expect((await hits('visit')).length).toBeGreaterThan(0);
  await speak('en');
  expect(await hits('visiting')).toEqual(visits);
});
