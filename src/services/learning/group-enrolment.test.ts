/** Being in a course through a group: what a course says, what it opens, who may say it, and how it ends. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, type GroupId, type ItemId, type PersonId } from '@/core';
import {
  type Administrator,
  changePeople,
  courseProgress,
  endEnrolment,
  enrolLearners,
  followGroup,
  importSite,
  keepBoard,
  learnerReport,
  namesReport,
  plainRequest,
  readWriting,
  replaceSite,
  saveWriting,
  sendWriting,
  siteAsFile,
  type Trivet,
  undoChange,
} from '..';
import { boardOf } from '../people';
import { gretaAt, now, openEmpty, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const COURSE = 'astrophotography';
const person = (who: string) => trivet.state.people.get(asId<PersonId>(who));
const enrolments = (who: string, course = COURSE) =>
  (person(who)?.facts.enrolments ?? []).filter((one) => one.course === course);
const opens = (who: string, item: string): boolean => {
  const facts = person(who)?.facts;
  return (
    facts !== undefined &&
    decide(trivet.state.live.compiled, asId<ItemId>(item), facts, plainRequest(trivet.state, now)).kind ===
      'open'
  );
};
const change = (edit: object, ...ids: readonly string[]) =>
  changePeople(trivet, greta, { who: { ids }, edit, why: '' }, false, now);

type Enrolling = { open: boolean; days: number | null; groups: { group: string; since: string }[] };

/** Writes how one comes into a course, and puts it on the site; answers what is wrong, or that it is there. */
async function write(over: Partial<Enrolling>, who = greta) {
  const writing = await readWriting(trivet, who, COURSE);
  if (!writing || !('enrolling' in writing.live)) throw new Error('gone');
  const document = { ...writing.live, enrolling: { ...writing.live.enrolling, ...over } };
  const saved = await saveWriting(
    trivet,
    who,
    COURSE,
    { version: writing.draft?.version ?? 0, document },
    now,
  );
  if (saved.kind !== 'saved') throw new Error(saved.kind);
  const sent = await sendWriting(trivet, who, COURSE, { version: writing.version, draft: saved.version });
  return sent.kind === 'wrong' ? sent.problems.map(({ path, message }) => `${path}: ${message}`) : sent.kind;
}
const as = (right: 'writer' | 'tutor'): Administrator =>
  Object.assign(Object.create(Object.getPrototypeOf(greta)), { ...greta, desk: { right, branch: null } });

