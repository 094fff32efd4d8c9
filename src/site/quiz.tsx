/** A quiz as its learner meets it: what it is, an attempt under way, and how those before went. */
import { counted } from '@/core';
import type { QuizView } from '@/services';
import { Around, Whereabouts } from './course';
import { Answered, Question } from './quiz-question';
import { QuizTerms } from './quiz-terms';
import { type Delivery, Shell } from './shell';

interface QuizPageProps {
  readonly quiz: QuizView;
  readonly delivery: Delivery;
  /** What has to be known of what was just done. */
  readonly note: keyof typeof NOTES | null;
  /** What the script of an attempt is let run by. */
  readonly nonce: string | null;
}

const NOTES = {
  kept: 'Your answers are kept. You can go on now, or another day.',
  'to mend': 'It is not handed in yet: look at what is marked below. What you answered is kept.',
  unreadable: 'That could not be read, so nothing was changed. What you had answered before is kept.',
  over: 'That attempt takes no answers any more.',
} as const;

export function QuizPage({ quiz, delivery, note, nonce }: QuizPageProps) {
  const { frame, title, address, place, attempt, past, answered } = quiz;
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={title}
      head={attempt && <script defer src={delivery.attemptScript} nonce={nonce ?? undefined} />}
    >
      <article>
        {place && <Whereabouts place={place} />}
        <h1>{title}</h1>
        {note && (
          <p className={note === 'kept' ? 'quiz-note' : 'quiz-note problem'} role="status">
            {NOTES[note]}
          </p>
        )}
        {attempt ? (
          <Attempt quiz={quiz} attempt={attempt} mends={note === 'to mend'} />
        ) : (
          <Before quiz={quiz} />
        )}
        {past.length > 0 && <Past past={past} />}
        {answered && (
          <section aria-label="Your last attempt, question by question">
            <h2>Question by question</h2>
            <Answers answered={answered} />
          </section>
        )}
        <p className="more">
          <a href={address}>About this quiz</a>
        </p>
      </article>
      {!attempt && place && <Around place={place} />}
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
  return (
    <form method="post" action={action} className="quiz">
      <input type="hidden" name="attempt" value={number} />
      <p className="quiz-terms">
        Attempt {number}
        {outline.attempts !== null && ` of ${outline.attempts}`} · {counted(questions.length, 'question')}
        {until && ` · until ${until.clock}`}
        {until && <span data-seconds={until.seconds} />}
      </p>
      {questions.map((question, at) => (
        <Question key={question.name} question={question} number={at + 1} />
      ))}
      <p className="quiz-buttons">
        <button className="button" type="submit" name="do" value="hand in">
          Hand in
        </button>
        {mends && (
          <button className="plain" type="submit" name="do" value="hand in as it is">
            Hand in as it is
          </button>
        )}
        <button className="plain" type="submit" name="do" value="keep">
          Keep, and go on later
        </button>
        <span className="hint" role="status" data-kept />
      </p>
    </form>
  );
}

/** Where no attempt is under way: beginning one, or why not. */
function Before({ quiz: { outline, turn, action } }: { readonly quiz: QuizView }) {
  switch (turn.kind) {
    case 'may begin':
      return (
        <form method="post" action={`${action}/begin`} className="quiz-before">
          <QuizTerms outline={outline} />
          {outline.minutes !== null && (
            <p>The clock runs from when you begin, also while this page is closed.</p>
          )}
          <button className="button" type="submit">
            {turn.left !== null && turn.left !== outline.attempts
              ? `Try again: ${counted(turn.left, 'attempt')} left`
              : 'Begin'}
          </button>
        </form>
      );
    case 'wait':
      return <p className="quiz-before">You can try again from {turn.until}.</p>;
    case 'none left':
      return <p className="quiz-before">You have made all your attempts.</p>;
    case 'nothing asked':
      return <p className="quiz-before">There are no questions yet.</p>;
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
  <section aria-label="Your attempts">
    <h2>Your attempts</h2>
    <ol className="quiz-past" reversed start={past[0]?.number}>
      {past.map(({ number, on, score, passed, timeUp, answered }) => (
        <li key={number}>
          <strong>{score} %</strong> {passed ? 'passed' : 'not passed'}, {on}
          {timeUp && <span className="hint"> (its time was up; what was kept by then counts)</span>}
          {answered && (
            <details>
              <summary>Question by question</summary>
              <Answers answered={answered} />
            </details>
          )}
        </li>
      ))}
    </ol>
  </section>
);
