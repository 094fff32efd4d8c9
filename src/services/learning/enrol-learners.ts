/** Enrolling people in a course by their mail addresses: a line each, with the day it ends if there is one. */
import { z } from 'zod';
import { asId, changedByHand, counted, type Day, endOfEnrolment, isDay } from '@/core';
import { id } from '../forms';
import { applyChange, type ChangeAnswer } from '../people';
import {
  type Administrator,
  enrollingIn,
  momentAt,
  type Person,
  recordOf,
  requirePermissionAt,
  type SiteState,
  type Trivet,
} from '../running';
import { courseAt } from './course-at';

const MOST_LINES = 10_000;

const enrolling = z.strictObject({
  course: id,
  text: z.string().max(2_000_000, 'That is too long. Cut it into several.'),
  why: z.string().trim().max(500, 'A reason has at most 500 letters.').default(''),
});

/** What enrolling would do. */
export interface EnrolPreview {
  readonly kind: 'preview';
  readonly summary: string;
  readonly enrolled: readonly string[];
  /** Those who are enrolled like that already. */
  readonly already: readonly string[];
}

interface Line {
  readonly number: number;
  readonly email: string;
  readonly until: Day | null;
}

/** Enrols everybody whose mail address stands there, or says what that would do. Somebody who isn't there: nobody is. */
export async function enrolLearners(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  preview: boolean,
  now: Date,
): Promise<ChangeAnswer | EnrolPreview> {
  const parsed = enrolling.safeParse(input);
  const course = parsed.success ? parsed.data.course : '';
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be read.' };
  const { text, why } = parsed.data;
  const make = (state: SiteState) => {
    const at = courseAt(state, course);
    if (!at) return 'There is no such course any more.';
    const { today } = momentAt(state, now);
    const found = peopleIn(text, state, today);
    const usual = endOfEnrolment(enrollingIn(state, at.course.id), today);
    if (typeof found === 'string') return found;
    const people = found.map(({ person, until }) => {
      const before = recordOf(person);
      const change = { kind: 'enrol', course: at.course.id, until: until ?? usual } as const;
      return { before, after: changedByHand(before, change, today) };
    });
    return {
      summary: `Enrolled in ${at.course.title}: ${counted(people.length, 'person', 'people')}`,
      why,
      people,
      names: null,
    };
  };
  if (!preview) return applyChange(trivet, administrator, make, now);
  const made = make(trivet.state);
  if (typeof made === 'string') return { kind: 'wrong', message: made };
  const changes = made.people.filter(({ before, after }) => before.enrolments !== after.enrolments);
  return {
    kind: 'preview',
    summary: made.summary,
    enrolled: changes.map(({ after }) => after.name),
    already: made.people.filter((one) => !changes.includes(one)).map(({ after }) => after.name),
  };
}

/** The people whose addresses stand in a text, or the first lines of it that can't be. */
function peopleIn(
  text: string,
  state: SiteState,
  today: Day,
): readonly { readonly person: Person; readonly until: Day | null }[] | string {
  const lines = text
    .split(/\r?\n/)
    .map((line, at): Line => {
      const [email = '', until = ''] = line
        .split(/[;,\t]/)
        .map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
      return { number: at + 1, email: email.toLowerCase(), until: until === '' ? null : until };
    })
    .filter(({ email, number }) => email !== '' && !(number === 1 && !email.includes('@')));
  if (lines.length === 0) return 'Write a mail address on each line.';
  if (lines.length > MOST_LINES)
    return `At most ${MOST_LINES} people are enrolled at once. Cut it into several.`;
  const byEmail = new Map([...state.people.values()].map((person) => [person.email, person]));
  const problems = lines.flatMap(({ number, email, until }) =>
    until !== null && !isDay(until)
      ? [`Line ${number}: write the day it ends like 2026-12-01.`]
      : until !== null && until < today
        ? [`Line ${number}: ${until} is past.`]
        : byEmail.has(email)
          ? []
          : [`Line ${number}: nobody has the address ${email.slice(0, 100)}.`],
  );
  const [first, ...more] = problems;
  if (first)
    return more.length === 0 ? first : `${first} And ${counted(more.length, 'line')} more can’t be used.`;
  const found = new Map(lines.map(({ email, until }) => [email, until]));
  return [...found].flatMap(([email, until]) => {
    const person = byEmail.get(email);
    return person ? [{ person, until }] : [];
  });
}
