/** A question of a quiz, to be answered without scripts, and as it was answered. */
import { LONGEST_ANSWER } from '@/core';
import type { AnsweredView, QuestionView } from '@/services';
import { say } from './wording';

interface QuestionProps {
  readonly question: QuestionView;
  readonly number: number;
}

export function Question({ question, number }: QuestionProps) {
  const { name, kind, html, points, problem } = question;
  const words = say().quiz;
  const about = problem === null ? undefined : `${name}-problem`;
  return (
    <fieldset className={problem === null ? 'quiz-question' : 'quiz-question is-wrong'} id={name}>
      <legend>
        {words.question(number)}
        {points !== 1 && <span className="hint"> {words.points(points)}</span>}
      </legend>
      <Text html={html} />
      <p className="hint" id={`${name}-how`}>
        {words.how[kind]}
      </p>
      <Fields question={question} number={number} about={about ?? `${name}-how`} />
      {problem && (
        <p className="problem" id={about} role="alert">
          {problem}
        </p>
      )}
    </fieldset>
  );
}

interface FieldsProps extends QuestionProps {
  /** What describes the fields. */
  readonly about: string;
}

function Fields({ question, number, about }: FieldsProps) {
  const { name, kind, choices, lefts, answer } = question;
  switch (kind) {
    case 'one':
    case 'several':
      return choices.map((text, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: what there is to choose is known by its place
        <label key={place} className="quiz-choice">
          <input
            type={kind === 'one' ? 'radio' : 'checkbox'}
            name={name}
            value={place}
            defaultChecked={answer.includes(String(place))}
            aria-describedby={about}
          />
          <span>{text}</span>
        </label>
      ));
    case 'number':
    case 'text':
      return (
        <input
          name={name}
          type="text"
          inputMode={kind === 'number' ? 'decimal' : undefined}
          maxLength={LONGEST_ANSWER}
          defaultValue={answer[0] ?? ''}
          autoComplete="off"
          aria-label={say().quiz.answerTo(number)}
          aria-describedby={about}
        />
      );
    case 'order':
      return (
        <Rows
          rows={choices}
          name={name}
          answer={answer}
          about={about}
          options={choices.map((_, at) => [String(at + 1), `${at + 1}`])}
        />
      );
    case 'pairs':
      return (
        <Rows
          rows={lefts}
          name={name}
          answer={answer}
          about={about}
          options={choices.map((text, place) => [String(place), text])}
        />
      );
    default:
      return kind satisfies never;
  }
}

interface RowsProps {
  readonly rows: readonly string[];
  readonly name: string;
  readonly answer: readonly string[];
  readonly about: string;
  /** The value of each and what stands for it. */
  readonly options: readonly (readonly [string, string])[];
}

/** Something to be chosen for each of several things. */
const Rows = ({ rows, name, answer, about, options }: RowsProps) => (
  <ul className="quiz-rows">
    {rows.map((text, at) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: each is known by its place
      <li key={at}>
        <label htmlFor={`${name}.${at}`}>{text}</label>
        <select
          id={`${name}.${at}`}
          name={`${name}.${at}`}
          defaultValue={answer[at] ?? ''}
          aria-describedby={about}
        >
          <option value="">–</option>
          {options.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </li>
    ))}
  </ul>
);

/** A question with what was answered, what would have been right, and why. */
export function Answered({ answered }: { readonly answered: AnsweredView }) {
  const { html, given, worth, right, feedback } = answered;
  const words = say().quiz;
  return (
    <li className={worth === 'right' ? 'quiz-answered is-right' : 'quiz-answered'}>
      <Text html={html} />
      <p>
        <strong>{words.worth[worth]}</strong>
      </p>
      {given.length > 0 && <Lines name={words.said} lines={given} />}
      {right.length > 0 && <Lines name={words.rightIs} lines={right} />}
      {feedback.map((text) => (
        <p key={text} className="quiz-feedback">
          {text}
        </p>
      ))}
    </li>
  );
}

const Lines = ({ name, lines }: { readonly name: string; readonly lines: readonly string[] }) => (
  <dl>
    <dt>{name}</dt>
    {lines.map((line) => (
      <dd key={line}>{line}</dd>
    ))}
  </dl>
);

// biome-ignore lint/security/noDangerouslySetInnerHtml: made of Markdown by the server, with markup dropped
const Text = ({ html }: { readonly html: string }) => <div dangerouslySetInnerHTML={{ __html: html }} />;
