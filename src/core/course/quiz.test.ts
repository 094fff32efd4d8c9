import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { knownAnswer, questions, quizzes } from '../testing/quizzes';
import {
  type Asked,
  answerProblem,
  askedIn,
  drawn,
  endOf,
  isOffered,
  isOver,
  LONGEST_ANSWER,
  MOST_ATTEMPTS,
  newQuiz,
  type Question,
  rightAnswer,
  scoreOf,
  scoreThatCounts,
  tellsAnswers,
  turnOf,
  worthOf,
} from '.';

const seeds = fc.infiniteStream(fc.double({ min: 0, max: 1, maxExcluded: true, noNaN: true }));
const attempts = fc.tuple(quizzes, seeds).map(([quiz, stream]) => ({
  quiz,
  asked: drawn(quiz, () => stream.next().value),
}));
const base = { id: 'q', text: 'What?', points: 1, feedback: '' };
const ask = (question: Question, shown: readonly number[] = []): Asked => ({ question, shown });

describe('what is drawn', () => {
  it('is as many as are asked, each once, of what the quiz has', () => {
    fc.assert(
      fc.property(attempts, ({ quiz, asked }) => {
        expect(asked).toHaveLength(askedIn(quiz));
        expect(new Set(asked.map(({ question }) => question.id)).size).toBe(asked.length);
        for (const { question } of asked) expect(quiz.questions).toContain(question);
        const places = asked.map(({ question }) => quiz.questions.indexOf(question));
        if (!quiz.shuffle) expect(places).toEqual(places.toSorted((one, other) => one - other));
      }),
    );
  });

  it('shows everything there is to choose from once, and never the steps in their order', () => {
    fc.assert(
      fc.property(attempts, ({ asked }) => {
        for (const { question, shown } of asked) {
          const places = shown.toSorted((one, other) => one - other);
          expect(places).toEqual(places.map((_, at) => at));
          if (question.kind === 'order') expect(shown).not.toEqual(places);
        }
      }),
    );
  });
});

describe('an answer', () => {
  it('that knows everything is offered, has nothing wrong with it, and is worth everything', () => {
    fc.assert(
      fc.property(attempts, ({ asked }) => {
        const answers = asked.map(knownAnswer);
        for (const [at, one] of asked.entries()) {
          const answer = answers[at] ?? [];
          expect([isOffered(one, answer), answerProblem(one, answer)]).toEqual([true, null]);
          expect(worthOf(one, answer)).toBeCloseTo(1, 9);
          expect(rightAnswer(one).length).toBeGreaterThan(0);
        }
        if (asked.length > 0) expect(scoreOf(asked, answers)).toBe(100);
      }),
    );
  });

  it('whatever it says, is worth something between nothing and everything if it is offered', () => {
    const texts = fc.array(fc.oneof(fc.constantFrom('', '0', '1', '2', '5', 'white'), fc.string()), {
      maxLength: 7,
    });
    fc.assert(
      fc.property(attempts, texts, ({ asked }, answer) => {
        for (const one of asked.filter((each) => isOffered(each, answer))) {
          expect(worthOf(one, answer)).toBeGreaterThanOrEqual(0);
          expect(worthOf(one, answer)).toBeLessThanOrEqual(1 + 1e-9);
        }
        const score = scoreOf(
          asked,
          asked.map((each) => (isOffered(each, answer) ? answer : [])),
        );
        expect(score).toBeGreaterThanOrEqual(0);
        expect(score).toBeLessThanOrEqual(100);
      }),
    );
  });

  it('that was not given is worth nothing, and so is everything at once of several', () => {
    fc.assert(
      fc.property(questions, (question) => {
        const shown = 'options' in question ? question.options.map((_, at) => at) : [];
        expect(worthOf({ question, shown }, [])).toBe(0);
        if (question.kind !== 'several' || question.options.every(({ right }) => right)) return;
        expect(worthOf({ question, shown }, shown.map(String))).toBe(0);
      }),
    );
  });

  it('is refused where it was not offered', () => {
    const two = [
      { text: 'a', right: true, feedback: '' },
      { text: 'b', right: false, feedback: '' },
    ];
    const one = ask({ ...base, kind: 'one', options: two }, [1, 0]);
    expect([['0'], ['1'], []].every((answer) => isOffered(one, answer))).toBe(true);
    for (const wrong of [['2'], ['-1'], ['0', '1'], ['a'], ['0x0'], ['1.0'], [' 1']])
      expect([wrong, isOffered(one, wrong)]).toEqual([wrong, false]);
    const several = ask({ ...base, kind: 'several', options: two }, [0, 1]);
    expect([isOffered(several, ['0', '1']), isOffered(several, ['0', '0'])]).toEqual([true, false]);
    const order = ask({ ...base, kind: 'order', steps: ['a', 'b'] }, [1, 0]);
    expect(['1', '2', ''].every((place) => isOffered(order, [place, '']))).toBe(true);
    expect(['0', '3', '01'].map((place) => isOffered(order, [place, '']))).toEqual([false, false, true]);
    const text = ask({ ...base, kind: 'text', accepted: ['a'] });
    expect(isOffered(text, ['x'.repeat(LONGEST_ANSWER)])).toBe(true);
    expect(isOffered(text, ['x'.repeat(LONGEST_ANSWER + 1)])).toBe(false);
  });
});

