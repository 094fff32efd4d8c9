/** Learners from their tutor's side: how far they are on any day, marking, enrolling, and whose that is to do. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, type ItemId, type PersonId, statesIn } from '@/core';
import {
  type Administrator,
  beginAttempt,
  courseProgress,
  coursesTaught,
  enrolLearners,
  exportProgress,
  learnerReport,
  markDone,
  NotAllowed,
  plainRequest,
  type Trivet,
  takeAnswers,
  undoChange,
} from '..';
import { gretaAt, now, openLarkfell, signedInAt } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const COURSE = 'dome-induction';
const QUIZ = 'first-opening-quiz';
const tutorOf = (branch: string | null): Administrator =>
  Object.assign(Object.create(Object.getPrototypeOf(greta)), {
    ...greta,
    desk: { right: 'tutor', branch: branch as ItemId | null },
  });
const completions = (who: string) =>
  (trivet.state.people.get(asId<PersonId>(who))?.completions ?? []).map(({ item }) => item as string);

/** The states of a learner in words, by activity. */
async function statesOf(who: string, day: string | null = null) {
  const progress = await courseProgress(trivet, greta, COURSE, day, now);
  const learner = progress?.learners.find(({ person }) => person === who);
  const states = statesIn(learner?.states ?? '');
  return Object.fromEntries((progress?.activities ?? []).map(({ id }, at) => [id, states[at]]));
}

describe('progress', () => {
  it('has every learner with what each activity is to them', async () => {
    const progress = await courseProgress(trivet, greta, COURSE, null, now);
    const names = progress?.learners.map(({ name }) => name) ?? [];
    expect(names).toEqual(expect.arrayContaining(['Ines Calloway', 'Wren Halloran']));
    expect(names).toEqual(names.toSorted());
    expect(progress?.activities.map(({ title }) => title)).toHaveLength(12);
    expect(progress?.learners.find(({ person }) => person === 'ines')).toMatchObject({
      enrolled: { on: '2021-01-10', until: null },
      scores: { 0: 92 },
    });
    expect(await statesOf('wren')).toMatchObject({
      'ladder-safety': 'done',
      'opening-words': 'to do',
      'night-drill': 'closed',
      'clean-hands': 'closed',
      'the-round': 'to do',
    });
    expect(await statesOf('ines')).toMatchObject({
      'clean-hands': 'done',
      'the-round': 'closed',
      [QUIZ]: 'to do',
    });
  });

  it('is of any day: what opens a week after enrolling is open by then', async () => {
    await trivet.db.execute(`update enrolments set "on" = '2026-11-18' where person = 'ines'` as never);
    await trivet.reload();
    expect((await statesOf('ines')).collimation).toBe('closed');
    expect((await statesOf('ines', '2026-11-24')).collimation).toBe('closed');
    expect((await statesOf('ines', '2026-11-25')).collimation).toBe('to do');
    expect((await statesOf('ines', 'some day')).collimation).toBe('closed');
  });

  it('knows a quiz that was begun from one that was not, and one that was passed', async () => {
    const { visitor } = await signedInAt(trivet, 'ines');
    const request = plainRequest(trivet.state, now);
    await beginAttempt(trivet, visitor, QUIZ, request, now);
    expect((await statesOf('ines'))[QUIZ]).toBe('begun');
    await takeAnswers(trivet, visitor, QUIZ, { attempt: '1', do: 'hand in as it is' }, request, now);
    expect((await statesOf('ines'))[QUIZ]).toBe('begun');
    const report = await learnerReport(trivet, greta, { course: COURSE, person: 'ines', day: null }, now);
    const quiz = report?.units[0]?.activities.find(({ id }) => id === QUIZ);
    expect(quiz).toMatchObject({ state: 'begun', attempts: [{ number: 1, score: 0, passed: false }] });
    expect(quiz?.attempts[0]?.answered).toHaveLength(6);
    expect(quiz?.attempts[0]?.answered[0]).toMatchObject({ worth: 'not answered', given: [] });
  });

  it('goes out as CSV, and nothing in it is a formula', async () => {
    await trivet.db.execute(`update people set name = '=1+1' where id = 'wren'` as never);
    await trivet.reload();
    const lines = (await exportProgress(trivet, greta, COURSE, null, now))?.split('\r\n') ?? [];
    expect(lines[0]).toMatch(/^name,enrolled,until,completed,Ladder safety,/);
    expect(lines.find((line) => line.startsWith("'="))).toMatch(
      /^'=1\+1,\d{4}-\d\d-\d\d,,,done,done,not begun,closed/,
    );
    expect(lines.find((line) => line.startsWith('Ines'))).toMatch(/^Ines Calloway,2021-01-10,,,92,done/);
    expect(await exportProgress(trivet, greta, 'visit', null, now)).toBeNull();
  });
});

describe('one learner', () => {
  it('has the reason why something is closed, and what would open it', async () => {
    const report = await learnerReport(trivet, greta, { course: COURSE, person: 'wren', day: null }, now);
    const drill = report?.units[0]?.activities.find(({ id }) => id === 'night-drill');
    expect(drill?.because).toMatch(/completed the one before|the activity before/i);
    // What is gone by learning comes first.
    expect(drill?.waysIn[0]).toBe('complete “The words of opening”');
    const optics = report?.units[1]?.activities[0];
    expect(optics).toMatchObject({ state: 'closed', because: expect.stringMatching(/Optics/) });
  });

  it('is nobody who does not learn there', async () => {
    for (const person of ['marek', 'never-there'])
      expect(await learnerReport(trivet, greta, { course: COURSE, person, day: null }, now)).toBeNull();
  });
});

