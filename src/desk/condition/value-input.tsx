'use client';
/** The value of a test, with the input that fits its type: choices, numbers, days from a calendar, members by typing. */
import { X } from 'lucide-react';
import { useState } from 'react';
import {
  choicesFor,
  factNamed,
  listOf,
  type Member,
  namesOf,
  operatorOf,
  problemOf,
  type Test,
  type TestValue,
  TODAY,
  typeOf,
} from '@/core';
import { Button, type Findable, Finder, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { useMemberSearch } from '../use-member-search';

interface ValueProps {
  readonly test: Test;
  readonly onChange: (test: Test) => void;
}

export function ValueInput({ test, onChange }: ValueProps) {
  const { vocabulary } = useDesk();
  const operator = operatorOf(test, vocabulary);
  if (!operator || operator.takes === 'nothing') return null;
  const set = (value: TestValue) => onChange({ ...test, value });
  const given = listOf(test.value);
  const [first = '', second = ''] = given;
  switch (operator.takes) {
    case 'one':
      return <OneInput test={test} value={first} onChange={set} />;
    case 'two':
      return (
        <>
          <OneInput
            test={test}
            value={first}
            onChange={(one) => set([one, second] as TestValue)}
            label="From"
          />
          <span className="text-quiet">and</span>
          <OneInput
            test={test}
            value={second}
            onChange={(one) => set([first, one] as TestValue)}
            label="To"
          />
        </>
      );
    case 'days':
      return (
        <>
          <NumberInput label="Days" value={first} onChange={set} whole />
          <span className="text-quiet">{operator.suffix}</span>
        </>
      );
    case 'several':
      return <SeveralInput test={test} values={given.map(String)} onChange={set} />;
    default:
      return operator.takes satisfies never;
  }
}

interface OneProps {
  readonly test: Test;
  readonly value: string | number;
  readonly onChange: (value: string | number) => void;
  readonly label?: string;
}

function OneInput({ test, value, onChange, label = 'Value' }: OneProps) {
  const { vocabulary } = useDesk();
  const { values } = factNamed(test.fact);
  if (values !== null) {
    return (
      <Pick
        label={factNamed(test.fact).label}
        value={String(value)}
        options={namesOf(vocabulary, values).map(({ id, name }) => ({ value: id, label: name }))}
        onPick={onChange}
      />
    );
  }
  if (test.fact === 'person') return <PersonInput value={String(value)} onChange={onChange} />;
  switch (typeOf(test, vocabulary)) {
    case 'choice':
      return (
        <Pick
          label={label}
          value={String(value)}
          options={choicesFor(test, vocabulary).map((choice) => ({ value: choice, label: choice }))}
          onPick={onChange}
        />
      );
    case 'number':
      return <NumberInput label={label} value={value} onChange={onChange} />;
    case 'share':
      return (
        <>
          <NumberInput label="Percent" value={value} onChange={onChange} />
          <span className="text-quiet">%</span>
        </>
      );
    case 'date':
      return <DayInput label={label} value={String(value)} onChange={onChange} />;
    case 'time':
      return (
        <Input
          label={label}
          type="time"
          value={String(value)}
          onChange={(event) => event.target.value && onChange(event.target.value)}
        />
      );
    default:
      return (
        <Input
          label={label}
          value={String(value)}
          maxLength={500}
          aria-invalid={String(value).trim() === '' || undefined}
          onChange={(event) => onChange(event.target.value)}
          className="w-44"
        />
      );
  }
}

function NumberInput({
  label,
  value,
  onChange,
  whole = false,
}: {
  readonly label: string;
  readonly value: string | number;
  readonly onChange: (value: number) => void;
  readonly whole?: boolean;
}) {
  // What is half typed ("-", "1.") is not a number yet; it stays here until it is one.
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Input
      label={label}
      type="number"
      step={whole ? 1 : 'any'}
      {...(whole && { min: 0 })}
      value={typed ?? String(value)}
      aria-invalid={typed !== null && typed.trim() === '' ? true : undefined}
      onChange={(event) => {
        const { value: text, valueAsNumber } = event.target;
        setTyped(text);
        if (Number.isFinite(valueAsNumber)) onChange(whole ? Math.round(valueAsNumber) : valueAsNumber);
      }}
      onBlur={() => setTyped(null)}
      className="w-[4.5rem]"
    />
  );
}

function DayInput({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const { request } = useDesk();
  return (
    <>
      <Pick
        label={`${label}: which day`}
        value={value === TODAY ? TODAY : 'day'}
        options={[
          { value: TODAY, label: 'today' },
          { value: 'day', label: 'the day' },
        ]}
        onPick={(which) => onChange(which === TODAY ? TODAY : request.today)}
      />
      {value !== TODAY && (
        <Input
          label={label}
          type="date"
          value={value}
          onChange={(event) => event.target.value && onChange(event.target.value)}
        />
      )}
    </>
  );
}

interface FoundMember extends Findable {
  readonly email: string;
}

/** A member by typing a part of their name or address. */
function PersonInput({
  value,
  onChange,
  trigger,
}: {
  readonly value: string;
  readonly onChange: (email: string) => void;
  readonly trigger?: string;
}) {
  const [members, setMembers] = useState<readonly Member[]>([]);
  const search = useMemberSearch(setMembers);
  return (
    <Finder<FoundMember>
      label="Members"
      placeholder="Name or mail address"
      nothing="Nobody by that name."
      trigger={<Button>{trigger ?? (value || 'Choose a member')}</Button>}
      found={members.map(({ id, name, facts }) => ({
        key: id,
        label: name,
        note: facts.email ?? '',
        email: facts.email ?? '',
      }))}
      onType={search}
      onChoose={({ email }) => onChange(email)}
    />
  );
}

interface SeveralProps {
  readonly test: Test;
  readonly values: readonly string[];
  readonly onChange: (values: readonly string[]) => void;
}

function SeveralInput({ test, values, onChange }: SeveralProps) {
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
        <PersonInput value="" trigger="+ a member" onChange={(email) => onChange(withOne(values, email))} />
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
