/** A quiz by its door: who may take it, what is kept of it, what is told, and what is not. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { type Asked, asId, type ItemId, type PersonId, type Quiz } from '@/core';
import { knownAnswer } from '@/core/testing/quizzes';
import { administratorOf, startWalk, type Trivet } from '@/services';
import { gretaAt, later, now, openLarkfell, signedInAt } from '@/services/testing';
import { type QuizAttempt, readQuizAttempts, updateItem } from '@/store';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

const QUIZ = asId<ItemId>('first-opening-quiz');
const DOOR = `/me/quiz/${QUIZ}`;
const PAGE = '/courses/dome-operator-induction/before-your-first-opening';

let trivet: Trivet;
const tokens = new Map<string, string>();
beforeEach(async () => {
  await trivet?.close();
  tokens.clear();
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

type Form = Readonly<Record<string, string>> | readonly (readonly [string, string])[];

async function ask(who: string | null, path: string, form?: Form, at = now) {
  if (who !== null && !tokens.has(who)) tokens.set(who, (await signedInAt(trivet, who)).token);
  const token = who === null ? null : tokens.get(who);
  const request = new Request(`http://localhost:3000${path}`, {
    headers: { ...(token && { cookie: `${SESSION_COOKIE}=${token}` }) },
    ...(form && { method: 'POST', body: new URLSearchParams(form as [string, string][]) }),
  });
  const answer = await siteAnswer(trivet, request, at);
  const text = textOf(answer) ?? '';
  return {
    status: answer.status,
    headers: answer.headers,
    text,
    main: /<main.*<\/main>/s.exec(text)?.[0] ?? '',
  };
}

const attemptsOf = (who: string): Promise<readonly QuizAttempt[]> =>
  readQuizAttempts(trivet.db, asId<PersonId>(who), [QUIZ]);
const begin = (who = 'ines', at = now) => ask(who, `${DOOR}/begin`, {}, at);
const completions = (who: string) => trivet.state.people.get(asId<PersonId>(who))?.facts.completions ?? [];

/** The fields of a form that says this for each question. */
const filled = (
  asked: readonly Asked[],
  answer: (one: Asked, at: number) => readonly string[],
): [string, string][] =>
  asked.flatMap((one, at) =>
    one.question.kind === 'order' || one.question.kind === 'pairs'
      ? answer(one, at).map((text, place): [string, string] => [`q${at}.${place}`, text])
      : answer(one, at).map((text): [string, string] => [`q${at}`, text]),
  );

/** Sends the attempt that is under way, with what somebody says who knows this much. */
async function send(
  what: string,
  answer: (one: Asked, at: number) => readonly string[],
  at = now,
  who = 'ines',
) {
  const attempt = (await attemptsOf(who)).at(-1);
  if (!attempt) throw new Error('There is no attempt.');
  return ask(
    who,
    DOOR,
    [['attempt', String(attempt.number)], ['do', what], ...filled(attempt.asked, answer)],
    at,
  );
}
const nothing = () => [];

async function changeQuiz(over: Partial<Quiz>) {
  const item = trivet.state.outline.items.get(QUIZ);
  const content = trivet.state.contents.get(QUIZ);
  if (!item || !content?.quiz) throw new Error('There is no quiz.');
  await updateItem(trivet.db, { item, content: { ...content, quiz: { ...content.quiz, ...over } } });
  await trivet.reload();
}

