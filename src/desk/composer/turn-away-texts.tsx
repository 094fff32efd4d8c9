'use client';
/** The texts of a turn-away as they are written: plain words, and what stands in the place of a section. */
import { useId, useRef, useState } from 'react';
import { ownCompletionsAt, ownWordProblem, renameOwnWords } from '@/core';
import { CompletingArea } from '../condition';
import { useDesk } from '../context';

/** What stands in the place of a section: Markdown that can show something of its reader, kept by ids and written by names. */
export function SwapText({
  text,
  onChange,
}: {
  readonly text: string;
  readonly onChange: (text: string) => void;
}) {
  const { vocabulary } = useDesk();
  const [typed, setTyped] = useState(text);
  const id = useId();
  const area = useRef<HTMLTextAreaElement>(null);
  const byId = (written: string) => renameOwnWords(written, vocabulary, 'by id');
  const shown = byId(typed) === text ? typed : renameOwnWords(text, vocabulary, 'by name');
  const own = ownWordProblem(shown, vocabulary);
  const wrong = shown.trim() === '' ? EMPTY : own && `Line ${own.line}: ${own.message}`;
  return (
    <>
      <div className="w-full">
        <CompletingArea
          area={area}
          label="What stands in its place, in Markdown"
          text={shown}
          rows={4}
          spellCheck
          longest={LONGEST_SWAP}
          invalid={wrong !== null}
          describedBy={wrong === null ? undefined : id}
          completionsAt={(at, cursor) => ownCompletionsAt(at, cursor, vocabulary)}
          behind=""
          onType={(written) => {
            setTyped(written);
            onChange(byId(written));
          }}
          className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1 aria-invalid:border-alarm"
        />
      </div>
      {wrong !== null && (
        <p id={id} role="status" className="text-alarm">
          {wrong}
        </p>
      )}
    </>
  );
}

const LONGEST_SWAP = 20_000;
const EMPTY = 'Write something here, or choose another above. It is saved once there is a text.';

interface WordsProps {
  readonly label: string;
  readonly text: string;
  readonly onChange: (text: string) => void;
}

export function Words({ label, text, onChange }: WordsProps) {
  const id = useId();
  const empty = text.trim() === '';
  return (
    <>
      <textarea
        aria-label={label}
        aria-describedby={empty ? id : undefined}
        aria-invalid={empty || undefined}
        rows={2}
        maxLength={2000}
        value={text}
        onChange={(event) => onChange(event.target.value)}
        className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1 aria-invalid:border-alarm"
      />
      {empty && (
        <p id={id} className="text-alarm">
          {EMPTY}
        </p>
      )}
    </>
  );
}
