'use client';
/** What waits for a tutor: each with what was written and uploaded, to be accepted or given back where it stands. */
import { useState } from 'react';
import { toast } from 'sonner';
import { counted, dayInWords, english } from '@/core';
import type { HandedIn, HandInsWaiting } from '@/services';
import { Button, Input } from '@/ui';
import { NumberInput } from '../number-input';
import { Panel } from '../panel';
import { ask } from '../service';
import { pathOf } from './looking';

interface WaitingProps {
  readonly course: string;
  readonly waiting: HandInsWaiting;
  readonly onClose: () => void;
  /** Something was looked at. */
  readonly onJudged: () => void;
  readonly onChoose: (person: string) => void;
}

export function WaitingPanel({ course, waiting, onClose, onJudged, onChoose }: WaitingProps) {
  const { list, count } = waiting;
  return (
    <Panel
      title="Waiting for a tutor"
      closes="Close"
      onClose={onClose}
      note={count === 0 ? 'Nothing waits. Everything was looked at.' : 'What waits longest comes first.'}
    >
      <ol className="grid gap-5">
        {list.map((one) => (
          <li key={one.id}>
            <h3>
              <button
                type="button"
                className="text-left hover:text-copper"
                onClick={() => onChoose(one.person)}
              >
                {one.name}
              </button>
            </h3>
            <p className="note">
              {one.title}, version {one.version}, {dayInWords(one.on)}
            </p>
            <Work course={course} handedIn={one} />
            <Judging course={course} handedIn={one} onJudged={onJudged} />
          </li>
        ))}
      </ol>
      {count > list.length && (
        <p className="note mt-4">And {counted(count - list.length, 'more', 'more')}.</p>
      )}
    </Panel>
  );
}

/** What was handed in. */
export const Work = ({
  course,
  handedIn: { text, files },
}: {
  readonly course: string;
  readonly handedIn: HandedIn;
}) => (
  <>
    {text !== '' && (
      <div className="mt-1.5 max-h-64 overflow-y-auto whitespace-pre-wrap border-thin border-l-2 pl-3">
        {text}
      </div>
    )}
    {files.length > 0 && (
      <ul className="mt-1.5">
        {files.map(({ id, name, size }) => (
          <li key={id}>
            <a
              className="underline underline-offset-3 hover:text-copper"
              href={`/desk/api/${pathOf({ day: null }, course, 'hand-ins', 'files', id)}`}
              download={name}
            >
              {name}
            </a>{' '}
            <span className="note">{(size / 1_000_000).toFixed(1)} MB</span>
          </li>
        ))}
      </ul>
    )}
  </>
);

/** A version that was looked at, or took the place of another, in a line. */
export const Became = ({ handedIn }: { readonly handedIn: HandedIn }) => (
  <>
    Version {handedIn.version}, {dayInWords(handedIn.on)}: {english.handIn.became[handedIn.state]}
    {handedIn.score !== null && `, ${handedIn.score} %`}
    {handedIn.by !== '' && `, by ${handedIn.by}`}
    {handedIn.words !== '' && `: “${handedIn.words}”`}
  </>
);

interface JudgingProps {
  readonly course: string;
  readonly handedIn: HandedIn;
  readonly onJudged: () => void;
}

export function Judging({ course, handedIn: { id, name, title }, onJudged }: JudgingProps) {
  const [words, setWords] = useState('');
  const [score, setScore] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (accepts: boolean) => {
    const path = pathOf({ day: null }, course, 'hand-ins', id);
    const sent = { accepts, words, score: accepts ? score : null };
    const answer = await ask<{ readonly summary: string }>('POST', path, sent);
    if (!answer.ok) return setProblem(answer.title);
    toast(answer.value.summary);
    onJudged();
  };
  return (
    <div className="mt-2 grid gap-2">
      <Input
        label={`What you say to ${name} of ${title}`}
        placeholder="What you say to them"
        className="w-full"
        value={words}
        maxLength={5000}
        onChange={(event) => setWords(event.target.value)}
      />
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => void send(true)}>Accept</Button>
        <NumberInput
          label={`Score of ${title} for ${name}, in per cent`}
          value={score}
          onChange={setScore}
          placeholder="score"
        />
        <span className="text-quiet">%</span>
        <Button weight="quiet" onClick={() => void send(false)}>
          Give back
        </Button>
      </div>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
    </div>
  );
}
