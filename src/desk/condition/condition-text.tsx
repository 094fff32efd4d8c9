'use client';
/** A condition as text, with its mistakes in place and completion. What can't be read changes nothing until it can. */
import { clsx } from 'clsx';
import { useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from 'react';
import {
  type Completions,
  type Condition,
  type ConditionError,
  completionsAt,
  parseCondition,
  printCondition,
  same,
  type Vocabulary,
} from '@/core';

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
      vocabulary={vocabulary}
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
  readonly error: ConditionError | null;
  readonly vocabulary: Vocabulary;
  readonly label: string;
  readonly rows: number;
  readonly placeholder?: string;
  readonly onType: (text: string) => void;
}

/** A text area that completes the text form and shows where it is wrong. */
export function TextForm(props: TextFormProps) {
  const { text, error, vocabulary, label, rows, placeholder, onType } = props;
  const area = useRef<HTMLTextAreaElement>(null);
  const [completions, setCompletions] = useState<Completions | null>(null);
  const [chosen, setChosen] = useState(0);
  const [cursor, setCursor] = useState<number | null>(null);
  const id = useId();
  const options = completions?.options.slice(0, 8) ?? [];

  // The cursor goes behind what was completed, once it is there.
  useLayoutEffect(() => {
    if (cursor === null) return;
    area.current?.setSelectionRange(cursor, cursor);
    setCursor(null);
  }, [cursor]);

  const offer = (at: string, place: number) => {
    setCompletions(completionsAt(at, place, vocabulary));
    setChosen(0);
  };
  const complete = (option: string) => {
    if (!completions) return;
    const next = `${text.slice(0, completions.from)}${option} ${text.slice(completions.to).replace(/^ /, '')}`;
    const place = completions.from + option.length + 1;
    onType(next);
    setCursor(place);
    offer(next, place);
    area.current?.focus();
  };
  return (
    <div className="relative grid gap-1.5">
      <textarea
        ref={area}
        aria-label={label}
        aria-invalid={error !== null || undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        aria-haspopup="listbox"
        aria-controls={options.length > 0 ? `${id}-options` : undefined}
        aria-activedescendant={options.length > 0 ? `${id}-${chosen}` : undefined}
        aria-autocomplete="list"
        spellCheck={false}
        rows={rows}
        placeholder={placeholder}
        value={text}
        onChange={(event) => {
          onType(event.target.value);
          offer(event.target.value, event.target.selectionStart);
        }}
        onBlur={() => setCompletions(null)}
        onClick={(event) => offer(text, event.currentTarget.selectionStart)}
        onKeyDown={(event) => {
          if (options.length > 0 && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
            event.preventDefault();
            setChosen((chosen + (event.key === 'ArrowDown' ? 1 : options.length - 1)) % options.length);
          } else if (options.length > 0 && event.key === 'Tab' && !event.shiftKey) {
            event.preventDefault();
            complete(options[chosen]?.insert ?? '');
          } else if (event.key === 'Escape' && options.length > 0) {
            event.stopPropagation();
            setCompletions(null);
          }
        }}
        className="condition-text w-full resize-y rounded-[3px] border border-iron bg-raised px-2.5 py-2 aria-invalid:border-alarm"
      />
      {options.length > 0 && (
        <div
          id={`${id}-options`}
          role="listbox"
          aria-label="What could stand here"
          className="absolute top-full right-0 left-0 z-30 mt-1 max-h-56 overflow-y-auto rounded-[4px] border border-iron bg-raised p-1 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
        >
          {options.map((option, at) => (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the keys are the text area's, which keeps the focus
            <div
              key={option.label}
              id={`${id}-${at}`}
              role="option"
              tabIndex={-1}
              aria-selected={at === chosen}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => complete(option.insert)}
              className={clsx(
                'condition-text flex cursor-pointer justify-between rounded-[3px] px-2 py-1',
                at === chosen && 'bg-wash',
              )}
            >
              {option.insert}
              {at === chosen && <span className="key font-text">Tab</span>}
            </div>
          ))}
        </div>
      )}
      {error && text.trim() !== '' && options.length === 0 && (
        <Mistake id={`${id}-error`} text={text} error={error} />
      )}
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
  readonly error: ConditionError;
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
