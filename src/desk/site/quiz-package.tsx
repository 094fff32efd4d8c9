'use client';
/** A quiz as a QTI 3.0 package: taken out as it is on the site, or questions taken in from elsewhere. */
import { useRef, useState } from 'react';
import { counted, type ItemId, leftOutOfPackage, listed, type Question, type Quiz } from '@/core';
import type { PackageRead } from '@/services';
import { Button, Download } from '@/ui';

type Read = Extract<PackageRead, { kind: 'read' }>;

interface QuizPackageProps {
  readonly activity: ItemId;
  readonly quiz: Quiz;
  readonly onChange: (quiz: Quiz) => void;
}

export function QuizPackage({ activity, quiz, onChange }: QuizPackageProps) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [told, setTold] = useState<Read | string | null>(null);
  const left = leftOutOfPackage(quiz);
  const address = `/desk/api/quizzes/${encodeURIComponent(activity)}`;
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    const read = await readPackage(address, file);
    setBusy(false);
    setTold(read);
    if (typeof read === 'string' || read.questions.length === 0) return;
    const questions = [...quiz.questions, ...(read.questions as readonly Question[])];
    // A quiz that asked nothing yet takes over how they were asked.
    const terms = quiz.questions.length === 0 && read.terms ? read.terms : {};
    onChange({ ...quiz, ...terms, questions });
  };
  return (
    <div className="mt-4 border-thin border-t pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <Button disabled={busy} onClick={() => input.current?.click()}>
          {busy ? 'Reading it …' : 'Take questions in from a QTI package'}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".zip,application/zip"
          aria-label="A QTI package from this computer"
          className="hidden"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <Download href={address} download="quiz.zip">
          As a QTI package, as it is on the site
        </Download>
      </div>
      {left.length > 0 && <p className="note mt-1">A package has no place for {listed(left)}.</p>}
      {told !== null && <Told told={told} />}
    </div>
  );
}

function Told({ told }: { readonly told: Read | string }) {
  if (typeof told === 'string')
    return (
      <p role="alert" className="mt-2 text-alarm">
        {told}
      </p>
    );
  const { questions, notes } = told;
  return (
    <div role="status" className="mt-2">
      <p>
        {questions.length === 0
          ? 'None of its questions could be taken in.'
          : `${counted(questions.length, 'question')} taken in, below yours. Nothing is on the site before you put it there.`}
      </p>
      {notes.length > 0 && (
        <ul className="note mt-1 list-disc pl-5">
          {notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** What the server reads in a package, or why it can't. */
async function readPackage(address: string, file: File): Promise<Read | string> {
  try {
    const response = await fetch(address, { method: 'POST', body: file });
    const value = await response.json().catch(() => ({}));
    return response.ok
      ? value
      : typeof value.title === 'string'
        ? value.title
        : 'The server refused this package.';
  } catch {
    return 'The server can’t be reached. Try again.';
  }
}
