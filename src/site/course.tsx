/** A course and its activities, as a learner meets them. */
import type { ReactNode } from 'react';
import type { ActivityEntry, ActivityPlace, CourseOutline, UnitEntry } from '@/services';
import { LockSign } from './lock-sign';
import { markupOf } from './markup';
import { QuizTerms } from './quiz-terms';
import { TaskTerms } from './task-terms';
import { StepButton } from './threshold';
import { say } from './wording';

/** The units and activities of a course: what is done, what is open, what is locked and why. */
export function Outline({
  course,
  level = 2,
}: {
  readonly course: CourseOutline;
  /** Of the headings of units: one below what they stand under. */
  readonly level?: 2 | 3;
}) {
  const { units, goOn, progress, enrol } = course;
  const words = say().course;
  return (
    <section className="course" aria-label={words.label}>
      {enrol && <Enrol enrol={enrol} />}
      {progress && (
        <p className="course-progress">
          <progress value={progress.done} max={progress.of} aria-label={words.progress} />
          <span>{words.done(progress.done, progress.of)}</span>
          {goOn?.address && (
            <a className="button" href={goOn.address}>
              {(progress.done > 0 ? words.goOn : words.begin)(goOn.title)}
            </a>
          )}
        </p>
      )}
      <ol className="course-units">
        {units.map((unit) => (
          <UnitPart key={unit.id} unit={unit} level={level} />
        ))}
      </ol>
    </section>
  );
}

const Enrol = ({ enrol }: { readonly enrol: NonNullable<CourseOutline['enrol']> }) =>
  enrol.signIn ? (
    <p className="course-enrol">
      <a className="button" href={enrol.address}>
        {say().course.signInToEnrol}
      </a>
    </p>
  ) : (
    <form className="course-enrol" method="post" action={enrol.address}>
      <input type="hidden" name="next" value={enrol.back} />
      <button className="button" type="submit">
        {say().course.enrol}
      </button>
    </form>
  );

function UnitPart({ unit, level }: { readonly unit: UnitEntry; readonly level: 2 | 3 }) {
  const Heading = `h${level}` as const;
  return (
    <li>
      <Heading>
        {unit.closed && <LockSign />}
        {unit.title}
      </Heading>
      {unit.closed ? (
        <WhyClosed closed={unit.closed} />
      ) : (
        <ol
          className="course-activities"
          // biome-ignore lint/security/noDangerouslySetInnerHtml: rendered here
          dangerouslySetInnerHTML={{ __html: unit.activities.map(lineOf).join('') }}
        />
      )}
    </li>
  );
}

const lines = new WeakMap<ActivityEntry, string>();

/** The line of an activity, drawn once for everybody to whom it is the same. */
function lineOf(activity: ActivityEntry): string {
  const line = lines.get(activity) ?? markupOf(<ActivityLine activity={activity} />);
  lines.set(activity, line);
  return line;
}

function ActivityLine({ activity }: { readonly activity: ActivityEntry }) {
  const { address, title, type, done, closed } = activity;
  return (
    <li className={done ? 'is-done' : closed ? 'is-locked' : 'is-open'}>
      {address === null ? <span>{title}</span> : <a href={address}>{title}</a>}
      {type !== 'reading' && <small> {say().course.types[type]}</small>}
      {done && <small> {say().course.isDone}</small>}
      {closed && <WhyClosed closed={closed} />}
    </li>
  );
}

/** The reason, and what would open it, in a line or two. */
const WhyClosed = ({ closed }: { readonly closed: NonNullable<UnitEntry['closed']> }) =>
  closed.reason !== null || closed.step ? (
    <div className="course-why">
      {closed.reason !== null && <p>{closed.reason}</p>}
      {closed.step && <StepButton step={closed.step} />}
    </div>
  ) : null;

/** In which course an activity is, above its title. */
export const Whereabouts = ({ place }: { readonly place: ActivityPlace }) =>
  place.course && (
    <p className="course-place">
      <a href={place.course.address}>{place.course.title}</a>
      {place.unit && <span>{place.unit}</span>}
    </p>
  );

/** Being done with an activity, and what comes before it and after it. */
export function Onwards({ place }: { readonly place: ActivityPlace }) {
  const { previous, next } = place;
  const { quiz, handIn } = say();
  return (
    <>
      {place.quiz ? (
        <Elsewhere
          done={place.done}
          to={place.quiz}
          says={{ guest: quiz.signIn, learner: quiz.toQuestions, done: quiz.yourAttempts }}
        >
          <QuizTerms outline={place.quiz} />
        </Elsewhere>
      ) : place.task ? (
        <Elsewhere
          done={place.done}
          to={place.task}
          says={{ guest: handIn.signIn, learner: handIn.toHandIn, done: handIn.yours }}
        >
          <TaskTerms task={place.task} />
        </Elsewhere>
      ) : (
        place.done !== null && <Done place={place} />
      )}
      {(previous || next) && <Around place={place} />}
    </>
  );
}

function Done({ place: { done, type, finish, watch } }: { readonly place: ActivityPlace }) {
  const words = say().course;
  const said = words.says[type];
  if (said === null) return null;
  return done ? (
    <p className="course-done">{words.youAreDone}</p>
  ) : (
    <form
      className="course-done"
      method="post"
      action={finish.address}
      data-watch={watch ?? undefined}
      data-watched={watch === null ? undefined : words.watchedNow}
    >
      <input type="hidden" name="next" value={finish.back} />
      <button className="button" type="submit">
        {said}
      </button>
    </form>
  );
}

interface ElsewhereProps {
  readonly done: boolean | null;
  readonly to: { readonly address: string; readonly score: number | null };
  readonly says: Readonly<Record<'guest' | 'learner' | 'done', string>>;
  readonly children: ReactNode;
}

/** What is done elsewhere than on its page: the terms of it, and the way there. */
const Elsewhere = ({ done, to: { address, score }, says, children }: ElsewhereProps) => (
  <div className="course-done quiz-before">
    {children}
    {done && <p>{score === null ? say().course.youAreDone : say().course.youAreDoneWith(score)}</p>}
    <a className="button" href={address}>
      {done === null ? says.guest : done ? says.done : says.learner}
    </a>
  </div>
);

export function Around({ place: { previous, next } }: { readonly place: ActivityPlace }) {
  return (
    <nav className="neighbours" aria-label={say().course.around}>
      {previous?.address && (
        <a href={previous.address} rel="prev">
          <span className="hint">{say().course.previous}</span> {previous.title}
        </a>
      )}
      {next?.address ? (
        <a href={next.address} rel="next">
          <span className="hint">{say().course.next}</span> {next.title}
        </a>
      ) : (
        next && (
          <span>
            <span className="hint">{say().course.nextLocked}</span> {next.title}
          </span>
        )
      )}
    </nav>
  );
}
