'use client';
/** People as they are typed or pasted: one a line. */
import { Field } from '../people';

interface PeopleProps {
  readonly label: string;
  readonly value: string;
  readonly rows: number;
  readonly problem: string | undefined;
  readonly onChange: (value: string) => void;
}

export const PeopleInput = ({ label, value, rows, problem, onChange }: PeopleProps) => (
  <Field label={label} note="a line each: name, mail address" problem={problem}>
    <textarea
      aria-label={label}
      aria-invalid={problem !== undefined}
      rows={rows}
      spellCheck={false}
      value={value}
      onChange={({ target }) => onChange(target.value)}
      className="w-full rounded-[3px] border border-iron bg-raised px-1.5 py-1 leading-5 hover:border-copper aria-invalid:border-alarm"
    />
  </Field>
);