describe('whose it is', () => {
  it('follows the decision on the quiz: its door gives what its page gives', async () => {
    expect((await ask(null, DOOR)).headers.Location).toBe(`/sign-in?next=${encodeURIComponent(DOOR)}`);
    expect((await ask(null, `${DOOR}/begin`, {})).status).toBe(303);
    // And whoever signs in there comes back.
    const form = { email: 'ines@larkfell.example', password: 'larkfell-demo', next: DOOR };
    expect((await ask(null, '/sign-in', form)).headers.Location).toBe(DOOR);
    for (const who of ['marek', 'wren'])
      for (const [path, form] of [
        [DOOR],
        [DOOR, { attempt: '1', do: 'hand in' }],
        [`${DOOR}/begin`, {}],
      ] as const) {
        const [door, page] = [await ask(who, path, form), await ask(who, PAGE)];
        expect([who, path, door.status, door.main]).toEqual([who, path, 403, page.main]);
        expect(await attemptsOf(who)).toEqual([]);
      }
    expect((await ask('ines', DOOR)).main).toContain(
      '6 questions · 20 minutes · passed with 75 % · 3 attempts',
    );
  });

  it('is nothing where there is no quiz', async () => {
    const never = (await ask('ines', '/never-there')).main;
    for (const path of ['ladder-safety', 'dome-induction', 'visit', 'never-there', `${QUIZ}/more/and/more`])
      for (const form of [undefined, {}]) {
        const answer = await ask('ines', `/me/quiz/${path}`, form);
        expect([path, answer.status, answer.main]).toEqual([path, 404, never]);
      }
  });

  it('ends with the right to it, also in the middle of an attempt', async () => {
    await begin();
    await trivet.db.execute(`delete from person_groups where person = 'ines'` as never);
    await trivet.reload();
    expect((await ask('ines', DOOR)).status).toBe(403);
    expect((await send('hand in', knownAnswer)).status).toBe(403);
    expect(await attemptsOf('ines')).toMatchObject([{ finished: null, answers: [[], [], [], [], [], []] }]);
    expect(completions('ines').some(({ item }) => item === QUIZ)).toBe(false);
  });
});

