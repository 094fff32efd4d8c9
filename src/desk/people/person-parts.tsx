'use client';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Named } from '@/core';
import { Button, Input, Pick } from '@/ui';

/** A part of the form with its heading, and what is wrong with it. */
export function Field({
  label,
  note,
  problem,
  children,
}: {
  readonly label: string;
  readonly note?: string;
  readonly problem: string | undefined;
  readonly children: ReactNode;
}) {
  return (
    <div className="grid content-start justify-items-start gap-1">
      {/* What stands below is named for itself. */}
      <span aria-hidden="true" className="text-quiet">
        {label} {note && <span className="text-xs">· {note}</span>}
      </span>
      {children}
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
    </div>
  );
}

/** Which of some things somebody has. */
export function Toggles<T extends string>({
  label,
  all,
  held,
  onChange,
}: {
  readonly label: string;
  readonly all: readonly Named<T>[];
  readonly held: readonly T[];
  readonly onChange: (held: readonly T[]) => void;
}) {
  if (all.length === 0) return <span className="note">There are none yet. Add some under Names.</span>;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset can't be laid out in a row everywhere
    <span role="group" aria-label={label} className="flex flex-wrap gap-1.5">
      {all.map(({ id, name }) => {
        const on = held.includes(id);
        return (
          <button
            key={id}
            type="button"
            aria-pressed={on}
            onClick={() => onChange(on ? held.filter((one) => one !== id) : [...held, id])}
            className="rounded-full border border-iron px-2.5 py-0.5 leading-5 hover:border-copper aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
          >
            {name}
          </button>
        );
      })}
    </span>
  );
}

interface RecordsProps<T extends { readonly on: string }> {
  readonly title: string;
  readonly things: readonly Named[];
  readonly list: readonly T[];
  readonly thing: (one: T) => string;
  readonly problem: string | undefined;
  readonly onChange: (list: readonly T[]) => void;
  readonly make: (thing: string) => T;
  readonly withThing: (one: T, thing: string) => T;
  readonly more?: (one: T, put: (one: T) => void) => ReactNode;
}

/** A list of dated records of things: bought, enrolled in, completed. */
export function Records<T extends { readonly on: string }>(props: RecordsProps<T>) {
  const { title, things, list, thing, problem, onChange, make, withThing, more } = props;
  if (things.length === 0 && list.length === 0) return null;
  const put = (at: number) => (one: T) => onChange(list.map((each, n) => (n === at ? one : each)));
  return (
    <section>
      <h3 className="mb-1">{title}</h3>
      <ul className="grid gap-1.5">
        {list.map((one, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: records have no identity but their place
          <li key={at} className="flex flex-wrap items-center gap-1.5">
            <Pick
              label={`${title}: what`}
              value={thing(one)}
              options={things.map(({ id, name }) => ({ value: id, label: name }))}
              onPick={(next) => put(at)(withThing(one, next))}
            />
            <span className="text-quiet">on</span>
            <Input
              label={`${title}: on`}
              type="date"
              value={one.on}
              onChange={(event) => event.target.value && put(at)({ ...one, on: event.target.value })}
            />
            {more?.(one, put(at))}
            <Button
              weight="quiet"
              size="small"
              aria-label="Take this record out"
              onClick={() => onChange(list.filter((_, n) => n !== at))}
            >
              <X size={14} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      {things[0] && (
        <Button weight="quiet" onClick={() => onChange([...list, make(things[0]?.id ?? '')])}>
          + a record
        </Button>
      )}
    </section>
  );
}
