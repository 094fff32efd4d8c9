'use client';
/** A condition as text, with its mistakes in place and completion. What can't be read changes nothing until it can. */
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import {
  type Completions,
  type Condition,
  completionsAt,
  parseCondition,
  printCondition,
  same,
  type TextError,
  type Vocabulary,
} from '@/core';
import { CompletingArea } from './completing-area';

interface TextProps {
  readonly condition: Condition;
  readonly vocabulary: Vocabulary;
  readonly onChange: (condition: Condition) => void;
}

/** Edits a condition as text, in step with whatever else changes it. */
export function ConditionText({ condition, vocabulary, onChange }: TextProps) {
  const [text, setText] = useState(() => printCondition(condition, vocabulary));
  const parsed = useMemo(() => parseCondition(text, vocabulary), [text, vocabulary]);
  // Changed from elsewhere (an undo, the form): what stands here is written anew.
  const last = useRef(condition);
  useEffect(() => {
    if (same(last.current, condition)) return;
    last.current = condition;
    setText(printCondition(condition, vocabulary));
  }, [condition, vocabulary]);
  return (
    <TextForm
      text={text}
      error={parsed.ok ? null : parsed.error}
      completionsAt={(at, cursor) => completionsAt(at, cursor, vocabulary)}
      label="The condition as text"
      rows={4}
      onType={(next) => {
        setText(next);
        const read = parseCondition(next, vocabulary);
        if (!read.ok || same(read.condition, last.current)) return;
        last.current = read.condition;
        onChange(read.condition);
      }}
    />
  );
}

interface TextFormProps {
  readonly text: string;
  readonly error: TextError | null;
  /** What could stand at a place. */
  readonly completionsAt: (text: string, cursor: number) => Completions;
  readonly label: string;
  readonly rows: number;
  readonly placeholder?: string;
  readonly onType: (text: string) => void;
}

/** A text area that completes the text form and shows where it is wrong. */
export function TextForm({ text, error, completionsAt, label, rows, placeholder, onType }: TextFormProps) {
  const area = useRef<HTMLTextAreaElement>(null);
  const [offering, setOffering] = useState(false);
  const id = useId();
  return (
    <div className="grid gap-1.5">
      <CompletingArea
        area={area}
        label={label}
        text={text}
        rows={rows}
        {...(placeholder !== undefined && { placeholder })}
        spellCheck={false}
        invalid={error !== null}
        describedBy={error ? `${id}-error` : undefined}
        completionsAt={completionsAt}
        behind=" "
        onType={onType}
        onOffer={setOffering}
        className="condition-text w-full resize-y rounded-[3px] border border-iron bg-raised px-2.5 py-2 aria-invalid:border-alarm"
      />
      {error && text.trim() !== '' && !offering && <Mistake id={`${id}-error`} text={text} error={error} />}
    </div>
  );
}

/** A mistake with the line it is on and a mark beneath the place. */
function Mistake({
  id,
  text,
  error,
}: {
  readonly id: string;
  readonly text: string;
  readonly error: TextError;
}) {
  const line = text.split('\n')[error.line - 1] ?? '';
  const before = [...line].slice(Math.max(0, error.column - 31), error.column - 1).join('');
  return (
    <div id={id} role="status" className="grid gap-1 text-alarm" data-testid="condition-error">
      <p className="condition-text overflow-hidden whitespace-pre text-ink">
        {error.column > 31 && '…'}
        {before}
        <mark className="bg-wash text-alarm underline decoration-wavy underline-offset-4">
          {error.found || ' '}
        </mark>
      </p>
      <p>
        <span className="text-quiet">
          Line {error.line}, column {error.column}:
        </span>{' '}
        {error.message}
      </p>
    </div>
  );
}