describe('an attempt', () => {
  it('is kept as it is filled in, and handed in when it is whole', async () => {
    expect((await begin()).headers.Location).toBe(DOOR);
    const kept = await send('keep', (one, at) => (at < 3 ? knownAnswer(one) : []));
    expect(kept.headers.Location).toBe(`${DOOR}?note=kept`);
    const half = await send('hand in', (one, at) => (at < 3 ? knownAnswer(one) : []));
    expect(half.status).toBe(422);
    expect(half.main.match(/This has no answer yet\./g)).toHaveLength(3);
    expect(half.main).toContain('Hand in as it is');
    expect((await send('hand in', knownAnswer)).headers.Location).toBe(DOOR);
    expect((await ask('ines', DOOR)).main).toMatch(
      /<strong>100<!-- --> %<\/strong> passed|<strong>100 %<\/strong> passed/,
    );
    expect(completions('ines')).toContainEqual({ item: QUIZ, on: '2026-11-20', score: 100 });
    expect((await ask('ines', PAGE)).main).toContain('You are done with this: 100 %.');
  });

  it('that is not enough completes nothing, and the next waits its time', async () => {
    await begin();
    await send('hand in as it is', nothing);
    expect((await attemptsOf('ines'))[0]).toMatchObject({ score: 0, finished: now });
    expect(completions('ines').some(({ item }) => item === QUIZ)).toBe(false);
    expect((await ask('ines', DOOR)).main).toContain('You can try again from');
    await begin('ines', later(29));
    expect(await attemptsOf('ines')).toHaveLength(1);
    await begin('ines', later(30));
    await send('hand in', knownAnswer, later(31));
    await begin('ines', later(62));
    await send('hand in as it is', nothing, later(63));
    // The best of them counts, and whoever is done stays so.
    expect(completions('ines').find(({ item }) => item === QUIZ)?.score).toBe(100);
    await begin('ines', later(999));
    expect(await attemptsOf('ines')).toHaveLength(3);
    expect((await ask('ines', DOOR, undefined, later(999))).main).toContain(
      'You have made all your attempts.',
    );
  });

  it('counts by its last score where its author says so', async () => {
    await changeQuiz({ counts: 'last', wait: 0 });
    await begin();
    await send('hand in', knownAnswer);
    await begin('ines', later(1));
    await send('hand in as it is', nothing, later(2));
    expect(completions('ines').find(({ item }) => item === QUIZ)?.score).toBe(0);
  });

  it('is one, however many begin it or hand it in at once', async () => {
    await Promise.all([begin(), begin(), begin()]);
    expect(await attemptsOf('ines')).toHaveLength(1);
    const answers = await Promise.all([send('hand in', knownAnswer), send('hand in', knownAnswer)]);
    expect(answers.map(({ status }) => status)).toEqual([303, 303]);
    expect(completions('ines').filter(({ item }) => item === QUIZ)).toHaveLength(1);
    const changes = await trivet.db.execute(`select summary from people_changes` as never);
    expect(
      changes.rows.filter((row) => String(row.summary).includes('Before your first opening')),
    ).toHaveLength(1);
  });

  it('takes nothing after its time: what was kept by then is handed in', async () => {
    await begin();
    await send('keep', knownAnswer, later(19));
    const late = await send('keep', nothing, later(21));
    expect(late.headers.Location).toBe(`${DOOR}?note=over`);
    expect((await attemptsOf('ines'))[0]).toMatchObject({ score: 100, finished: later(20) });
    expect((await ask('ines', `${DOOR}?note=over`, undefined, later(22))).main).toContain('its time was up');
    expect(completions('ines').some(({ item }) => item === QUIZ)).toBe(true);
  });

  it('is what it was drawn as, whatever its author changes meanwhile', async () => {
    await begin();
    await changeQuiz({ questions: [], passMark: 100, draw: null });
    expect((await ask('ines', DOOR)).main.match(/<fieldset/g)).toHaveLength(6);
    await send('hand in', knownAnswer);
    expect((await attemptsOf('ines'))[0]).toMatchObject({ score: 100, passMark: 75 });
    expect((await ask('ines', DOOR)).main).toContain('There are no questions yet.');
  });

  it('takes no answer of another, and says so', async () => {
    await begin();
    const first = await send('hand in as it is', nothing);
    expect(first.status).toBe(303);
    await begin('ines', later(60));
    // A tab that was left open sends the form of the first.
    const [, attempt] = await attemptsOf('ines');
    const form: [string, string][] = [
      ['attempt', '1'],
      ['do', 'hand in as it is'],
      ...filled(attempt?.asked ?? [], knownAnswer),
    ];
    expect((await ask('ines', DOOR, form, later(61))).headers.Location).toBe(`${DOOR}?note=over`);
    expect((await attemptsOf('ines'))[1]).toMatchObject({
      finished: null,
      answers: [[], [], [], [], [], []],
    });
  });

  it('refuses what was not offered and what is too long, and loses nothing', async () => {
    await changeQuiz({ draw: null, shuffle: false });
    await begin();
    await send('keep', knownAnswer);
    const before = (await attemptsOf('ines'))[0]?.answers;
    const odd = async (answer: readonly string[]) => {
      const got = await send('hand in as it is', () => answer);
      expect([answer, got.status]).toEqual([answer, 422]);
      return got.main;
    };
    expect(await odd(['99'])).toContain('That was not among what there is to choose from. Answer it again.');
    expect(await odd(['-1'])).toContain('Write a number');
    expect(await odd(['x'.repeat(301)])).toContain('An answer has at most 300 letters.');
    expect(await odd(['1', '1', '1', '1', '1', '1', '1'])).toContain('Two of these are in place');
    const kept = (await attemptsOf('ines'))[0];
    expect([kept?.finished, kept?.answers.slice(0, 2)]).toEqual([null, before?.slice(0, 2)]);
    const large = await ask('ines', DOOR, { attempt: '1', do: 'keep', q0: 'x'.repeat(1_000_000) });
    expect([large.status, large.main.includes('That could not be read')]).toEqual([400, true]);
    expect((await attemptsOf('ines'))[0]).toEqual(kept);
  });
});

describe('what runs', () => {
  const policyOf = async () => {
    const { headers, text } = await ask('ines', DOOR);
    return { policy: String(headers['Content-Security-Policy']), text };
  };

  it('is the one script of an attempt that is under way, and nothing anywhere else', async () => {
    const before = await policyOf();
    expect(before.policy).not.toContain('script-src');
    expect(before.text).not.toContain('<script');
    await begin();
    const { policy, text } = await policyOf();
    const nonce = /script-src 'nonce-([^']+)';/.exec(policy)?.[1];
    expect(text.match(/<script[^>]*>/g)).toEqual([expect.stringContaining(`nonce="${nonce}"`)]);
    await send('hand in', knownAnswer);
    expect((await policyOf()).policy).not.toContain('script-src');
    expect((await ask('ines', PAGE)).text).not.toContain('/assets/attempt');
  });
});

