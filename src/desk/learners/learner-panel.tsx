'use client';
/** One learner: what they did and how it went, what is closed to them and why, and marking by hand. */
import { type FormEvent, useState } from 'react';
import { toast } from 'sonner';
import { capital, dayInWords, PROGRESS } from '@/core';
import type { ActivityOfLearner, LearnerReport } from '@/services';
import { Button, Input } from '@/ui';
import { NumberInput } from '../number-input';
import { Panel } from '../panel';
import { ask } from '../service';
import { pathOf } from './looking';
import { ProgressMark } from './progress-marks';
import { Became, Judging, Work } from './waiting-panel';

interface PanelProps {
  readonly report: LearnerReport;
  readonly course: string;
  /** Something was done about what they handed in, or their enrolment. */
  readonly onChanged: () => void;
  readonly onClose: () => void;
  /** Marks an activity; answers what is wrong, or null. */
  readonly onMark: (mark: Marking) => Promise<string | null>;
  /** Opens the page of the person, for those who may look at people. */
  readonly onPerson: (() => void) | null;
}

export interface Marking {
  readonly activity: string;
  readonly done: boolean;
  readonly score: number | null;
  readonly why: string;
}

export function LearnerPanel({ report, course, onChanged, onClose, onMark, onPerson }: PanelProps) {
  const { name, email, enrolled, units, completed } = report;
  return (
    <Panel
      title={name}
      closes="Close"
      onClose={onClose}
      note={
        <>
          {email}
          <br />
          {enrolled
            ? `Enrolled ${enrolled.through === null ? '' : `through ${enrolled.through} since `}${dayInWords(enrolled.on)}${enrolled.until ? `, until ${dayInWords(enrolled.until)}` : ''}.`
            : 'Not enrolled.'}
          {completed && ` Completed the course ${dayInWords(completed)}.`}
        </>
      }
      actions={
        <>
          {onPerson && <Button onClick={onPerson}>Their page</Button>}
          {enrolled?.runs && enrolled.through === null && (
            <EndEnrolment course={course} report={report} onEnded={onChanged} />
          )}
        </>
      }
    >
      {units.map((unit) => (
        <section key={unit.id} aria-label={unit.title} className="mb-5">
          <h3>
            {unit.title}
            {unit.completed && <span className="note ml-2">completed {dayInWords(unit.completed)}</span>}
          </h3>
          <ul className="mt-1">
            {unit.activities.map((activity) => (
              <ActivityItem
                key={activity.id}
                activity={activity}
                course={course}
                onMark={onMark}
                onChanged={onChanged}
              />
            ))}
          </ul>
        </section>
      ))}
    </Panel>
  );
}

interface ActivityProps {
  readonly activity: ActivityOfLearner;
  readonly course: string;
  readonly onMark: PanelProps['onMark'];
  readonly onChanged: () => void;
}

function ActivityItem({ activity, course, onMark, onChanged }: ActivityProps) {
  const { id, title, state, on, score, because, waysIn, attempts, handedIn } = activity;
  const [marking, setMarking] = useState(false);
  return (
    <li className="border-thin border-t py-1.5">
      <div className="flex items-start gap-2">
        <span className="mt-0.5">
          <ProgressMark state={state} />
        </span>
        <span className="min-w-0 flex-1">
          {title}
          <span className="note block">
            {state === 'done'
              ? `Done ${on ? dayInWords(on) : ''}${score === null ? '' : `, ${score} %`}`
              : capital(PROGRESS[state].words)}
            {because !== null && `. ${because}.`}
          </span>
          {waysIn.length > 0 && <span className="note block">Would open it: {waysIn.join('; or ')}.</span>}
        </span>
        <Button
          weight="quiet"
          size="small"
          aria-expanded={marking}
          aria-label={state === 'done' ? `Take back: ${title}` : `Mark as done: ${title}`}
          onClick={() => setMarking(!marking)}
        >
          {state === 'done' ? 'Take back …' : 'Mark …'}
        </Button>
      </div>
      {marking && (
        <Mark
          title={title}
          isDone={state === 'done'}
          onSend={async (mark) => {
            const problem = await onMark({ activity: id, ...mark });
            if (problem === null) setMarking(false);
            return problem;
          }}
        />
      )}
      {handedIn.map((one) => (
        <details key={one.id} className="mt-1 ml-6" open={one.state === 'waiting'}>
          <summary className="cursor-pointer text-quiet">
            <Became handedIn={one} />
          </summary>
          <Work course={course} handedIn={one} />
          {one.state === 'waiting' && <Judging course={course} handedIn={one} onJudged={onChanged} />}
        </details>
      ))}
      {attempts.map((attempt) => (
        <details key={attempt.number} className="mt-1 ml-6">
          <summary className="cursor-pointer text-quiet">
            Attempt {attempt.number}:{' '}
            {attempt.finished === null
              ? `under way since ${dayInWords(attempt.begun)}`
              : `${attempt.score} %, ${attempt.passed ? 'passed' : 'not passed'}, ${dayInWords(attempt.finished)}`}
          </summary>
          <ol className="mt-1 grid list-decimal gap-2 pl-5 text-[0.8125rem]">
            {attempt.answered.map(({ text, worth, given, right }, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: questions stand in the order in which they were asked
              <li key={at}>
                {text}
                <span className="note block">
                  {worth}
                  {given.length > 0 && `: ${given.join('; ')}`}
                  {right.length > 0 && `. Right is: ${right.join('; ')}`}
                </span>
              </li>
            ))}
          </ol>
        </details>
      ))}
    </li>
  );
}

