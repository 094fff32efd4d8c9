/** A quiz as its learner meets it: what it is, an attempt under way, and how those before went. */
import type { Messages } from '@/core';
import type { QuizView } from '@/services';
import { aroundOf, Whereabouts } from './course';
import { Answered, Question } from './quiz-question';
import { QuizTerms } from './quiz-terms';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface QuizPageProps {
  readonly quiz: QuizView;
  readonly delivery: Delivery;
  /** What has to be known of what was just done. */
  readonly note: keyof Messages['quiz']['notes'] | null;
  /** What the script of an attempt is let run by. */
  readonly nonce: string | null;
}

export function QuizPage({ quiz, delivery, note, nonce }: QuizPageProps) {
  const { frame, title, address, place, attempt, past, answered } = quiz;
  const words = say().quiz;
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={title}
      below={!attempt && place ? aroundOf(place) : ''}
      head={attempt && <script defer src={delivery.attemptScript} nonce={nonce ?? undefined} />}
    >
      <article>
        {place && <Whereabouts place={place} />}
        <h1>{title}</h1>
        {note && (
          <p className={note === 'kept' ? 'quiz-note' : 'quiz-note problem'} role="status">
            {words.notes[note]}
          </p>
        )}
        {attempt ? (
          <Attempt quiz={quiz} attempt={attempt} mends={note === 'to mend'} />
        ) : (
          <Before quiz={quiz} />
        )}
        {past.length > 0 && <Past past={past} />}
        {answered && (
          <section aria-label={words.lastByQuestion}>
            <h2>{words.byQuestion}</h2>
            <Answers answered={answered} />
          </section>
        )}
        <p className="more">
          <a href={address}>{words.about}</a>
        </p>
      </article>
    </Shell>
  );
}

interface AttemptProps {
  readonly quiz: QuizView;
  readonly attempt: NonNullable<QuizView['attempt']>;
  /** Whether it was to be handed in and could not be. */
  readonly mends: boolean;
}

function Attempt({ quiz: { action, outline }, attempt, mends }: AttemptProps) {
  const { number, until, questions } = attempt;
  const words = say().quiz;
  return (
    <form method="post" action={action} className="quiz">
      <input type="hidden" name="attempt" value={number} />
      <p className="quiz-terms">
        {words.attemptOf(number, outline.attempts)} · {words.questions(questions.length)}
        {until && ` · ${words.until(clockOf(until))}`}
        {until && <span data-seconds={until.seconds} data-left={words.left} />}
      </p>
      {questions.map((question, at) => (
        <Question key={question.name} question={question} number={at + 1} />
      ))}
      <p className="quiz-buttons">
        <button className="button" type="submit" name="do" value="hand in">
          {words.handIn}
        </button>
        {mends && (
          <button className="plain" type="submit" name="do" value="hand in as it is">
            {words.handInAsItIs}
          </button>
        )}
        <button className="plain" type="submit" name="do" value="keep">
          {words.keep}
        </button>
        <span
          className="hint"
          role="status"
          data-kept={words.keptNow}
          data-not-kept={words.notAllKept}
          data-offline={words.offline}
        />
      </p>
    </form>
  );
}

/** A moment by the site's clock, with its day when that is another than today. */
function clockOf({ clock, day }: { readonly clock: string; readonly day: string | null }): string {
  const { quiz, day: inWords } = say();
  return day === null ? clock : quiz.clockOn(clock, inWords(day));
}

/** Where no attempt is under way: beginning one, or why not. */
function Before({ quiz: { outline, turn, action } }: { readonly quiz: QuizView }) {
  const words = say().quiz;
  switch (turn.kind) {
    case 'may begin':
      return (
        <form method="post" action={`${action}/begin`} className="quiz-before">
          <QuizTerms outline={outline} />
          {outline.minutes !== null && <p>{words.clockRuns}</p>}
          <button className="button" type="submit">
            {turn.left !== null && turn.left !== outline.attempts ? words.again(turn.left) : words.begin}
          </button>
        </form>
      );
    case 'wait':
      return <p className="quiz-before">{words.againFrom(clockOf(turn.until))}</p>;
    case 'none left':
      return <p className="quiz-before">{words.noneLeft}</p>;
    case 'nothing asked':
      return <p className="quiz-before">{words.nothingAsked}</p>;
    case 'under way':
      return null;
    default:
      return turn satisfies never;
  }
}

const Answers = ({ answered }: { readonly answered: NonNullable<QuizView['answered']> }) => (
  <ol className="quiz-answers">
    {answered.map((one, at) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: questions stand in the order in which they were asked
      <Answered key={at} answered={one} />
    ))}
  </ol>
);

const Past = ({ past }: { readonly past: QuizView['past'] }) => (
  <section aria-label={say().quiz.yourAttempts}>
    <h2>{say().quiz.yourAttempts}</h2>
    <ol className="quiz-past" reversed start={past[0]?.number}>
      {past.map(({ number, on, score, passed, timeUp, answered }) => (
        <li key={number}>
          <strong>{score} %</strong> {passed ? say().quiz.passed : say().quiz.notPassed}, {say().day(on)}
          {timeUp && <span className="hint"> {say().quiz.timeUp}</span>}
          {answered && (
            <details>
              <summary>{say().quiz.byQuestion}</summary>
              <Answers answered={answered} />
            </details>
          )}
        </li>
      ))}
    </ol>
  </section>
);