describe('kinds of question', () => {
  it('a number is read as people write one, and right within its tolerance', () => {
    const dark = ask({ ...base, kind: 'number', right: 30, tolerance: 5 });
    const worth = (text: string) => worthOf(dark, [text]);
    expect(['30', ' 25 ', '35', '3e1', '+27,5'].map(worth)).toEqual([1, 1, 1, 1, 1]);
    expect(['24.9', '36', 'thirty', '', '30 minutes', '0x1e', 'Infinity'].map(worth)).toEqual([
      0, 0, 0, 0, 0, 0, 0,
    ]);
    expect(worthOf(ask({ ...base, kind: 'number', right: 0.3, tolerance: 0.1 }), ['0.4'])).toBe(1);
    expect(worthOf(ask({ ...base, kind: 'number', right: -4, tolerance: 0 }), ['−4'])).toBe(1);
    expect(answerProblem(dark, ['thirty'])).toBe('Write a number, like 12 or 12.5, and nothing else.');
    expect(answerProblem(dark, ['30'])).toBeNull();
  });

  it('a short text is read without regard to case, spaces and how its letters are made', () => {
    const word = ask({ ...base, kind: 'text', accepted: ['Café au lait'] });
    for (const text of ['café au lait', '  CAFÉ  au\tlait ', 'cafe\u0301 au lait'])
      expect(worthOf(word, [text])).toBe(1);
    for (const text of ['cafe au lait', 'café', ' ']) expect(worthOf(word, [text])).toBe(0);
  });

  it('an order is worth what stands in its place, and no place is given twice', () => {
    const steps = ask({ ...base, kind: 'order', steps: ['look', 'call', 'open', 'listen'] }, [3, 1, 0, 2]);
    expect(worthOf(steps, ['4', '2', '1', '3'])).toBe(1);
    expect(worthOf(steps, ['3', '2', '1', '4'])).toBe(0.5);
    expect(worthOf(steps, ['', '2', '', ''])).toBe(0.25);
    expect(answerProblem(steps, ['4', '2', '2', '3'])).toBe(
      'Two of these are in place 2. Give each its own.',
    );
    expect(answerProblem(steps, ['4', '', '', '3'])).toBeNull();
  });

  it('pairs are worth what is paired as it should be, whichever of two alike was meant', () => {
    const pairs = [
      { left: 'red torch', right: 'at your feet' },
      { left: 'gloves', right: 'by the bench' },
      { left: 'cloth', right: 'by the bench' },
    ];
    const asked = ask({ ...base, kind: 'pairs', pairs }, [2, 0, 1]);
    expect(worthOf(asked, ['1', '0', '2'])).toBe(1);
    expect(worthOf(asked, ['1', '1', ''])).toBeCloseTo(1 / 3, 9);
  });

  it('of several, what was chosen and is wrong takes away what was right', () => {
    const options = ['wind', 'ice', 'moon', 'school'].map((text, at) => ({
      text,
      right: at < 2,
      feedback: '',
    }));
    const asked = ask({ ...base, kind: 'several', options }, [2, 0, 3, 1]);
    expect(
      [['1', '3'], ['1'], ['1', '3', '0'], ['0', '1', '2']].map((answer) => worthOf(asked, answer)),
    ).toEqual([1, 0.5, 0.5, 0]);
  });

  it('count for their points, and nobody passes by rounding', () => {
    const one = (points: number, right: string): Asked =>
      ask({ ...base, points, kind: 'text', accepted: [right] });
    expect(scoreOf([one(2, 'a'), one(1, 'b')], [['a'], ['x']])).toBe(66.6);
    expect(scoreOf([one(1, 'a'), one(1, 'b'), one(1, 'c')], [['a'], ['b'], ['c']])).toBe(100);
    expect(scoreOf([], [])).toBe(0);
  });
});

