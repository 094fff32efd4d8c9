'use client';
import { useState } from 'react';
import { Input } from '@/ui';

interface NumberInputProps {
  readonly label: string;
  /** Null where nothing is written. */
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly placeholder?: string;
  readonly className?: string;
}

const read = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
};

/** A number as it is typed: half of one stays as it stands, and counts as none. */
export function NumberInput({ label, value, onChange, placeholder, className = 'w-16' }: NumberInputProps) {
  const [text, setText] = useState(value === null ? '' : String(value));
  // What came from elsewhere stands in place of what was typed.
  const shown = read(text) === value ? text : value === null ? '' : String(value);
  return (
    <Input
      label={label}
      inputMode="decimal"
      className={className}
      placeholder={placeholder}
      maxLength={20}
      value={shown}
      onChange={(event) => {
        setText(event.target.value);
        onChange(read(event.target.value));
      }}
    />
  );
}
