import { describe, expect, it } from 'vitest';
import { outline } from '@/core/testing/larkfell';
import { isCalled, itemsLike, personIn, questionsIn } from './asking';

describe('a question', () => {
  it.each([
    ['who opens Dome crew', [{ kind: 'who opens', item: 'dome crew' }]],
    ['Who can open Rota?', [{ kind: 'who opens', item: 'rota' }]],
    ['what does Tobin get that Marek doesn’t', [{ kind: 'apart', one: 'tobin', other: 'marek' }]],
    ['what does Tobin get that Marek doesn’t get?', [{ kind: 'apart', one: 'tobin', other: 'marek' }]],
    ['what does Tobin get that Mar', [{ kind: 'apart', one: 'tobin', other: 'mar' }]],
    [
      'what would open Rota for Marek Dunmore',
      [{ kind: 'what opens', item: 'rota', person: 'marek dunmore' }],
    ],
    ['marek dunmore rota', [{ kind: 'gets', item: 'rota', person: 'marek dunmore' }]],
    ['Rota Marek', [{ kind: 'gets', item: 'rota', person: 'marek' }]],
    ['home', []],
    ['put live', []],
  ])('%s', (text, questions) => expect(questionsIn(text, outline)).toEqual(questions));

  it('says by which name a member is to be looked for', () => {
    expect(personIn('marek dunmore rota', outline)).toBe('marek dunmore');
    expect(personIn('what would open rota for tob', outline)).toBe('tob');
    expect(personIn('what does Tobin get that Mar', outline)).toBe('mar');
    expect(personIn('Tobin', outline)).toBe('Tobin');
  });
});

it('completes items and people by how they begin', () => {
  expect(itemsLike('ro', outline, 5).map(({ title }) => title)).toEqual(['Rota']);
  expect(itemsLike('nothing', outline, 5)).toEqual([]);
  expect(isCalled('Marek Dunmore', 'dun mar')).toBe(true);
  expect(isCalled('Marek Dunmore', 'arek')).toBe(false);
});