describe('attempts', () => {
  const now = new Date('2026-11-26T20:00:00Z');
  const ago = (minutes: number) => new Date(now.getTime() - minutes * 60_000);
  const result = (score: number, minutes: number) => ({ score, passed: score >= 75, finished: ago(minutes) });
  const underWay = { score: null, passed: false, finished: null };
  const [question] = fc.sample(questions, 1);
  const quiz = { ...newQuiz, questions: question ? [question] : [], attempts: 3, wait: 30 };

  it('can begin while there are some left, and enough time has passed since the last', () => {
    expect(turnOf(quiz, [], now)).toEqual({ kind: 'may begin', left: 3 });
    expect(turnOf(quiz, [result(40, 29)], now)).toEqual({ kind: 'wait', until: ago(-1) });
    expect(turnOf(quiz, [result(40, 30)], now)).toEqual({ kind: 'may begin', left: 2 });
    expect(turnOf(quiz, [result(40, 90), underWay], now).kind).toBe('under way');
    expect(turnOf(quiz, [result(1, 900), result(2, 600), result(3, 300)], now).kind).toBe('none left');
    expect(turnOf({ ...quiz, questions: [] }, [], now).kind).toBe('nothing asked');
    const many = Array.from({ length: MOST_ATTEMPTS }, () => result(1, 900));
    expect(turnOf({ ...quiz, attempts: null }, many.slice(1), now)).toEqual({
      kind: 'may begin',
      left: null,
    });
    expect(turnOf({ ...quiz, attempts: null }, many, now).kind).toBe('none left');
  });

  it('take answers until their time is up, and what was on its way by then', () => {
    const until = endOf({ ...quiz, minutes: 20 }, now);
    expect(until).toEqual(ago(-20));
    expect(isOver({ until }, ago(-20))).toBe(false);
    expect(isOver({ until }, new Date(ago(-20).getTime() + 16_000))).toBe(true);
    expect([endOf(quiz, now), isOver({ until: null }, ago(-9999))]).toEqual([null, false]);
  });

  it('tell what was right when their author says so, and never while another is under way', () => {
    const failed = [result(40, 90)];
    const passed = [result(40, 90), result(80, 40)];
    const tells = (
      answers: typeof quiz.answers,
      ...rest: readonly (typeof underWay | (typeof failed)[0])[]
    ) => tellsAnswers({ ...quiz, answers }, rest);
    expect([tells('never', ...passed), tells('after the attempt', ...failed)]).toEqual([false, true]);
    expect([tells('after passing', ...failed), tells('after passing', ...passed)]).toEqual([false, true]);
    expect(tells('after the last attempt', ...passed)).toBe(false);
    expect(tells('after the last attempt', ...passed, result(10, 5))).toBe(true);
    expect(tellsAnswers({ ...quiz, attempts: null, answers: 'after the last attempt' }, passed)).toBe(false);
    fc.assert(
      fc.property(quizzes, fc.array(fc.constantFrom(...passed)), (any, before) => {
        expect(tellsAnswers(any, [])).toBe(false);
        expect(tellsAnswers(any, [...before, underWay])).toBe(false);
      }),
    );
  });

  it('count by their best score or by their last', () => {
    const three = [result(40, 90), result(80, 60), result(60, 30), underWay];
    expect(scoreThatCounts({ ...quiz, counts: 'best' }, three)).toBe(80);
    expect(scoreThatCounts({ ...quiz, counts: 'last' }, three)).toBe(60);
    expect(scoreThatCounts(quiz, [underWay])).toBeNull();
  });
});