describe('a course for a group', () => {
  it('is for everybody in it, and says through what and since when', async () => {
    expect(enrolments('sunniva')).toEqual([
      { course: COURSE, on: '2026-10-31', until: null, through: 'hollin-school' },
    ]);
    expect(person('sunniva')?.enrolments).toEqual([]);
    expect(opens('sunniva', 'darks-and-flats')).toBe(true);
    const report = await learnerReport(trivet, greta, { course: COURSE, person: 'sunniva', day: null }, now);
    expect(report?.enrolled).toEqual({ on: '2026-10-31', until: null, through: 'Hollin School', runs: true });
    const before = await courseProgress(trivet, greta, COURSE, '2026-10-30', now);
    expect(before?.learners.find((one) => one.person === 'sunniva')?.enrolled?.runs).toBe(false);
  });

  it('is so from the day on which somebody comes into the group, until they leave it', async () => {
    expect(opens('marek', 'darks-and-flats')).toBe(false);
    const joined = await change({ kind: 'join', group: 'hollin-school' }, 'marek');
    expect(enrolments('marek')).toMatchObject([{ on: '2026-11-20', through: 'hollin-school' }]);
    expect(person('marek')?.groupsSince).toEqual({ 'hollin-school': '2026-11-20' });
    expect(opens('marek', 'darks-and-flats')).toBe(true);
    if (joined.kind !== 'changed') throw new Error(joined.kind);
    expect((await undoChange(trivet, greta, joined.change)).kind).toBe('changed');
    expect([enrolments('marek'), person('marek')?.groupsSince]).toEqual([[], {}]);
    // Sunniva was in it before anybody asked; coming back she is in it since today.
    const left = await change({ kind: 'leave', group: 'hollin-school' }, 'sunniva');
    expect(opens('sunniva', 'darks-and-flats')).toBe(false);
    if (left.kind !== 'changed') throw new Error(left.kind);
    expect((await undoChange(trivet, greta, left.change)).kind).toBe('changed');
    expect(enrolments('sunniva')).toMatchObject([{ on: '2026-10-31' }]);
  });

  it('opens and closes with what its author writes, for everybody at once', async () => {
    expect(await write({ groups: [{ group: 'dome-crew', since: '2026-11-18' }] })).toBe('sent');
    expect([opens('sunniva', 'darks-and-flats'), opens('wren', 'darks-and-flats')]).toEqual([false, true]);
    expect(await write({ groups: [{ group: 'dome-crew', since: '2026-11-21' }] })).toBe('sent');
    expect(opens('wren', 'darks-and-flats')).toBe(false);
    expect(await write({ days: 2, groups: [{ group: 'dome-crew', since: '2026-11-19' }] })).toBe('sent');
    expect(enrolments('wren')).toMatchObject([{ on: '2026-11-19', until: '2026-11-20' }]);
    expect(opens('wren', 'darks-and-flats')).toBe(true);
  });

  it('is among what a group is used for', async () => {
    expect((await namesReport(trivet, greta)).uses['group hollin-school']).toContain(
      'who comes into Astrophotography',
    );
  });

  it('reaches those who join an open group by themselves', async () => {
    const [open] = trivet.state.names.groups.filter((group) => group.open);
    if (!open) throw new Error('no open group');
    await write({ groups: [{ group: open.id, since: '2026-01-01' }] });
    await followGroup(trivet, asId<PersonId>('tobin'), open.id, true, now);
    expect(enrolments('tobin')).toMatchObject([{ on: '2026-11-20', through: open.id }]);
  });

  it('is written by those who may change people, and with groups that are there', async () => {
    const groups = [{ group: 'dome-crew', since: '2026-11-01' }];
    const refused =
      'enrolling: How one comes into a course is changed by those who may change people. Ask one of them, or leave it as it was.';
    expect(await write({ groups }, as('writer'))).toEqual([refused]);
    expect(await write({ open: true }, as('writer'))).toEqual([refused]);
    expect(await write({}, as('writer'))).toBe('sent');
    expect(await write({ groups: [...groups, { group: 'gone', since: '2026-11-01' }] })).toEqual([
      'enrolling: One of the groups is no longer there. Take it off.',
    ]);
    expect(await write({ groups: [...groups, ...groups] })).toEqual([
      'enrolling: A group is enrolled once. Take one of them off.',
    ]);
    expect(await write({ days: 0 })).toEqual(['enrolling.days: An enrolment lasts at least a day.']);
    expect(await write({ groups: [{ group: 'dome-crew', since: 'soon' }] })).toHaveLength(1);
    expect(enrolments('wren')).toEqual([]);
  });

  it('says how long an enrolment by hand lasts, where no other end is set', async () => {
    await write({ days: 10 });
    const text = 'marek@larkfell.example\ntobin@larkfell.example, 2026-12-24';
    expect((await enrolLearners(trivet, as('tutor'), { course: COURSE, text }, false, now)).kind).toBe(
      'changed',
    );
    expect(enrolments('marek')).toMatchObject([{ on: '2026-11-20', until: '2026-11-29' }]);
    expect(enrolments('tobin')).toMatchObject([{ until: '2026-12-24' }]);
  });

  it('goes into a site file and comes out of it, with who came into which group when', async () => {
    await change({ kind: 'join', group: 'hollin-school' }, 'marek');
    const file = await siteAsFile(trivet, 'people');
    const other = await openEmpty();
    try {
      expect(await importSite(other, file, 'A copy')).toEqual([]);
      for (const who of ['sunniva', 'marek', 'lio'])
        expect(other.state.people.get(asId<PersonId>(who))?.facts.enrolments).toEqual(
          person(who)?.facts.enrolments,
        );
    } finally {
      await other.close();
    }
  });

  it('is among what a file over the site would open', async () => {
    const file = structuredClone(await siteAsFile(trivet, 'people')) as { items: Record<string, unknown>[] };
    const course = file.items.find(({ id }) => id === COURSE);
    Object.assign(course ?? {}, { enrolling: { groups: [{ group: 'dome-crew', since: '2026-01-01' }] } });
    const dryRun = async () => JSON.stringify(await replaceSite(trivet, greta, { file, basis: null }, now));
    expect(await dryRun()).toContain('In the small dome');
    Object.assign(course ?? {}, { enrolling: { groups: [{ group: 'gone', since: '2026-01-01' }] } });
    expect(await dryRun()).toContain('One of the groups is no longer there');
  });
});

describe('ending an enrolment', () => {
  const end = (who: string, by = greta, course = COURSE) =>
    endEnrolment(trivet, by, { course, person: who, why: 'The winter is over.' }, now);

  it('closes what was for those who are enrolled, as of today, and is taken back', async () => {
    expect(opens('lio', 'darks-and-flats')).toBe(true);
    const ended = await end('lio', as('tutor'));
    expect(ended).toMatchObject({
      kind: 'changed',
      summary: 'Lio Farrow no longer enrolled in Astrophotography',
    });
    expect(opens('lio', 'darks-and-flats')).toBe(false);
    if (ended.kind !== 'changed') throw new Error(ended.kind);
    await undoChange(trivet, greta, ended.change);
    expect(opens('lio', 'darks-and-flats')).toBe(true);
  });

  it('is not for those who are in it through a group, are not in it, or elsewhere', async () => {
    expect(await end('sunniva')).toMatchObject({ message: expect.stringContaining('through Hollin School') });
    expect(await end('marek')).toEqual({ kind: 'wrong', message: 'They are not enrolled.' });
    expect((await end('never-there')).kind).toBe('wrong');
    expect((await end('lio', greta, 'visit')).kind).toBe('wrong');
    expect(person('lio')?.enrolments).toMatchObject([{ until: null }]);
  });
});

it('is there for a made-up visitor in the group as well, and is never kept as if it were given by hand', async () => {
  const facts = { ...person('sunniva')?.facts, id: null, email: null };
  const problem = await keepBoard(trivet, greta, [{ madeUp: { id: 'a-pupil', name: 'A pupil', facts } }]);
  expect(problem).toBeNull();
  const [pupil] = await boardOf(trivet, greta);
  if (pupil?.kind !== 'made up') throw new Error('not made up');
  expect(pupil.madeUp.facts.enrolments).toMatchObject([
    { course: COURSE, through: 'hollin-school' as unknown as GroupId },
  ]);
  const kept = await trivet.db.execute(`select stand_ins from boards where person = 'greta'` as never);
  expect(JSON.stringify(kept)).not.toContain('through');
});
