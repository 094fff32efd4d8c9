'use client';
/** A text area that offers what could stand where the cursor is: by arrows and Tab, or by a click. */
import { clsx } from 'clsx';
import { useId, useLayoutEffect, useRef, useState } from 'react';
import type { Completions } from '@/core';

interface AreaProps {
  readonly label: string;
  readonly text: string;
  readonly rows: number;
  readonly placeholder?: string;
  readonly spellCheck: boolean;
  readonly longest?: number;
  readonly invalid: boolean;
  /** The id of what says what is wrong. */
  readonly describedBy?: string | undefined;
  readonly className: string;
  /** What could stand at a place of a text; null for nothing. */
  readonly completionsAt: (text: string, cursor: number) => Completions | null;
  /** What is put behind a choice. */
  readonly behind: string;
  readonly onType: (text: string) => void;
  /** Told whether something is offered, which stands where a mistake would be told. */
  readonly onOffer?: (offering: boolean) => void;
  readonly area: React.RefObject<HTMLTextAreaElement | null>;
}

const MOST_OFFERED = 8;

export function CompletingArea(props: AreaProps) {
  const { label, text, completionsAt, behind, onType, onOffer, area } = props;
  const [completions, setCompletions] = useState<Completions | null>(null);
  const [chosen, setChosen] = useState(0);
  const cursor = useRef<number | null>(null);
  const id = useId();
  const options = completions?.options.slice(0, MOST_OFFERED) ?? [];

  // The cursor goes behind what was completed, once it is there.
  useLayoutEffect(() => {
    if (cursor.current === null) return;
    area.current?.setSelectionRange(cursor.current, cursor.current);
    cursor.current = null;
  });

  const show = (offered: Completions | null) => {
    setCompletions(offered);
    setChosen(0);
    onOffer?.((offered?.options.length ?? 0) > 0);
  };
  const complete = (option: string) => {
    if (!completions) return;
    const rest = text.slice(completions.to);
    const next = `${text.slice(0, completions.from)}${option}${behind}${rest.startsWith(behind) ? rest.slice(behind.length) : rest}`;
    const place = completions.from + option.length + behind.length;
    onType(next);
    cursor.current = place;
    show(completionsAt(next, place));
    area.current?.focus();
  };
  return (
    <div className="relative grid">
      <textarea
        ref={area}
        aria-label={label}
        aria-invalid={props.invalid || undefined}
        aria-describedby={props.describedBy}
        aria-haspopup="listbox"
        aria-controls={options.length > 0 ? `${id}-options` : undefined}
        aria-activedescendant={options.length > 0 ? `${id}-${chosen}` : undefined}
        aria-autocomplete="list"
        spellCheck={props.spellCheck}
        rows={props.rows}
        placeholder={props.placeholder}
        maxLength={props.longest}
        value={text}
        onChange={(event) => {
          onType(event.target.value);
          show(completionsAt(event.target.value, event.target.selectionStart));
        }}
        onBlur={() => show(null)}
        onClick={(event) => show(completionsAt(text, event.currentTarget.selectionStart))}
        onKeyDown={(event) => {
          if (options.length === 0) return;
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            setChosen((chosen + (event.key === 'ArrowDown' ? 1 : options.length - 1)) % options.length);
          } else if (event.key === 'Tab' && !event.shiftKey) {
            event.preventDefault();
            complete(options[chosen]?.insert ?? '');
          } else if (event.key === 'Escape') {
            event.stopPropagation();
            show(null);
          }
        }}
        className={props.className}
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
    </div>
  );
}
