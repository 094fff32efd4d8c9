/** Enrolling many at once, and ending that: shown before, recorded, taken back. */
import { afterAll, beforeEach, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import { type Administrator, changePeople, type Trivet, undoChange } from '..';
import { gretaAt, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const course = 'astrophotography';
const enrolments = (who: string) =>
  (trivet.state.people.get(asId<PersonId>(who))?.enrolments ?? []).filter((one) => one.course === course);
const change = (edit: object, ids: readonly string[], preview = false) =>
  changePeople(trivet, greta, { who: { ids }, edit, why: 'The autumn round' }, preview, now);

it('enrols those who are not enrolled, from today, and says first who reaches more by it', async () => {
  const edit = { kind: 'enrol', course, until: '2026-12-31' };
  expect(await change(edit, ['marek', 'tobin'], true)).toMatchObject({
    kind: 'preview',
    summary: 'Enrolled in Astrophotography until 31 December 2026: 2 people',
    reach: { more: { count: 2 }, less: { count: 0 } },
  });
  expect(enrolments('marek')).toEqual([]);
  const answer = await change(edit, ['marek', 'tobin']);
  expect(enrolments('marek')).toEqual([{ course, on: '2026-11-20', until: '2026-12-31' }]);
  // Done again it changes nothing; with another end it stays the same enrolment.
  expect(await change(edit, ['marek'])).toEqual({ kind: 'nothing to do' });
  await change({ kind: 'enrol', course }, ['lio', 'tobin']);
  expect(enrolments('lio')).toMatchObject([{ on: '2026-06-23', until: null }]);
  expect(enrolments('tobin')).toEqual([{ course, on: '2026-11-20', until: null }]);
  if (answer.kind !== 'changed') throw new Error(answer.kind);
  // What changed since can't be taken back with it.
  expect(await undoChange(trivet, greta, answer.change)).toMatchObject({ kind: 'wrong' });
});

it('begins today for those whose enrolment was to come', async () => {
  await trivet.db.execute(`update enrolments set "on" = '2026-12-24' where person = 'lio'` as never);
  await trivet.reload();
  await change({ kind: 'enrol', course }, ['lio']);
  expect(enrolments('lio')).toEqual([{ course, on: '2026-11-20', until: null }]);
});

it('ends an enrolment and keeps it as a record; enrolled anew, it begins today', async () => {
  const answer = await change({ kind: 'end enrolment', course }, ['lio', 'marek']);
  expect(answer).toMatchObject({ kind: 'changed', people: 1 });
  expect(enrolments('lio')).toEqual([{ course, on: '2026-06-23', until: '2026-11-19' }]);
  await change({ kind: 'enrol', course }, ['lio']);
  expect(enrolments('lio')).toEqual([{ course, on: '2026-11-20', until: null }]);
});

it.each([
  [{ kind: 'enrol', course: 'gone' }, 'There is no such course any more.'],
  [{ kind: 'enrol', course: 'ladder-safety' }, 'There is no such course any more.'],
  [{ kind: 'enrol', course, until: '2026-11-19' }, 'That day is past. Choose one that is to come, or none.'],
  [{ kind: 'end enrolment', course: 'gone' }, 'There is no such course any more.'],
])('says what is wrong with %j', async (edit, message) => {
  expect(await change(edit, ['marek'])).toEqual({ kind: 'wrong', message });
});
