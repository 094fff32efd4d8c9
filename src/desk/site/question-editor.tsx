'use client';
/** One question of a quiz, in place: what is asked, what there is to answer, what is right and what is said of it. */
import { clsx } from 'clsx';
import { ArrowUp, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { type Option, type Pair, QUESTION_KINDS, QUESTIONS, type Question, type QuestionOf } from '@/core';
import type { DocumentProblem } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { NumberInput } from '../number-input';
import { asKind } from './new-question';

interface QuestionEditorProps {
  readonly question: Question;
  readonly number: number;
  /** What it is dragged by. */
  readonly handle: ReactNode;
  readonly problems: readonly DocumentProblem[];
  readonly onChange: (question: Question) => void;
  readonly onRemove: () => void;
}

export function QuestionEditor(props: QuestionEditorProps) {
  const { question, number, handle, problems, onChange, onRemove } = props;
  return (
    <section
      aria-label={`Question ${number}`}
      className={clsx(
        'grid gap-2 border border-thin bg-raised px-3 py-2.5',
        problems.length > 0 && 'border-alarm',
      )}
    >
      <div className="flex items-center gap-2">
        {handle}
        <span className="font-semibold">{number}</span>
        <Pick
          label={`Kind of question ${number}`}
          value={question.kind}
          options={QUESTION_KINDS.map((kind) => ({ value: kind, label: QUESTIONS[kind].name }))}
          onPick={(kind) => onChange(asKind(question, kind))}
        />
        <span className="flex-1" />
        <span className="text-quiet">counts</span>
        <NumberInput
          label={`Points of question ${number}`}
          className="w-12"
          value={question.points}
          onChange={(points) => onChange({ ...question, points: points ?? 0 })}
        />
        <Button weight="quiet" size="small" aria-label={`Take out question ${number}`} onClick={onRemove}>
          <X size={14} aria-hidden="true" />
        </Button>
      </div>
      <textarea
        aria-label={`What question ${number} asks`}
        placeholder="What is asked, in Markdown"
        rows={2}
        maxLength={5000}
        value={question.text}
        onChange={(event) => onChange({ ...question, text: event.target.value })}
        className="w-full resize-y rounded-[3px] border border-iron bg-paper px-2 py-1"
      />
      <Parts question={question} number={number} onChange={onChange} />
      <Input
        label={`What is said with the right answer of question ${number}`}
        placeholder="Said with the right answer, if you like"
        className="w-full"
        maxLength={1000}
        value={question.feedback}
        onChange={(event) => onChange({ ...question, feedback: event.target.value })}
      />
      {problems.map(({ path, message }) => (
        <p key={`${path} ${message}`} role="alert" className="text-alarm">
          {message}
        </p>
      ))}
    </section>
  );
}

interface PartsProps<Q extends Question = Question> {
  readonly question: Q;
  readonly number: number;
  readonly onChange: (question: Question) => void;
}

/** What a question holds beside what it asks, by its kind. */
function Parts({ question, number, onChange }: PartsProps) {
  switch (question.kind) {
    case 'one':
    case 'several':
      return <Options question={question} number={number} onChange={onChange} />;
    case 'number':
      return (
        <p className="flex flex-wrap items-center gap-1.5 text-quiet">
          Right is
          <NumberInput
            label={`The right number of question ${number}`}
            className="w-24"
            value={question.right}
            onChange={(right) => onChange({ ...question, right: right ?? 0 })}
          />
          give or take
          <NumberInput
            label={`The tolerance of question ${number}`}
            value={question.tolerance}
            onChange={(tolerance) => onChange({ ...question, tolerance: tolerance ?? 0 })}
          />
        </p>
      );
    case 'text':
      return (
        <Rows
          what={`accepted answer of question ${number}`}
          rows={question.accepted}
          fresh=""
          least={1}
          onChange={(accepted) => onChange({ ...question, accepted })}
        >
          {(text, set, name) => (
            <Input
              label={name}
              className="flex-1"
              placeholder="Right, in large or small letters"
              maxLength={300}
              value={text}
              onChange={(event) => set(event.target.value)}
            />
          )}
        </Rows>
      );
    case 'order':
      return (
        <Rows
          what={`step of question ${number}`}
          rows={question.steps}
          fresh=""
          least={2}
          ordered
          onChange={(steps) => onChange({ ...question, steps })}
        >
          {(text, set, name, at) => (
            <>
              <span className="w-5 text-right text-quiet">{at + 1}</span>
              <Input
                label={name}
                className="flex-1"
                maxLength={500}
                value={text}
                onChange={(event) => set(event.target.value)}
              />
            </>
          )}
        </Rows>
      );
    case 'pairs':
      return (
        <Rows
          what={`pair of question ${number}`}
          rows={question.pairs}
          fresh={{ left: '', right: '' }}
          least={2}
          onChange={(pairs) => onChange({ ...question, pairs })}
        >
          {(pair: Pair, set, name) => (
            <>
              <Input
                label={`${name}: one side`}
                className="flex-1"
                maxLength={500}
                value={pair.left}
                onChange={(event) => set({ ...pair, left: event.target.value })}
              />
              <span className="text-quiet">belongs to</span>
              <Input
                label={`${name}: the other side`}
                className="flex-1"
                maxLength={500}
                value={pair.right}
                onChange={(event) => set({ ...pair, right: event.target.value })}
              />
            </>
          )}
        </Rows>
      );
    default:
      return question satisfies never;
  }
}

function Options({ question, number, onChange }: PartsProps<QuestionOf<'one'> | QuestionOf<'several'>>) {
  const { kind } = question;
  return (
    <Rows
      what={`answer of question ${number}`}
      rows={question.options}
      fresh={{ text: '', right: false, feedback: '' }}
      least={2}
      onChange={(options) => onChange({ ...question, options })}
    >
      {(option: Option, set, name, at) => (
        <>
          <input
            type={kind === 'one' ? 'radio' : 'checkbox'}
            name={`right-${question.id}`}
            aria-label={`${name} is right`}
            title="Right"
            checked={option.right}
            onChange={(event) =>
              kind === 'several'
                ? set({ ...option, right: event.target.checked })
                : onChange({
                    ...question,
                    options: question.options.map((one, place) => ({ ...one, right: place === at })),
                  })
            }
          />
          <Input
            label={name}
            className="flex-[3]"
            placeholder="What there is to choose"
            maxLength={500}
            value={option.text}
            onChange={(event) => set({ ...option, text: event.target.value })}
          />
          <Input
            label={`${name}: what is said to whoever chose it`}
            className="flex-[2]"
            placeholder="Said to whoever chose it"
            maxLength={1000}
            value={option.feedback}
            onChange={(event) => set({ ...option, feedback: event.target.value })}
          />
        </>
      )}
    </Rows>
  );
}

interface RowsProps<T> {
  /** What one of them is called. */
  readonly what: string;
  readonly rows: readonly T[];
  /** One that was just added. */
  readonly fresh: T;
  /** As few as there can be. */
  readonly least: number;
  /** Whether their order says something. */
  readonly ordered?: boolean;
  readonly onChange: (rows: readonly T[]) => void;
  readonly children: (row: T, set: (row: T) => void, name: string, at: number) => ReactNode;
}

/** A few rows, to which more can be added and which can be taken out. */
function Rows<T>({ what, rows, fresh, least, ordered = false, onChange, children }: RowsProps<T>) {
  const up = (at: number) => {
    const next = [...rows];
    const [moved] = next.splice(at, 1);
    if (moved !== undefined) next.splice(at - 1, 0, moved);
    onChange(next);
  };
  return (
    <ol className="grid gap-1.5">
      {rows.map((row, at) => {
        const name = `${what}: ${at + 1}`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no identity but their place
          <li key={at} className="flex items-center gap-2">
            {children(
              row,
              (next) => onChange(rows.map((one, place) => (place === at ? next : one))),
              name,
              at,
            )}
            {ordered && (
              <Button
                weight="quiet"
                size="small"
                disabled={at === 0}
                aria-label={`Move up ${name}`}
                onClick={() => up(at)}
              >
                <ArrowUp size={14} aria-hidden="true" />
              </Button>
            )}
            <Button
              weight="quiet"
              size="small"
              disabled={rows.length <= least}
              aria-label={`Take out ${name}`}
              onClick={() => onChange(rows.filter((_, place) => place !== at))}
            >
              <X size={14} aria-hidden="true" />
            </Button>
          </li>
        );
      })}
      <li>
        <Button
          weight="quiet"
          size="small"
          aria-label={`Add: ${what}`}
          onClick={() => onChange([...rows, fresh])}
        >
          + another
        </Button>
      </li>
    </ol>
  );
}
