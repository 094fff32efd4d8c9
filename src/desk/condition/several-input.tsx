'use client';
/** Several values of one kind: chosen from what there is, or added one by one. */
import { X } from 'lucide-react';
import { useState } from 'react';
import { choicesFor, problemOf, type Test } from '@/core';
import { Input } from '@/ui';
import { useDesk } from '../context';
import { MemberInput } from '../member-input';

interface SeveralProps {
  readonly test: Test;
  readonly values: readonly string[];
  readonly onChange: (values: readonly string[]) => void;
}

export function SeveralInput({ test, values, onChange }: SeveralProps) {
  const { vocabulary } = useDesk();
  const choices = choicesFor(test, vocabulary);
  if (choices.length > 0) {
    return (
      <span className="flex flex-wrap gap-1">
        {choices.map((choice) => {
          const on = values.includes(choice);
          return (
            <button
              key={choice}
              type="button"
              aria-pressed={on}
              onClick={() => {
                const next = on ? values.filter((one) => one !== choice) : [...values, choice];
                if (next.length > 0) onChange(choices.filter((one) => next.includes(one)));
              }}
              className="rounded-full border border-iron px-2 py-0.5 leading-5 hover:border-copper aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
            >
              {choice}
            </button>
          );
        })}
      </span>
    );
  }
  return (
    <span className="flex flex-wrap items-center gap-1">
      {values
        .filter((one) => one !== '')
        .map((one) => (
          <span
            key={one}
            className="inline-flex items-center gap-1 rounded-full border border-iron px-2 leading-6"
          >
            {one}
            {values.length > 1 && (
              <button
                type="button"
                aria-label={`Take ${one} out`}
                onClick={() => onChange(values.filter((other) => other !== one))}
                className="text-quiet hover:text-copper"
              >
                <X size={12} aria-hidden="true" />
              </button>
            )}
          </span>
        ))}
      {test.fact === 'person' ? (
        <MemberInput
          trigger="+ a member"
          onChoose={({ facts }) => onChange(withOne(values, facts.email ?? ''))}
        />
      ) : (
        <AddInput test={test} onAdd={(one) => onChange(withOne(values, one))} />
      )}
    </span>
  );
}

const withOne = (values: readonly string[], one: string): readonly string[] => [
  ...new Set([...values.filter((value) => value !== ''), one]),
];

/** Adds to a list by Enter or a comma; what can't be added says why. */
function AddInput({ test, onAdd }: { readonly test: Test; readonly onAdd: (value: string) => void }) {
  const { vocabulary } = useDesk();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const add = () => {
    const text = typed.trim().replace(/,$/, '');
    if (text === '') return;
    const wrong = problemOf({ ...test, value: [text] }, vocabulary);
    setProblem(wrong?.message ?? null);
    if (wrong) return;
    onAdd(text);
    setTyped('');
  };
  return (
    <>
      <Input
        label="Add another"
        placeholder="another …"
        value={typed}
        maxLength={500}
        aria-invalid={problem !== null || undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={add}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ',') return;
          event.preventDefault();
          add();
        }}
        className="w-28"
      />
      {problem && (
        <span role="alert" className="text-alarm text-xs">
          {problem}
        </span>
      )}
    </>
  );
}
