/** Quizzes as they are written and as they stand in files: what is wrong is said where it is, and nothing is lost. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, type ItemId } from '@/core';
import {
  type Administrator,
  changeItem,
  importSite,
  readWriting,
  type SiteFile,
  saveWriting,
  sendWriting,
  siteAsFile,
  siteOverview,
  type Trivet,
} from '..';
import { gretaAt, now, openEmpty, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const QUIZ = 'first-opening-quiz';
type Written = Record<string, unknown> & { quiz: { questions: Record<string, unknown>[] } };

/** Sends what somebody makes of a quiz; answers what is wrong, by where. */
async function send(change: (document: Written) => unknown, id = QUIZ) {
  const writing = await readWriting(trivet, greta, id);
  if (!writing) throw new Error(id);
  const document = structuredClone(writing.live) as unknown as Written;
  change(document);
  const saved = await saveWriting(trivet, greta, id, { version: writing.draft?.version ?? 0, document }, now);
  if (saved.kind !== 'saved') throw new Error(saved.kind);
  const answer = await sendWriting(trivet, greta, id, { version: writing.version, draft: saved.version });
  if (answer.kind !== 'wrong') return answer.kind;
  return answer.problems.map(({ path, message }) => `${path}: ${message}`);
}
const question =
  (over: object, at = 0) =>
  (document: Written) => {
    document.quiz.questions[at] = { ...document.quiz.questions[at], ...over };
  };
const options = (...rights: readonly boolean[]) => ({
  options: rights.map((right, at) => ({ text: `${at}`, right })),
});

describe('a quiz that is written', () => {
  it('goes to the site as it is, and comes back the same', async () => {
    const before = trivet.state.contents.get(asId<ItemId>(QUIZ))?.quiz;
    expect(await send(() => undefined)).toBe('sent');
    expect(trivet.state.contents.get(asId<ItemId>(QUIZ))?.quiz).toEqual(before);
    expect(await send(question({ text: 'Another one?' }))).toBe('sent');
    expect(trivet.state.contents.get(asId<ItemId>(QUIZ))?.quiz?.questions[0]?.text).toBe('Another one?');
  });

  it('says what can’t be answered, at its question', async () => {
    const at = 'quiz.questions.0';
    expect(await send(question(options(false, false)))).toEqual([`${at}: Say which of these is right.`]);
    expect(await send(question(options(true, true)))).toEqual([
      `${at}: One of several has one right answer. Mark one, or ask for several.`,
    ]);
    expect(await send(question(options(true)))).toEqual([
      `${at}.options: Give it at least two things to choose from.`,
    ]);
    expect(await send(question({ text: ' ' }))).toEqual([`${at}.text: Say what is asked.`]);
    expect(await send(question({ points: 0 }))).toEqual([`${at}.points: A question counts for something.`]);
    expect(await send(question({ kind: 'riddle' }))).toHaveLength(1);
    expect(await send(question({ id: 'closed' }))).toEqual([
      'quiz.questions.1: Another question has the id of this one. Add it anew.',
    ]);
    expect(await send(question({ text: '*'.repeat(3000) }))).toHaveLength(1);
    const many = Array.from({ length: 13 }, (_, place) => `${place}`);
    expect(await send(question({ steps: many }, 5))).toEqual([
      'quiz.questions.5.steps: A question has at most 12 things.',
    ]);
  });

  it('says which of its terms go together with nothing', async () => {
    const terms = (over: object) => send((document) => Object.assign(document.quiz, over));
    expect(await terms({ draw: 9 })).toEqual([
      'quiz: It draws 9 questions and has 8. Draw fewer, or write more.',
    ]);
    expect(await terms({ draw: 8, attempts: null, answers: 'after the last attempt' })).toEqual([
      'quiz: There is no last attempt. Say how many there are, or show the answers at another time.',
    ]);
    expect(await terms({ passMark: 101 })).toEqual([
      'quiz.passMark: A pass mark is a percentage, from 0 to 100.',
    ]);
    expect(await terms({ draw: null, questions: [] })).toEqual([
      'quiz: It asks nothing yet. Add a question.',
    ]);
  });

  it('may ask nothing while nobody sees it, and Site says so of one that is seen', async () => {
    const made = await changeItem(
      trivet,
      greta,
      { kind: 'new activity', parent: 'first-light-unit', title: 'New quiz', activity: 'quiz' },
      now,
    );
    if (made.kind !== 'done') throw new Error(made.kind);
    expect(await send((document) => Object.assign(document, { summary: 'Soon.' }), made.item)).toBe('sent');
    await changeItem(trivet, greta, { kind: 'publish', items: [made.item], published: true }, now);
    const { faults } = await siteOverview(trivet, greta, now);
    expect(faults).toContainEqual(
      expect.objectContaining({ item: made.item, message: 'It asks nothing yet. Add a question.' }),
    );
  });

  it('keeps its questions for its author when it becomes something else for a while', async () => {
    await send((document) => Object.assign(document, { activity: 'reading' }));
    expect(await send((document) => Object.assign(document, { activity: 'quiz' }))).toBe('sent');
    expect(trivet.state.contents.get(asId<ItemId>(QUIZ))?.quiz?.questions).toHaveLength(8);
  });
});

describe('a quiz in a site file', () => {
  it('goes out and in again', async () => {
    const file = await siteAsFile(trivet, 'people');
    const other = await openEmpty();
    expect(await importSite(other, file, 'The test')).toEqual([]);
    expect(other.state.contents.get(asId<ItemId>(QUIZ))?.quiz).toEqual(
      trivet.state.contents.get(asId<ItemId>(QUIZ))?.quiz,
    );
    await other.close();
  });

  it('is read as strictly as at the desk', async () => {
    const file = await siteAsFile(trivet, 'people');
    const items = file.items.map((item): SiteFile['items'][number] =>
      item.kind === 'activity' && item.quiz ? { ...item, quiz: { ...item.quiz, draw: 50 } } : item,
    );
    const other = await openEmpty();
    expect(await importSite(other, { ...file, items }, 'The test')).toEqual([
      'Before your first opening: It draws 50 questions and has 8. Draw fewer, or write more.',
    ]);
    await other.close();
  });
});
