/** Learners: the progress of a large course, and a quiz that is graded, recorded, and opens what waited for it. */

import { larkfell } from '../demo/larkfell';
import { asId, type PersonId } from '../src/core';
import {
  administratorOf,
  beginAttempt,
  courseProgress,
  importSite,
  plainRequest,
  type SiteFile,
  Trivet,
  takeAnswers,
} from '../src/services';

const UNITS = 10;
const median = (list: readonly number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

async function loaded(file: SiteFile): Promise<Trivet> {
  const trivet = await Trivet.open(null);
  const problems = await importSite(trivet, file, 'The bench');
  if (problems.length > 0) throw new Error(problems.join('\n'));
  return trivet;
}

/** A course in order, of so many activities, and people who have done more or less of it. */
const courseWith = (learners: number, activities: number): SiteFile => ({
  ...larkfell,
  items: [
    { kind: 'site', id: 'site', parent: null, title: 'A school' },
    { kind: 'page', id: 'home', parent: 'site', title: 'Home', address: '/' },
    { kind: 'course', id: 'course', parent: 'site', title: 'A course', address: '/course' },
    ...Array.from({ length: UNITS }, (_, at) => ({
      kind: 'unit' as const,
      id: `unit-${at}`,
      parent: 'course',
      title: `Unit ${at}`,
    })),
    ...Array.from({ length: activities }, (_, at) => ({
      kind: 'activity' as const,
      id: `activity-${at}`,
      parent: `unit-${Math.floor((at * UNITS) / activities)}`,
      title: `Activity ${at}`,
      address: `/course/${at}`,
    })),
  ],
  shared: [],
  board: [],
  people: Array.from({ length: learners }, (_, at) => ({
    id: `p${at}`,
    name: `Learner ${at}`,
    email: `p${at}@larkfell.example`,
    ...(at === 0 && { desk: { right: 'owner' as const, branch: null } }),
    enrolments: [{ course: 'course', on: '2026-10-01' }],
    completions: Array.from({ length: (at * 7919) % activities }, (_, done) => ({
      item: `activity-${done}`,
      on: '2026-11-01',
    })),
  })),
  policy: {
    gates: [
      {
        id: 'course',
        what: { targets: [{ kind: 'item', item: 'course' }], except: [] },
        who: 'enrolled in "A course"',
        otherwise: { cases: [], last: { kind: 'missing' } },
        stance: 'also',
      },
      ...Array.from({ length: UNITS }, (_, at) => ({
        id: `in-order-${at}`,
        what: { targets: [{ kind: 'branch', item: `unit-${at}` }], except: [] },
        who: 'completed the one before',
        otherwise: {
          cases: [],
          last: { kind: 'locked', reason: { kind: 'written' }, next: { kind: 'none' } },
        },
        stance: 'also',
      })),
    ],
    audiences: [],
    turnAways: [],
    landings: [],
    defaults: [],
    expectations: [],
  },
});

/** Milliseconds for the progress of everybody, with the kilobytes that travel. */
export async function benchProgress(learners = 2000, activities = 100, rounds = 9) {
  const trivet = await loaded(courseWith(learners, activities));
  const now = new Date();
  const person = trivet.state.people.get(asId<PersonId>('p0'));
  const owner = person && administratorOf({ person, facts: person.facts, session: 'bench' });
  if (!owner) throw new Error('Nobody owns the site.');
  const times: number[] = [];
  let bytes = 0;
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    bytes = JSON.stringify(await courseProgress(trivet, owner, 'course', null, now)).length;
    times.push(performance.now() - start);
  }
  await trivet.close();
  return { whole: median(times), kilobytes: bytes / 1000 };
}

/** Milliseconds from an answer that is sent to what it opens being open, on the demo. */
export async function benchQuiz(rounds = 60) {
  const items = larkfell.items.map((item): SiteFile['items'][number] =>
    item.kind === 'activity' && item.quiz
      ? { ...item, quiz: { ...item.quiz, attempts: null, wait: 0 } }
      : item,
  );
  const people = larkfell.people?.map((one) => ({ ...one, password: undefined }));
  const trivet = await loaded({ ...larkfell, items, people: people as NonNullable<SiteFile['people']> });
  const now = new Date();
  const request = plainRequest(trivet.state, now);
  const quiz = 'first-opening-quiz';
  const times: number[] = [];
  for (let round = 1; round <= rounds; round++) {
    const person = trivet.state.people.get(asId<PersonId>('ines'));
    if (!person) throw new Error('Ines is gone.');
    const visitor = { person, facts: person.facts, session: 'bench' };
    await beginAttempt(trivet, visitor, quiz, request, now);
    const start = performance.now();
    const form = { attempt: String(round), do: 'hand in as it is', q0: '0' };
    const taken = await takeAnswers(trivet, visitor, quiz, form, request, now);
    times.push(performance.now() - start);
    if (taken.kind !== 'handed in') throw new Error(taken.kind);
  }
  await trivet.close();
  return median(times);
}
