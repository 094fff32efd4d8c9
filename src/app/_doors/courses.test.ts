/** Courses by their doors: who gets what of them, and what is done by saying that one is done. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import { administratorOf, bringBack, changeItem, makeKey, startWalk, type Trivet } from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

let trivet: Trivet;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

const COURSE = '/courses/dome-operator-induction';
const ask = async (who: string | null, path: string, form?: Record<string, string>) => {
  const cookie = who === null ? null : `${SESSION_COOKIE}=${(await signedInAt(trivet, who)).token}`;
  const request = new Request(`http://localhost:3000${path}`, {
    headers: { ...(cookie && { cookie }) },
    ...(form && { method: 'POST', body: new URLSearchParams(form) }),
  });
  const answer = await siteAnswer(trivet, request, now);
  return { status: answer.status, headers: answer.headers, text: textOf(answer) ?? '' };
};
const main = (text: string) => /<main.*<\/main>/s.exec(text)?.[0] ?? '';
const saysDone = (who: string | null, activity: string) =>
  ask(who, `/me/done/${activity}`, { next: `${COURSE}/${activity}` });
const completed = (who: string) =>
  (trivet.state.people.get(asId<PersonId>(who))?.facts.completions ?? []).map(({ item }) => item as string);

describe('a course', () => {
  it('is for those whom its gate lets in', async () => {
    expect((await ask(null, COURSE)).status).toBe(303);
    expect((await ask('marek', COURSE)).status).toBe(403);
    expect((await ask('wren', COURSE)).status).toBe(200);
    // Whoever is turned away from it is turned away from what is in it.
    // And gets what the course's gate gives, wherever within it they ask: nothing of what is in it is told.
    const [course, within] = [await ask('marek', COURSE), await ask('marek', `${COURSE}/red-light`)];
    expect([within.status, main(within.text)]).toEqual([403, main(course.text)]);
    expect((await ask(null, `${COURSE}/red-light`)).headers.Location).toContain('/sign-in?next=');
  });

  it('lists what is done, what is open, and what is locked with the reason; what is left out is not there', async () => {
    const page = main((await ask('wren', COURSE)).text);
    expect(page).toContain('2 of 8 done');
    expect(page).toContain(`href="${COURSE}/opening-words">Go on: The words of opening</a>`);
    expect(page).toMatch(/<span>Night drill<\/span>.*This opens when you are done with the one before it\./);
    expect(page).toMatch(/Optics bench<\/h2>.*This part is for the Optics team\./);
    // What is in a locked unit is not told.
    expect(page).not.toContain('Clean hands');
    const ines = main((await ask('ines', COURSE)).text);
    expect(ines).toContain('Clean hands');
    expect(ines).not.toContain('Grounds round');
  });

  it('opens a unit a week after enrolling, and not before', async () => {
    const enrolledOn = async (on: string) => {
      const record = trivet.state.people.get(asId<PersonId>('ines'))?.facts;
      expect(record).toBeDefined();
      await trivet.db.execute(
        `update enrolments set "on" = '${on}' where person = 'ines' and course = 'dome-induction'` as never,
      );
      await trivet.reload();
      return main((await ask('ines', COURSE)).text);
    };
    expect(await enrolledOn('2026-11-14')).toContain('This opens a week after you are enrolled.');
    expect(await enrolledOn('2026-11-13')).toContain('Clean hands');
  });

  it('has a first unit for everybody and the rest for those who are enrolled, until that ends', async () => {
    const page = async (who: string | null) => main((await ask(who, '/courses/astrophotography')).text);
    expect(await page(null)).toContain('href="/courses/astrophotography/star-trails"');
    expect((await ask(null, '/courses/astrophotography')).text).toContain('"@type":"Course"');
    const sitemap = (await ask(null, '/sitemap.xml')).text;
    expect(sitemap).toContain('/courses/astrophotography/star-trails');
    expect(sitemap).not.toContain('/courses/astrophotography/darks-and-flats');
    const api = (await ask(null, '/api/items?kind=activity')).text;
    expect(api).toContain('Watch it turn');
    expect(api).not.toContain('Darks, flats');
    expect(main((await ask(null, '/search?q=tape')).text)).toContain('Star trails from the lawn');
    expect(main((await ask(null, '/search?q=histogram')).text)).not.toContain('Adding it up');
    expect(await page('marek')).toContain('This part is for those who are enrolled.');
    expect(await page('lio')).toContain('Darks, flats, and why');
    await trivet.db.execute(
      `update enrolments set until = '2026-11-19' where person = 'lio' and course = 'astrophotography'` as never,
    );
    await trivet.reload();
    expect(await page('lio')).toContain('This part is for those who are enrolled.');
  });
});

describe('an activity', () => {
  it('shows its title and the reason where it is locked, and nothing of its text', async () => {
    const locked = await ask('wren', `${COURSE}/night-drill`);
    expect(locked.status).toBe(403);
    expect(main(locked.text)).toContain('Night drill');
    expect(main(locked.text)).toContain('This opens when you are done with the one before it.');
    expect(locked.text).not.toContain('Bring gloves');
    // Kept by what it says: another one with the same reason has its own title.
    expect(main((await ask('wren', `${COURSE}/clean-hands`)).text)).not.toContain('Night drill');
  });

  it('is not there where its unit is left out', async () => {
    const never = await ask('ines', `${COURSE}/never-there`);
    const left = await ask('ines', `${COURSE}/the-round`);
    expect([left.status, main(left.text)]).toEqual([never.status, main(never.text)]);
    expect(left.status).toBe(404);
  });

  it('says where it stands and what comes next', async () => {
    const page = main((await ask('wren', `${COURSE}/red-light`)).text);
    expect(page).toMatch(/Dome operator induction<\/a><span>Before you climb<\/span>/);
    expect(page).toMatch(/Before<\/span> Ladder safety/);
    expect(page).toContain('You are done with this.');
    const next = main((await ask('wren', `${COURSE}/opening-words`)).text);
    expect(next).toContain('I have read this');
    expect(next).toMatch(/Next, and locked<\/span> Night drill/);
  });
});

describe('being done', () => {
  it('opens what waits for it, with the next request', async () => {
    const answer = await saysDone('wren', 'opening-words');
    expect([answer.status, answer.headers.Location]).toEqual([303, `${COURSE}/opening-words`]);
    expect((await ask('wren', `${COURSE}/night-drill`)).status).toBe(200);
    expect(completed('wren')).toContain('opening-words');
  });

  it('is of the unit as well when nothing in it is left, recorded once and undoable like any change', async () => {
    await trivet.db.execute(
      `insert into completions values ('wren', 'first-opening-quiz', '2026-11-19', 90), ('wren', 'first-round-written', '2026-11-19', null)` as never,
    );
    await trivet.reload();
    await saysDone('wren', 'opening-words');
    await Promise.all([saysDone('wren', 'night-drill'), saysDone('wren', 'night-drill')]);
    const all = completed('wren');
    expect(all.filter((one) => one === 'night-drill')).toHaveLength(1);
    expect(all).toContain('before-you-climb');
    // The grounds round is open to her and not done.
    expect(all).not.toContain('dome-induction');
    await saysDone('wren', 'the-round');
    await saysDone('wren', 'shed-and-mower');
    expect(completed('wren')).toContain('dome-induction');
  });

  it('is not for those to whom it is closed, whatever form they send', async () => {
    for (const [who, activity] of [
      ['wren', 'night-drill'],
      ['wren', 'clean-hands'],
      // Open to her; whether she is done with it is not hers to say.
      ['ines', 'first-opening-quiz'],
      ['marek', 'ladder-safety'],
      ['wren', 'dome-induction'],
      ['wren', 'visit'],
      ['wren', 'never-there'],
    ] as const) {
      const before = completed(who);
      expect((await saysDone(who, activity)).status, activity).toBe(404);
      expect(completed(who)).toEqual(before);
    }
    expect((await saysDone(null, 'star-trails')).status).toBe(303);
  });

  it('is only said on a walk', async () => {
    const session = await signedInAt(trivet, 'greta');
    const greta = administratorOf(session.visitor) ?? (await gretaAt(trivet));
    const begun = await startWalk(trivet, greta, { standIn: { person: 'wren' }, side: 'live' }, now);
    if (begun.kind !== 'walk') throw new Error(begun.kind);
    const would = async (activity: string) => {
      const request = new Request(`http://localhost:3000/walk/${begun.token}/me/done/${activity}`, {
        method: 'POST',
        headers: { cookie: `${SESSION_COOKIE}=${session.token}` },
        body: new URLSearchParams({ next: '/' }),
      });
      return textOf(await siteAnswer(trivet, request, now)) ?? '';
    };
    expect(await would('opening-words')).toContain(
      'note that Wren Halloran is done with The words of opening',
    );
    for (const closed of ['night-drill', 'visit', 'never-there'])
      expect(await would(closed), closed).toContain('do nothing: that is not open to Wren Halloran');
    expect(completed('wren')).not.toContain('opening-words');
  });

  it('stays recorded when what was done is taken away, and means the same when it comes back', async () => {
    const greta = await gretaAt(trivet);
    const gone = await changeItem(trivet, greta, { kind: 'remove', item: 'red-light', leaving: true }, now);
    if (gone.kind !== 'done') throw new Error(gone.message);
    expect(trivet.state.names.activities.map(({ id }) => id as string)).not.toContain('red-light');
    expect(completed('wren')).toContain('red-light');
    await bringBack(trivet, greta, gone.removal);
    expect(main((await ask('wren', COURSE)).text)).toContain('2 of 8 done');
  });
});

describe('the outline as a section of another page', () => {
  const outline = async (who: string) => main((await ask(who, '/observers/booking')).text);

  it('is each visitor’s own, below its own heading', async () => {
    const tobin = await outline('tobin');
    expect(tobin).toMatch(/<h2><a href="\/courses\/astrophotography">Astrophotography<\/a><\/h2>/);
    expect(tobin).toMatch(/<h3>Your first night<\/h3>/);
    expect(tobin).toContain('0 of 2 done');
    expect(tobin).toContain('This part is for those who are enrolled.');
    expect(tobin).not.toContain('Darks, flats');
    await saysDone('tobin', 'star-trails');
    expect(await outline('tobin')).toContain('1 of 2 done');
  });

  it('is not there for those to whom the course is closed, or when it is gone', async () => {
    const greta = await gretaAt(trivet);
    const hidden = { kind: 'publish', items: ['astrophotography'], published: false, leaving: true };
    expect((await changeItem(trivet, greta, hidden, now)).kind).toBe('done');
    expect(await outline('tobin')).not.toContain('Astrophotography');
    await changeItem(trivet, greta, { kind: 'remove', item: 'astrophotography', leaving: true }, now);
    expect(await outline('tobin')).toContain('swept');
  });
});

describe('enrolling oneself', () => {
  const ASTRO = '/courses/astrophotography';
  const enrol = (who: string | null, course = 'astrophotography') =>
    ask(who, `/me/enrol/${course}`, { next: ASTRO });
  const enrolled = (who: string) =>
    trivet.state.people.get(asId<PersonId>(who))?.enrolments.map(({ course }) => course as string);
  const open = async (course: string) => {
    await trivet.db.execute(`update items set enrolling = '{"open": true}' where id = '${course}'` as never);
    await trivet.reload();
  };

  it('is one click where a course is open to whoever likes, and opens what is for those who are enrolled', async () => {
    await open('astrophotography');
    expect(main((await ask(null, ASTRO)).text)).toContain('Sign in to enrol');
    const page = main((await ask('marek', ASTRO)).text);
    expect(page).toContain('action="/me/enrol/astrophotography"');
    expect(page).toContain('This part is for those who are enrolled.');
    expect((await enrol('marek')).headers.Location).toBe(ASTRO);
    await enrol('marek');
    expect(enrolled('marek')).toEqual(['astrophotography']);
    const after = main((await ask('marek', ASTRO)).text);
    expect(after).toContain('Darks, flats, and why');
    expect(after).not.toContain('/me/enrol/');
    // Lio was enrolled before, and keeps the day.
    await enrol('lio');
    const lio = trivet.state.people.get(asId<PersonId>('lio'))?.enrolments;
    expect(lio).toMatchObject([{ on: '2026-06-23' }]);
  });

  it('is nobody’s where the course is closed to them, or takes only those who are let in', async () => {
    expect(main((await ask('marek', ASTRO)).text)).not.toContain('/me/enrol/');
    await open('dome-induction');
    for (const course of ['astrophotography', 'dome-induction', 'star-trails', 'visit', 'never-there']) {
      expect([course, (await enrol('marek', course)).status]).toEqual([course, 404]);
      expect(enrolled('marek')).toEqual([]);
    }
    expect((await enrol(null)).status).toBe(303);
  });
});

describe('the API', () => {
  const course = async (who: string | null, id: string) => {
    const person = who === null ? null : trivet.state.people.get(asId<PersonId>(who));
    const key = person && (await makeKey(trivet, person.id, { use: 'api', name: 'Test' }, now));
    const authorization = key?.kind === 'made' ? `Bearer ${key.key}` : null;
    const request = new Request(`http://localhost:3000/api/courses/${id}`, {
      headers: { ...(authorization && { authorization }) },
    });
    const answer = await siteAnswer(trivet, request, now);
    return { status: answer.status, body: JSON.parse(textOf(answer) ?? '') };
  };

  it('has the outline as whoever asks gets it, with what they have done', async () => {
    const wren = await course('wren', 'dome-induction');
    expect(wren.body.progress).toEqual({ done: 2, of: 8 });
    const [climb, optics, grounds] = wren.body.units;
    expect(climb.activities[1]).toMatchObject({ id: 'red-light', done: true, open: true });
    expect(climb.activities[3]).toMatchObject({
      title: 'Night drill',
      address: null,
      open: false,
      reason: 'This opens when you are done with the one before it.',
    });
    expect(optics).toMatchObject({
      open: false,
      reason: 'This part is for the Optics team.',
      activities: [],
    });
    expect(grounds.title).toBe('Grounds round');
    // Left out for her, it is not among it.
    expect(
      (await course('ines', 'dome-induction')).body.units.map(({ title }: { title: string }) => title),
    ).toEqual(['Before you climb', 'Optics bench']);
    expect((await course(null, 'astrophotography')).body).toMatchObject({ progress: null });
  });

  it('says of a course that is closed what its page says, and of what is none that there is nothing', async () => {
    expect((await course('marek', 'dome-induction')).status).toBe(403);
    expect(await course(null, 'dome-induction')).toMatchObject({
      status: 403,
      body: { location: '/sign-in' },
    });
    const never = await course('wren', 'never-there');
    for (const id of ['ladder-safety', 'visit', 'before-you-climb'])
      expect(await course('wren', id)).toEqual(never);
  });
});