describe('what is told', () => {
  const TOLD = [
    'The bucket is for everything',
    'Why comes with the tea',
    'white light',
    'Right is',
    'Half an hour, for',
  ];
  const toldIn = (text: string) => TOLD.filter((words) => text.includes(words));

  it('is nothing of what is right, until whoever asks has passed', async () => {
    await changeQuiz({ draw: null, wait: 0 });
    await begin();
    expect(toldIn((await ask('ines', DOOR)).text)).toEqual([]);
    expect(toldIn((await send('hand in', nothing)).text)).toEqual([]);
    await send('hand in as it is', nothing);
    expect(toldIn((await ask('ines', DOOR)).text)).toEqual([]);
    await begin('ines', later(1));
    await send('hand in', (one) => (one.question.id === 'stop' ? ['1'] : knownAnswer(one)), later(2));
    const told = (await ask('ines', DOOR, undefined, later(3))).text;
    expect(toldIn(told)).toEqual(
      expect.arrayContaining(['The bucket is for everything', 'Half an hour, for']),
    );
    // And none of it while the next is under way.
    await begin('ines', later(4));
    expect(toldIn((await ask('ines', DOOR, undefined, later(5))).text)).toEqual([]);
  });

  it('is of every attempt that was handed in, and of none while another is under way', async () => {
    await changeQuiz({ answers: 'after the attempt', wait: 0, attempts: null });
    for (const minutes of [0, 30]) {
      await begin('ines', later(minutes));
      await send('hand in as it is', nothing, later(minutes + 1));
    }
    const page = (await ask('ines', DOOR, undefined, later(60))).main;
    expect(page.match(/class="quiz-answers"/g)).toHaveLength(2);
    expect(page).toMatch(/<details><summary>Question by question/);
    await begin('ines', later(61));
    expect((await ask('ines', DOOR, undefined, later(62))).main).not.toContain('quiz-answers');
  });

  it('does not depend on what is right, while it is asked', async () => {
    await changeQuiz({ draw: null, shuffle: false });
    await begin();
    const page = (await ask('ines', DOOR)).main;
    const [attempt] = await attemptsOf('ines');
    const other = attempt?.asked.map(otherwise);
    await trivet.db.execute(
      `update quiz_attempts set asked = '${JSON.stringify(other).replaceAll("'", "''")}'` as never,
    );
    expect((await ask('ines', DOOR)).main).toBe(page);
  });

  it('is of nobody’s attempts on a walk, where nothing is done', async () => {
    await begin();
    await send('hand in', knownAnswer);
    const session = await signedInAt(trivet, 'greta');
    const greta = administratorOf(session.visitor) ?? (await gretaAt(trivet));
    const walking = async (person: string, form?: Form) => {
      const begun = await startWalk(trivet, greta, { standIn: { person }, side: 'live' }, now);
      if (begun.kind !== 'walk') throw new Error(begun.kind);
      tokens.set('greta', session.token);
      return ask('greta', `/walk/${begun.token}${DOOR}${form ? '/begin' : ''}`, form);
    };
    const page = (await walking('ines')).main;
    expect(page).toContain('Begin');
    expect(page).not.toContain('Your attempts');
    expect((await walking('ines', {})).main).toContain(
      'begin an attempt of Ines Calloway at Before your first opening, with 6 questions',
    );
    expect((await walking('wren', {})).main).toContain('do nothing: that is not open to Wren Halloran');
    expect((await walking('wren')).status).toBe(403);
    expect(await attemptsOf('ines')).toHaveLength(1);
  });
});

/** The same question with something else that is right, shown to look the same. */
function otherwise({ question, shown }: Asked): Asked {
  switch (question.kind) {
    case 'one':
    case 'several': {
      const options = question.options.map((one) => ({ ...one, right: !one.right, feedback: 'else' }));
      return { question: { ...question, options, feedback: 'else' }, shown };
    }
    case 'number':
      return { question: { ...question, right: 99, tolerance: 1, feedback: 'else' }, shown };
    case 'text':
      return { question: { ...question, accepted: ['else'], feedback: 'else' }, shown };
    // Another order of the author’s, with what is shown where it was.
    case 'order':
      return {
        question: { ...question, steps: question.steps.toReversed() },
        shown: shown.map((place) => question.steps.length - 1 - place),
      };
    case 'pairs': {
      const rights = question.pairs.map(({ right }) => right).toReversed();
      return {
        question: {
          ...question,
          pairs: question.pairs.map(({ left }, at) => ({ left, right: rights[at] ?? '' })),
        },
        shown: shown.map((place) => rights.length - 1 - place),
      };
    }
    default:
      return question satisfies never;
  }
}
