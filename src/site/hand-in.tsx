/** A hand-in as its learner meets it: what to hand in, and what became of what was. */
import type { HandInView } from '@/services';
import { aroundOf, Whereabouts } from './course';
import { type Delivery, Shell } from './shell';
import { sizeInWords } from './size';
import { TaskTerms } from './task-terms';
import { say } from './wording';

interface HandInPageProps {
  readonly handIn: HandInView;
  readonly delivery: Delivery;
  readonly note: 'handed in' | null;
  readonly problem: string | null;
}

export function HandInPage({ handIn, delivery, note, problem }: HandInPageProps) {
  const { frame, title, address, place, versions } = handIn;
  const words = say().handIn;
  return (
    <Shell frame={frame} delivery={delivery} title={title} below={place ? aroundOf(place) : ''}>
      <article>
        {place && <Whereabouts place={place} />}
        <h1>{title}</h1>
        {note && (
          <p className="quiz-note" role="status">
            {words.handedIn}
          </p>
        )}
        {problem && (
          <p className="quiz-note problem" role="alert">
            {problem}
            {handIn.task.files > 0 && handIn.draft !== '' && ` ${words.chooseAgain}`}
          </p>
        )}
        <HandInForm handIn={handIn} />
        {versions.length > 0 && (
          <section aria-label={words.yours}>
            <h2>{words.yours}</h2>
            <ol className="handed-in">
              {versions.map((one) => (
                <Version key={one.version} version={one} />
              ))}
            </ol>
          </section>
        )}
        <p className="more">
          <a href={address}>{words.about}</a>
        </p>
      </article>
    </Shell>
  );
}

function HandInForm({ handIn }: { readonly handIn: HandInView }) {
  const { task, turn, action, draft, versions } = handIn;
  const words = say().handIn;
  if (turn === 'done') return <p className="quiz-before">{say().course.youAreDone}</p>;
  if (turn === 'too many') return <p className="quiz-before">{words.askTutor}</p>;
  const waits = versions.some(({ state }) => state === 'waiting');
  return (
    <form method="post" action={action} encType="multipart/form-data" className="quiz">
      <TaskTerms task={task} />
      {task.text && (
        <p className="grid gap-1.5">
          <label htmlFor="text">{words.what}</label>
          <textarea id="text" name="text" rows={8} defaultValue={draft} />
        </p>
      )}
      {task.files > 0 && (
        <p className="grid gap-1.5">
          <label htmlFor="files">{task.files > 1 ? words.atMost(task.files) : words.aFile}</label>
          <input id="files" name="files" type="file" multiple={task.files > 1} />
        </p>
      )}
      <p className="quiz-buttons">
        <button className="button" type="submit">
          {waits ? words.instead : words.button}
        </button>
      </p>
    </form>
  );
}

function Version({ version }: { readonly version: HandInView['versions'][number] }) {
  const { version: number, at, state, score, words, by, text, files } = version;
  const { handIn, day } = say();
  return (
    <li className={`handed-${state.replace(' ', '-')}`}>
      <p>
        <strong>{handIn.version(number)}</strong>, {day(at)}: {handIn.became[state]}
        {score !== null && `, ${score} %`}
      </p>
      {words !== '' && (
        <blockquote>
          {words.split('\n').map((line, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines of one text
            <p key={at}>{line}</p>
          ))}
          {by !== '' && <footer>{by}</footer>}
        </blockquote>
      )}
      {text !== '' && (
        <details open={state === 'waiting'}>
          <summary>{handIn.wrote}</summary>
          <div className="as-written">{text}</div>
        </details>
      )}
      {files.length > 0 && (
        <ul>
          {files.map((file) => (
            <li key={file.address}>
              <a href={file.address}>{file.name}</a> <small>{sizeInWords(file.size)}</small>
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}
