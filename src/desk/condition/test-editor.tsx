'use client';
/** One test, or the use of one audience, as a row of choices: fact, what it is of, comparison, value. */
import {
  type Condition,
  factNamed,
  namesOf,
  type OperatorName,
  operatorOf,
  operatorsFor,
  problemOf,
  type Test,
} from '@/core';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { choiceOf, factChoices, partFor, withOperator } from './new-test';
import { ValueInput } from './value-input';

type Atom = Test | Extract<Condition, { kind: 'audience' }>;

interface AtomProps {
  readonly atom: Atom;
  readonly onChange: (atom: Atom) => void;
}

export function AtomEditor({ atom, onChange }: AtomProps) {
  const { vocabulary } = useDesk();
  const fact = (
    <Pick
      label="Fact"
      value={choiceOf(atom)}
      options={factChoices(vocabulary)}
      onPick={(choice) => onChange(partFor(choice, vocabulary))}
      className="w-32"
    />
  );
  if (atom.kind === 'audience') {
    return (
      <div className="flex flex-wrap items-center gap-1.5">
        {fact}
        <Pick
          label="Audience"
          value={atom.audience as string}
          options={vocabulary.audiences.map(({ id, name }) => ({ value: id as string, label: name }))}
          onPick={(id) => onChange({ kind: 'audience', audience: id as never })}
        />
      </div>
    );
  }
  return <TestEditor test={atom} fact={fact} onChange={onChange} />;
}

interface TestEditorProps {
  readonly test: Test;
  readonly fact: React.ReactNode;
  readonly onChange: (test: Test) => void;
}

function TestEditor({ test, fact, onChange }: TestEditorProps) {
  const { vocabulary } = useDesk();
  const { subject, type } = factNamed(test.fact);
  const operators = operatorsFor(test, vocabulary);
  const problem = problemOf(test, vocabulary);
  const operator = operatorOf(test, vocabulary);
  const value = <ValueInput test={test} onChange={onChange} />;
  // "Observer · or above" reads in that order; everywhere else the comparison stands before the value.
  const valueFirst = type === 'rank';
  return (
    <div className="grid gap-1">
      <div className="flex flex-wrap items-center gap-1.5">
        {fact}
        {subject !== null && subject !== 'field' && (
          <Subject test={test} kind={subject} onChange={onChange} />
        )}
        {valueFirst && value}
        {operators.length > 1 && (
          <Pick<OperatorName>
            label="Comparison"
            className="max-w-28"
            value={test.op}
            options={operators.map(({ op, label, suffix }) => ({
              value: op,
              label: suffix === undefined || label.includes('…') ? label : `${label} … ${suffix}`,
            }))}
            onPick={(op) =>
              onChange(
                withOperator(
                  test,
                  operators.find((one) => one.op === op),
                  vocabulary,
                ),
              )
            }
          />
        )}
        {!valueFirst && value}
      </div>
      {problem && (
        <p role="alert" className="text-alarm text-xs">
          {problem.message}
          {operator === null && ' Choose another comparison.'}
        </p>
      )}
    </div>
  );
}

function Subject({
  test,
  kind,
  onChange,
}: {
  readonly test: Test;
  readonly kind: NonNullable<ReturnType<typeof factNamed>['subject']>;
  readonly onChange: (test: Test) => void;
}) {
  const { vocabulary } = useDesk();
  const subject = test.subject ?? '';
  if (kind === 'text') {
    return (
      <Input
        label="Name of the parameter"
        value={subject}
        maxLength={100}
        onChange={(event) => onChange({ ...test, subject: event.target.value })}
        className="w-28"
      />
    );
  }
  return (
    <Pick
      label={`Which ${kind}`}
      value={subject}
      options={namesOf(vocabulary, kind).map(({ id, name }) => ({ value: id, label: name }))}
      onPick={(id) => onChange({ ...test, subject: id })}
    />
  );
}
