import { expect, it } from 'vitest';
import { id, outline } from '../testing/larkfell';
import { describeForGuests } from './for-guests';

const none = { gains: [], loses: [], sees: [] };
const said = (change: Partial<typeof none> | Record<string, readonly ReturnType<typeof id>[]>) =>
  describeForGuests({ ...none, ...change }, outline);

it('says nothing where guests notice nothing', () => {
  expect(said({})).toBeNull();
});

it('counts what guests lose and gain, by kind, losses first', () => {
  expect(said({ loses: ['home', 'join', 'mist', 'untold'].map(id) })).toBe('lose 2 pages and 2 posts');
  expect(said({ gains: [id('crew')], loses: [id('frame')], sees: [id('rota'), id('school')] })).toBe(
    'lose 1 file, gain 1 page and get something else at 2 pages',
  );
});

it('does not count again what follows: sections and files of a page, links that lead there', () => {
  expect(said({ loses: ['home', 'welcome', 'to-home', 'first-light', 'dome-key'].map(id) })).toBe(
    'lose 1 page and 1 post',
  );
  expect(said({ loses: [id('welcome'), id('to-home')] })).toBe('lose 1 section and 1 menu link');
});

it('counts what is gone since', () => {
  expect(said({ loses: [id('home'), id('vanished')] })).toBe('lose 1 page and 1 thing that is gone');
});
