'use client';
/** A condition as something to edit in place: tests in rows, and/or groups as indented blocks, `not` as a toggle. */
import { clsx } from 'clsx';
import { X } from 'lucide-react';
import {
  type Condition,
  catalogue,
  type FactName,
  factNamed,
  operatorOf,
  type Test,
  testValue,
  type Vocabulary,
} from '@/core';
import { Button, Choice, Pick } from '@/ui';
import { useDesk } from '../context';
import { asCondition, asJoined, type Joined, joinedTests } from './joined';

interface EditorProps {
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
}

/** Edits a whole condition. */
export function ConditionEditor({ condition, onChange }: EditorProps) {
  return <JoinedEditor group={asJoined(condition)} onChange={(joined) => onChange(asCondition(joined))} />;
}

interface JoinedEditorProps {
  readonly group: Joined;
  readonly onChange: (group: Joined) => void;
}

function JoinedEditor({ group, onChange }: JoinedEditorProps) {
  const { vocabulary } = useDesk();
  const change = (of: readonly Condition[]) => onChange(joinedTests(group.kind, of));
  return (
    <div className="grid gap-2">
      {group.of.length > 1 && (
        <div>
          <Choice
            label="How these go together"
            value={group.kind}
            options={[
              { value: 'all', label: 'all of these' },
              { value: 'any', label: 'any of these' },
            ]}
            onChoose={(kind) => onChange({ ...group, kind })}
          />
        </div>
      )}
      {group.of.length === 0 && (
        <p className="note">
          {group.kind === 'all' ? 'No tests: everyone passes.' : 'No tests: nobody passes.'}
        </p>
      )}
      <ul className="grid gap-2">
        {group.of.map((part, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the parts of a condition have no identity but their place
          <li key={index}>
            <PartEditor
              part={part}
              onChange={(next) => change(group.of.map((one, at) => (at === index ? next : one)))}
              onRemove={() => change(group.of.filter((_, at) => at !== index))}
            />
          </li>
        ))}
      </ul>
      <div className="flex gap-1">
        <Button weight="quiet" onClick={() => change([...group.of, firstTest('group', vocabulary)])}>
          + a test
        </Button>
        <Button
          weight="quiet"
          onClick={() =>
            change([
              ...group.of,
              {
                kind: group.kind === 'all' ? 'any' : 'all',
                of: [firstTest('group', vocabulary), firstTest('role', vocabulary)],
              },
            ])
          }
        >
          + a group of tests
        </Button>
      </div>
    </div>
  );
}

interface PartEditorProps {
  readonly part: Condition;
  readonly onChange: (part: Condition) => void;
  readonly onRemove: () => void;
}

function PartEditor({ part, onChange, onRemove }: PartEditorProps) {
  const denied = part.kind === 'not';
  const inner = part.kind === 'not' ? part.of : part;
  const keep = (next: Condition) => onChange(denied ? { kind: 'not', of: next } : next);
  const group = inner.kind !== 'test';
  return (
    <div
      className={clsx(
        'flex items-start gap-1.5',
        group && 'rounded-r-[3px] border-iron border-l-2 bg-sunk/60 py-2 pr-1 pl-2.5',
      )}
    >
      <button
        type="button"
        aria-pressed={denied}
        title={denied ? 'Take the “not” away' : 'Turn this around'}
        onClick={() => onChange(denied ? inner : { kind: 'not', of: inner })}
        className={clsx(
          'rounded-[3px] border px-1.5 py-1 leading-5',
          denied
            ? 'border-copper bg-wash font-semibold text-copper'
            : 'border-transparent text-quiet hover:border-iron',
        )}
      >
        not
      </button>
      <div className="min-w-0 flex-1">
        {inner.kind === 'test' ? (
          <TestEditor test={inner} onChange={keep} />
        ) : (
          <JoinedEditor
            group={asJoined(inner)}
            onChange={(joined) => (joined.of.length === 0 ? onRemove() : keep(joined))}
          />
        )}
      </div>
      <Button
        weight="quiet"
        className="px-1"
        aria-label={group ? 'Take this group out' : 'Take this test out'}
        title="Take out"
        onClick={onRemove}
      >
        <X size={14} aria-hidden="true" />
      </Button>
    </div>
  );
}

function TestEditor({ test, onChange }: { readonly test: Test; readonly onChange: (test: Test) => void }) {
  const { vocabulary } = useDesk();
  const fact = factNamed(test.fact);
  const operator = operatorOf(test);
  const choices = fact.choices(vocabulary);
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <Pick
        label="Fact"
        value={test.fact}
        options={catalogue.map(({ name, label }) => ({ value: name, label }))}
        onPick={(name) => onChange(firstTest(name, vocabulary))}
      />
      {operator.takesValue && (
        <Pick
          label={fact.label}
          value={testValue(test)}
          options={choices.map(({ id, name }) => ({ value: id, label: name }))}
          onPick={(value) => onChange({ ...test, value } as Test)}
        />
      )}
      {fact.operators.length > 1 && (
        <Pick
          label="Comparison"
          value={test.op}
          options={fact.operators.map(({ op, label }) => ({ value: op, label }))}
          onPick={(op) => onChange(withOperator(test, op, vocabulary))}
        />
      )}
    </div>
  );
}

/** A test of a fact with the first operator and value there are, so that it is whole from the start. */
export function firstTest(name: FactName, vocabulary: Vocabulary): Test {
  const fact = factNamed(name);
  const [operator] = fact.operators;
  const value = fact.choices(vocabulary)[0]?.id ?? '';
  return { kind: 'test', fact: name, op: operator?.op, ...(operator?.takesValue && { value }) } as Test;
}

function withOperator(test: Test, op: Test['op'], vocabulary: Vocabulary): Test {
  const fact = factNamed(test.fact);
  const takesValue = fact.operators.find((operator) => operator.op === op)?.takesValue;
  const value = testValue(test) || fact.choices(vocabulary)[0]?.id;
  return { kind: 'test', fact: test.fact, op, ...(takesValue && { value }) } as Test;
}
