import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, compile, type ItemId, noNames, openPolicy, outlineOf } from '@/core';
import type { Looker, Question, View } from './context';
import { Kept } from './kept';

const outline = outlineOf([
  { kind: 'site', id: asId<ItemId>('site'), parent: null, rank: 0, title: 'Larkfell', published: true },
]);
if ('problems' in outline) throw new Error('There is no site.');
const policy = () => compile(openPolicy, outline, noNames);
type Scope = ReturnType<typeof policy>;

/** Somebody who answers questions by number, in whatever light. */
const answering = (answers: readonly number[], compiled: Scope, asked: unknown[] = []) =>
  ({
    compiled,
    ask: (about: unknown, question: Question<unknown>) => {
      asked.push(about);
      return question({ answers } as never);
    },
  }) as Pick<View, 'compiled' | 'ask'>;

const question =
  (about: number): Question<number | undefined> =>
  (who: Looker) =>
    (who as unknown as { readonly answers: readonly number[] }).answers[about];
const asked = (about: number, answer: number) => ({ about, question: question(about), answer });

/** Makes something by asking: what is asked next depends on what was answered. */
function make(page: number, answers: readonly number[]) {
  const trail: ReturnType<typeof asked>[] = [];
  for (let about = page % 3; about < answers.length; about += 1 + (answers[about] ?? 0))
    trail.push(asked(about, answers[about] ?? 0));
  return { trail, value: `${page}: ${trail.map(({ answer }) => answer).join(' ')}` };
}

const visit = fc.record({
  page: fc.nat({ max: 5 }),
  answers: fc.array(fc.nat({ max: 2 }), { minLength: 6, maxLength: 6 }),
});

describe('what is kept', () => {
  it('is what would be made anew, whoever asks after whomever, however little may be kept', () => {
    fc.assert(
      fc.property(
        fc.array(visit, { maxLength: 60 }),
        fc.constantFrom(0, 3000, 1_000_000),
        (visits, bytes) => {
          const kept = new Kept<string>(bytes, (value) => value.length);
          const scope = policy();
          for (const { page, answers } of visits) {
            const { trail, value } = make(page, answers);
            const find = () => kept.find(`${page}`, answering(answers, scope));
            const found = find();
            if (found === null) kept.keep(scope, `${page}`, trail, value);
            else expect(found).toBe(value);
            expect(kept.bytes).toBeLessThanOrEqual(bytes);
            if (bytes === 1_000_000) expect(find()).toBe(value);
          }
        },
      ),
    );
  });

  it('is found by asking what its making asked, and no more', () => {
    const kept = new Kept<string>(1_000_000, () => 1);
    const scope = policy();
    const { trail, value } = make(0, [1, 0, 2, 0, 0, 1]);
    kept.keep(scope, '0', trail, value);
    const heard: unknown[] = [];
    expect(kept.find('0', answering([1, 9, 2, 9, 9, 1], scope, heard))).toBe(value);
    expect(heard).toEqual([0, 2, 5]);
  });

  it('is for one policy over one site: of another nothing is found, and what was there goes', () => {
    const kept = new Kept<string>(1_000_000, () => 1);
    const [before, after] = [policy(), policy()];
    kept.keep(before, 'page', [asked(0, 0)], 'as it was');
    expect(kept.find('page', answering([0], after))).toBeNull();
    kept.keep(after, 'another', [], 'as it is');
    expect(kept.find('page', answering([0], before))).toBeNull();
    expect(kept.find('page', answering([0], after))).toBeNull();
    expect(kept.find('another', answering([0], after))).toBe('as it is');
  });

  it('is not kept where the same answers would lead to other questions', () => {
    const kept = new Kept<string>(1_000_000, () => 1);
    const scope = policy();
    kept.keep(scope, 'page', [asked(0, 1)], 'first');
    kept.keep(scope, 'page', [asked(1, 1)], 'of something else');
    kept.keep(scope, 'page', [asked(0, 1), asked(1, 1)], 'further');
    kept.keep(scope, 'page', [], 'of nobody');
    expect(kept.find('page', answering([1, 1], scope))).toBe('first');
    expect(kept.find('page', answering([0, 1], scope))).toBeNull();
  });

  it('goes first where nobody asked for it lately, and counts what its questions take', () => {
    const kept = new Kept<string>(3 * 1300, () => 1000);
    const scope = policy();
    const found = (root: string) => kept.find(root, answering([], scope));
    for (const root of ['a', 'b', 'c']) kept.keep(scope, root, [], root);
    expect(kept.bytes).toBe(3 * 1300);
    expect(found('a')).toBe('a');
    kept.keep(scope, 'd', [], 'd');
    expect(['a', 'b', 'c', 'd'].map(found)).toEqual(['a', null, 'c', 'd']);
  });
});