interface EndProps {
  readonly course: string;
  readonly report: LearnerReport;
  readonly onEnded: () => void;
}

/** Ends an enrolment in two steps: the reason stands in its record. */
function EndEnrolment({ course, report: { person, name }, onEnded }: EndProps) {
  const [why, setWhy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  if (why === null) return <Button onClick={() => setWhy('')}>End enrolment …</Button>;
  const end = async (event: FormEvent) => {
    event.preventDefault();
    const path = pathOf({ day: null }, course, 'learners', person, 'enrolment');
    const answer = await ask<{ readonly summary: string }>('DELETE', path, { why });
    if (!answer.ok) return setProblem(answer.title);
    toast(answer.value.summary);
    setWhy(null);
    onEnded();
  };
  return (
    <form onSubmit={end} className="flex flex-wrap items-center gap-2">
      <Input
        label={`Why the enrolment of ${name} ends`}
        placeholder="Why, if you like"
        value={why}
        maxLength={500}
        onChange={(event) => setWhy(event.target.value)}
      />
      <Button type="submit">End it today</Button>
      {problem && (
        <p role="alert" className="w-full text-alarm">
          {problem}
        </p>
      )}
    </form>
  );
}

interface MarkProps {
  readonly title: string;
  readonly isDone: boolean;
  readonly onSend: (mark: Omit<Marking, 'activity'>) => Promise<string | null>;
}

function Mark({ title, isDone, onSend }: MarkProps) {
  const [score, setScore] = useState<number | null>(null);
  const [why, setWhy] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(await onSend({ done: !isDone, score: isDone ? null : score, why }));
  };
  return (
    <form onSubmit={send} className="mt-1.5 ml-6 flex flex-wrap items-center gap-2">
      {!isDone && (
        <>
          <NumberInput
            label={`Score of ${title}, in per cent`}
            value={score}
            onChange={setScore}
            placeholder="score"
          />
          <span className="text-quiet">%</span>
        </>
      )}
      <Input
        label={`Why ${title} is ${isDone ? 'taken back' : 'marked'}`}
        placeholder={isDone ? 'Why it is taken back' : 'Why, if you like'}
        className="min-w-40 flex-1"
        value={why}
        maxLength={500}
        onChange={(event) => setWhy(event.target.value)}
      />
      <Button type="submit">{isDone ? 'Take back' : 'Mark as done'}</Button>
      {problem && (
        <p role="alert" className="w-full text-alarm">
          {problem}
        </p>
      )}
    </form>
  );
}

/** Sends a mark; answers what is wrong with it, or null. */
export async function sendMark(course: string, person: string, mark: Marking): Promise<string | null> {
  const path = `courses/${encodeURIComponent(course)}/learners/${encodeURIComponent(person)}`;
  const answer = await ask<{ readonly summary: string }>('POST', path, mark);
  if (!answer.ok) return answer.title;
  toast(answer.value.summary);
  return null;
}
