'use client';
/** The learners of a course, for whoever may see them: the desk's screen and a tutor's whole desk. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import { counted, type Day } from '@/core';
import type { CourseProgress, HandInsWaiting, LearnerReport } from '@/services';
import { Button, Download, Input, Pick } from '@/ui';
import { type Answer, ask } from '../service';
import { EnrolPanel } from './enrol-panel';
import { LearnerPanel, sendMark } from './learner-panel';
import { type Looking, pathOf } from './looking';
import { inOrder, named, type Order } from './order';
import { ProgressLegend } from './progress-marks';
import { ProgressMatrix } from './progress-matrix';
import { WaitingPanel } from './waiting-panel';

interface LearnersProps {
  readonly looking: Looking;
  readonly onLook: (looking: Looking) => void;
  readonly today: Day;
  /** Opens the page of a person, for those who may look at people. */
  readonly onPerson: ((person: string) => void) | null;
}

export function Learners({ looking, onLook, today, onPerson }: LearnersProps) {
  const courses = useGot<readonly { readonly id: string; readonly title: string }[]>('courses', 0);
  const list = courses?.ok ? courses.value : [];
  const course = looking.course ?? list[0]?.id ?? null;
  const [times, setTimes] = useState(0);
  const renew = useCallback(() => setTimes((count) => count + 1), []);
  const [bench, setBench] = useState<'enrolling' | 'waiting' | null>(null);
  const waiting = useGot<HandInsWaiting>(
    course === null ? null : pathOf({ day: null }, course, 'hand-ins'),
    times,
  );
  const waits = waiting?.ok ? waiting.value.count : 0;
  const progress = useGot<CourseProgress>(course === null ? null : pathOf(looking, course), times);
  const learner = useGot<LearnerReport>(
    course === null || looking.person === null ? null : pathOf(looking, course, 'learners', looking.person),
    times,
  );
  const [order, setOrder] = useState<Order>('name');
  const [text, setText] = useState('');
  const all = progress?.ok ? progress.value : null;
  const shown = useMemo(() => (all ? inOrder(named(all.learners, text), order) : []), [all, text, order]);
  const choose = useCallback(
    (person: string | null) => {
      setBench(null);
      onLook({ ...looking, course, person });
    },
    [looking, course, onLook],
  );
  if (courses && !courses.ok) return <p className="p-6 text-alarm">{courses.title}</p>;
  if (courses && list.length === 0)
    return (
      <main className="p-8">
        <h2 className="text-2xl">Learners</h2>
        <p className="note mt-1">
          {onPerson
            ? 'There is no course yet. One is made in Site, with “course” beside “New”.'
            : 'There is no course that you are a tutor of. Ask an owner of the site.'}
        </p>
      </main>
    );
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_26rem]">
      <section aria-label="Progress" className="flex min-h-0 min-w-0 flex-col">
        <header className="flex flex-wrap items-center gap-2 border-thin border-b px-5 py-3">
          <Pick
            label="Course"
            value={course ?? ''}
            options={list.map(({ id, title }) => ({ value: id, label: title }))}
            onPick={(id) => onLook({ ...looking, course: id, person: null })}
            className="w-44 font-semibold"
          />
          <span className="flex items-center gap-1.5 text-quiet">
            on
            <Input
              label="The day for which it is worked out"
              type="date"
              value={looking.day ?? today}
              onChange={({ target: { value } }) =>
                onLook({ ...looking, course, day: value === '' || value === today ? null : value })
              }
            />
          </span>
          {looking.day !== null && (
            <Button weight="quiet" onClick={() => onLook({ ...looking, course, day: null })}>
              Today
            </Button>
          )}
          <Input
            label="Name of a learner"
            type="search"
            placeholder="Name"
            className="w-28"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <span className="text-quiet" data-testid="learner-count">
            {all && counted(shown.length, 'learner')}
          </span>
          <span className="ml-auto flex gap-2">
            {course !== null && (
              <Download href={`/desk/api/${pathOf(looking, course, 'csv')}`} download="progress.csv">
                As CSV
              </Download>
            )}
            {waits > 0 && <Button onClick={() => setBench('waiting')}>{waits} to look at</Button>}
            <Button onClick={() => setBench('enrolling')}>Enrol …</Button>
          </span>
        </header>
        {progress && !progress.ok && (
          <p role="alert" className="px-5 py-3 text-alarm">
            {progress.title}
          </p>
        )}
        {all && all.learners.length === 0 && (
          <p className="px-5 py-6 text-quiet">
            Nobody is enrolled yet. “Enrol …” takes mail addresses; who may open a course without being
            enrolled shows here as soon as they have done something in it.
          </p>
        )}
        {all && all.learners.length > 0 && (
          <>
            <ProgressMatrix
              progress={all}
              learners={shown}
              chosen={looking.person}
              order={order}
              onOrder={setOrder}
              onChoose={choose}
            />
            <footer className="border-thin border-t px-5 py-2">
              <ProgressLegend />
              {all.more > 0 && <p className="note">And {counted(all.more, 'other learner')}: by CSV.</p>}
            </footer>
          </>
        )}
      </section>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {bench === 'waiting' && course !== null && waiting?.ok ? (
          <WaitingPanel
            course={course}
            waiting={waiting.value}
            onClose={() => setBench(null)}
            onJudged={renew}
            onChoose={choose}
          />
        ) : bench === 'enrolling' && course !== null ? (
          <EnrolPanel
            course={course}
            title={all?.title ?? ''}
            onClose={() => setBench(null)}
            onEnrolled={() => {
              setBench(null);
              renew();
            }}
          />
        ) : looking.person !== null && learner?.ok ? (
          <LearnerPanel
            key={`${course} ${looking.person}`}
            report={learner.value}
            course={course ?? ''}
            onChanged={renew}
            onClose={() => choose(null)}
            onPerson={onPerson && (() => onPerson(learner.value.person))}
            onMark={async (mark) => {
              const problem = await sendMark(course ?? '', learner.value.person, mark);
              if (problem === null) renew();
              return problem;
            }}
          />
        ) : (
          <p className="px-5 py-4 text-quiet">
            {looking.person !== null && learner && !learner.ok
              ? learner.title
              : 'Choose somebody to see what they did, what is closed to them and why.'}
          </p>
        )}
      </aside>
    </main>
  );
}

/** What the server has at a path; asked again when `times` is another. The last answer stays until there is a new one. */
function useGot<T>(path: string | null, times: number): Answer<T> | null {
  const [answer, setAnswer] = useState<Answer<T> | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when something was done
  useEffect(() => {
    if (path === null) return;
    const calledOff = new AbortController();
    ask<T>('GET', path, undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, [path, times]);
  return path === null ? null : answer;
}
