/** A course and its activities, as a learner meets them. */
import type { ReactNode } from 'react';
import type {
  ActivitiesAround,
  ActivityEntry,
  ActivityPlace,
  ActivityStanding,
  CourseOutline,
  UnitEntry,
} from '@/services';
import { drawnOnce } from './drawn-once';
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

const lineOf = drawnOnce((activity: ActivityEntry) => <ActivityLine activity={activity} />);

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

const whereabouts = drawnOnce(({ course, unit }: ActivityStanding) => (
  <>
    <a href={course.address}>{course.title}</a>
    {unit && <span>{unit}</span>}
  </>
));

/** In which course an activity is, above its title. */
export const Whereabouts = ({ place }: { readonly place: ActivityPlace }) => (
  <p
    className="course-place"
    // biome-ignore lint/security/noDangerouslySetInnerHtml: rendered here
    dangerouslySetInnerHTML={{ __html: whereabouts(place.standing) }}
  />
);

/** Being done with an activity, and what comes before it and after it, as markup. */
export const onwards = (place: ActivityPlace): string => finishingOf(place) + aroundOf(place);

function finishingOf(place: ActivityPlace): string {
  const { standing, done, watch } = place;
  const elsewhere = elsewhereOf(place);
  if (elsewhere) return markupOf(<Elsewhere done={done} {...elsewhere} />);
  if (done === null) return '';
  if (done) return finished(standing);
  return watch === null ? finish(standing) : markupOf(<Finish standing={standing} watch={watch} />);
}

const finish = drawnOnce((standing: ActivityStanding) => <Finish standing={standing} watch={null} />);
const finished = drawnOnce(({ type }: ActivityStanding) => {
  const { says, youAreDone } = say().course;
  return says[type] === null ? null : <p className="course-done">{youAreDone}</p>;
});

interface FinishProps {
  readonly standing: ActivityStanding;
  readonly watch: string | null;
}

function Finish({ standing: { type, finish: to }, watch }: FinishProps) {
  const { says, watchedNow } = say().course;
  return says[type] === null ? null : (
    <form
      className="course-done"
      method="post"
      action={to.address}
      data-watch={watch ?? undefined}
      data-watched={watch === null ? undefined : watchedNow}
    >
      <input type="hidden" name="next" value={to.back} />
      <button className="button" type="submit">
        {says[type]}
      </button>
    </form>
  );
}

interface ElsewhereProps {
  readonly done: boolean | null;
  readonly to: { readonly address: string; readonly score: number | null };
  readonly says: Readonly<Record<'guest' | 'learner' | 'done', string>>;
  readonly terms: ReactNode;
}

/** Of a quiz and a hand-in, which are done elsewhere than on their page. */
function elsewhereOf({ quiz, task }: ActivityPlace): Omit<ElsewhereProps, 'done'> | null {
  const words = say();
  if (quiz) {
    const { signIn: guest, toQuestions: learner, yourAttempts: done } = words.quiz;
    return { to: quiz, says: { guest, learner, done }, terms: <QuizTerms outline={quiz} /> };
  }
  if (task) {
    const { signIn: guest, toHandIn: learner, yours: done } = words.handIn;
    return { to: task, says: { guest, learner, done }, terms: <TaskTerms task={task} /> };
  }
  return null;
}

/** The terms of what is done elsewhere, and the way there. */
const Elsewhere = ({ done, to: { address, score }, says, terms }: ElsewhereProps) => (
  <div className="course-done quiz-before">
    {terms}
    {done && <p>{score === null ? say().course.youAreDone : say().course.youAreDoneWith(score)}</p>}
    <a className="button" href={address}>
      {done === null ? says.guest : done ? says.done : says.learner}
    </a>
  </div>
);

/** What comes before an activity and after it, as markup. */
export const aroundOf = ({ around }: Pick<ActivityPlace, 'around'>): string => neighbours(around);

const neighbours = drawnOnce(({ previous, next }: ActivitiesAround) => {
  const words = say().course;
  return previous === null && next === null ? null : (
    <nav className="neighbours" aria-label={words.around}>
      {previous?.address && (
        <a href={previous.address} rel="prev">
          <span className="hint">{words.previous}</span> {previous.title}
        </a>
      )}
      {next?.address ? (
        <a href={next.address} rel="next">
          <span className="hint">{words.next}</span> {next.title}
        </a>
      ) : (
        next && (
          <span>
            <span className="hint">{words.nextLocked}</span> {next.title}
          </span>
        )
      )}
    </nav>
  );
});