describe('marking', () => {
  const mark = (over: object, who = greta) =>
    markDone(
      trivet,
      who,
      { course: COURSE, person: 'wren', activity: 'opening-words', done: true, ...over },
      now,
    );

  it('notes what was done, with a score, and is taken back with a reason or undone', async () => {
    const marked = await mark({ score: 88 });
    expect(marked).toMatchObject({
      kind: 'changed',
      summary: 'Wren Halloran: The words of opening marked as done, 88 %',
    });
    expect((await statesOf('wren'))['night-drill']).toBe('to do');
    expect(await mark({ done: false })).toMatchObject({ message: expect.stringContaining('Say why') });
    expect(completions('wren')).toContain('opening-words');
    expect((await mark({ done: false, why: 'It was read aloud to her.' })).kind).toBe('changed');
    expect(completions('wren')).not.toContain('opening-words');
    const again = await mark({});
    if (again.kind !== 'changed') throw new Error(again.kind);
    expect((await undoChange(trivet, greta, again.change)).kind).toBe('changed');
    expect(completions('wren')).not.toContain('opening-words');
  });

  it('of the last thing left is of the unit as well, which stays', async () => {
    for (const activity of ['opening-words', 'night-drill', QUIZ]) await mark({ activity });
    expect(completions('wren')).toContain('before-you-climb');
    await mark({ activity: QUIZ, done: false, why: 'Another sat at her table.' });
    expect(completions('wren')).toContain('before-you-climb');
  });

  it('refuses whoever does not learn there, what is not in the course, and scores that are none', async () => {
    for (const over of [
      { person: 'marek' },
      { activity: 'star-trails' },
      { activity: 'never-there' },
      { course: 'visit' },
      { score: 101 },
      { score: Number.NaN },
    ])
      expect([over, (await mark(over)).kind]).toEqual([over, 'wrong']);
  });
});

describe('enrolling by mail addresses', () => {
  const enrol = (text: string, preview = false, who = greta) =>
    enrolLearners(trivet, who, { course: 'astrophotography', text }, preview, now);
  const enrolment = (who: string) =>
    trivet.state.people
      .get(asId<PersonId>(who))
      ?.enrolments.find(({ course }) => (course as string) === 'astrophotography');

  it('takes a line each, with the day it ends, and says first who is enrolled already', async () => {
    const text =
      'mail address;until\nMarek@larkfell.example;2026-12-31\n\nlio@larkfell.example\n"tobin@larkfell.example"';
    expect(await enrol(text, true)).toMatchObject({
      kind: 'preview',
      summary: 'Enrolled in Astrophotography: 3 people',
      already: ['Lio Farrow'],
    });
    expect(enrolment('marek')).toBeUndefined();
    await enrol(text);
    expect(enrolment('marek')).toEqual({ course: 'astrophotography', on: '2026-11-20', until: '2026-12-31' });
    expect(enrolment('tobin')).toMatchObject({ until: null });
  });

  it('enrols nobody where a line can’t be used, and says which', async () => {
    for (const [text, message] of [
      [
        'marek@larkfell.example\nnobody@larkfell.example',
        'Line 2: nobody has the address nobody@larkfell.example.',
      ],
      ['marek@larkfell.example,tomorrow', 'Line 1: write the day it ends like 2026-12-01.'],
      ['marek@larkfell.example,2026-11-19', 'Line 1: 2026-11-19 is past.'],
      [
        'a@b.example\nc@d.example',
        'Line 1: nobody has the address a@b.example. And 1 line more can’t be used.',
      ],
      ['\n \n', 'Write a mail address on each line.'],
    ])
      expect(await enrol(text ?? '')).toEqual({ kind: 'wrong', message });
    expect(enrolment('marek')).toBeUndefined();
  });
});

describe('a tutor', () => {
  const refused = (call: () => unknown) =>
    Promise.resolve()
      .then(call)
      .then(
        () => false,
        (error: unknown) => error instanceof NotAllowed,
      );

  it('has the learners of their course and of no other', async () => {
    const edda = tutorOf('astrophotography');
    expect(coursesTaught(trivet, edda).map(({ title }) => title)).toEqual(['Astrophotography']);
    expect(coursesTaught(trivet, tutorOf(null)).map(({ title }) => title)).toEqual([
      'Astrophotography',
      'Dome operator induction',
    ]);
    expect(await refused(() => courseProgress(trivet, edda, 'astrophotography', null, now))).toBe(false);
    for (const call of [
      () => courseProgress(trivet, edda, COURSE, null, now),
      () => exportProgress(trivet, edda, COURSE, null, now),
      () => learnerReport(trivet, edda, { course: COURSE, person: 'wren', day: null }, now),
      () =>
        markDone(
          trivet,
          edda,
          { course: COURSE, person: 'wren', activity: 'opening-words', done: true },
          now,
        ),
      () => enrolLearners(trivet, edda, { course: COURSE, text: 'marek@larkfell.example' }, false, now),
      // What is not there is refused like what is not theirs.
      () => courseProgress(trivet, edda, 'never-there', null, now),
    ])
      expect(await refused(call)).toBe(true);
    expect(completions('wren')).not.toContain('opening-words');
  });
});
