/** Writing a letter: its subject, its text, and the names that are filled in. */
import { useRef } from 'react';
import {
  LETTERS,
  type LetterKind,
  type LetterTemplate,
  LONGEST_LETTER,
  LONGEST_SUBJECT,
  letterProblems,
  namesIn,
  same,
} from '@/core';
import { Button, Input } from '@/ui';
import { Field } from '../people';
import type { Writing } from './use-letters';

interface EditorProps {
  readonly kind: LetterKind;
  readonly writing: Writing;
  /** Whether it says what Trivet says itself. */
  readonly isOurs: boolean;
  readonly onWrite: (letter: LetterTemplate) => void;
  readonly onKeep: () => void;
  readonly onBack: () => void;
  readonly onSample: () => void;
  readonly onSettle: (takes: 'mine' | 'theirs') => void;
}

export function LetterEditor(props: EditorProps) {
  const { kind, writing, isOurs, onWrite, onKeep, onBack, onSample, onSettle } = props;
  const { letter, was, theirs } = writing;
  const problems: Writing['problems'] = { ...letterProblems(kind, letter), ...writing.problems };
  const isWrong = Object.keys(letterProblems(kind, letter)).length > 0;
  // Names go where one wrote last.
  const last = useRef<'subject' | 'text'>('text');
  const fields = {
    subject: useRef<HTMLInputElement>(null),
    text: useRef<HTMLTextAreaElement>(null),
  };
  const put = (name: string) => {
    const field = fields[last.current].current;
    const written = letter[last.current];
    const [from, to] = [field?.selectionStart ?? written.length, field?.selectionEnd ?? written.length];
    const named = `{${name}}`;
    onWrite({ ...letter, [last.current]: written.slice(0, from) + named + written.slice(to) });
    requestAnimationFrame(() => {
      field?.focus();
      field?.setSelectionRange(from + named.length, from + named.length);
    });
  };
  return (
    <form
      aria-label={LETTERS[kind].name}
      className="min-h-0 overflow-y-auto px-6 py-5"
      onSubmit={(event) => {
        event.preventDefault();
        onKeep();
      }}
    >
      <header className="flex flex-wrap items-start justify-between gap-x-4 gap-y-2">
        <div>
          <h3 className="text-xl">{LETTERS[kind].name}</h3>
          <p className="note">Goes to {LETTERS[kind].to}.</p>
        </div>
        <p className="flex flex-wrap gap-2">
          {!isOurs && (
            <Button weight="quiet" onClick={onBack}>
              Say what Trivet says
            </Button>
          )}
          <Button disabled={isWrong} onClick={onSample}>
            Send me one to see
          </Button>
          <Button weight="main" type="submit" disabled={isWrong || theirs !== null || same(letter, was)}>
            Keep this letter
          </Button>
        </p>
      </header>
      {theirs && (
        <div role="alert" className="mt-3 grid gap-2 border-alarm border-l-2 pl-3">
          <p>Somebody else changed this letter meanwhile. It says now:</p>
          <p className="font-semibold">{theirs.subject}</p>
          <p className="whitespace-pre-line">{theirs.text}</p>
          <p className="flex gap-2">
            <Button onClick={() => onSettle('theirs')}>Go on with theirs</Button>
            <Button onClick={() => onSettle('mine')}>Go on with mine</Button>
          </p>
        </div>
      )}
      {problems.form && (
        <p role="alert" className="mt-3 text-alarm">
          {problems.form}
        </p>
      )}
      <div className="mt-4 grid gap-4">
        <Field label="Subject" problem={problems.subject}>
          <Input
            ref={fields.subject}
            label="Subject"
            value={letter.subject}
            maxLength={LONGEST_SUBJECT}
            aria-invalid={problems.subject ? true : undefined}
            onFocus={() => {
              last.current = 'subject';
            }}
            onChange={({ target }) => onWrite({ ...letter, subject: target.value })}
            className="w-full"
          />
        </Field>
        <Field
          label="Text"
          note="plain, as mail is; an empty line begins a paragraph"
          problem={problems.text}
        >
          <textarea
            ref={fields.text}
            aria-label="Text"
            rows={14}
            value={letter.text}
            maxLength={LONGEST_LETTER}
            aria-invalid={problems.text ? true : undefined}
            onFocus={() => {
              last.current = 'text';
            }}
            onChange={({ target }) => onWrite({ ...letter, text: target.value })}
            className="w-full rounded-[3px] border border-iron bg-raised px-1.5 py-1 hover:border-copper aria-invalid:border-alarm"
          />
        </Field>
        <Names kind={kind} onPut={put} />
      </div>
    </form>
  );
}

interface NamesProps {
  readonly kind: LetterKind;
  readonly onPut: (name: string) => void;
}

/** What can be named in a letter; pressing one puts it where one writes. */
function Names({ kind, onPut }: NamesProps) {
  const names = Object.entries(namesIn(kind));
  const some = names.some(([, { sometimes }]) => sometimes);
  return (
    <div className="grid gap-1">
      <span className="text-quiet">Filled in for whoever gets it</span>
      <ul className="grid gap-x-4 gap-y-1 xl:grid-cols-2">
        {names.map(([name, { about, sometimes }]) => (
          <li key={name} className="flex items-baseline gap-2">
            <Button
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => onPut(name)}
              aria-label={`Put in {${name}}: ${about}`}
              className="font-mono text-xs"
            >{`{${name}}`}</Button>
            <span className="note">
              {about}
              {sometimes && '; not in all'}
            </span>
          </li>
        ))}
      </ul>
      {some && (
        <p className="note">Where something is not in a letter, the whole line that names it is left out.</p>
      )}
    </div>
  );
}
