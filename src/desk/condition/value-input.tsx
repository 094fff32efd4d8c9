'use client';
/** The value of a test, with the input that fits its type: choices, numbers, days from a calendar, members by typing. */
import { useState } from 'react';
import {
  choicesFor,
  factNamed,
  listOf,
  namesOf,
  operatorOf,
  type Test,
  type TestValue,
  TODAY,
  typeOf,
} from '@/core';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { MemberInput } from '../member-input';
import { SeveralInput } from './several-input';

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
  if (test.fact === 'person')
    return (
      <MemberInput
        trigger={String(value) || 'Choose a member'}
        onChoose={({ facts }) => onChange(facts.email ?? '')}
      />
    );
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
