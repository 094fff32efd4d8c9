'use client';
/** One expectation: as text and as a sentence, what has become of it, who breaks it, and how it can be mended. */
import { useState } from 'react';
import { toast } from 'sonner';
import {
  capital,
  counted,
  describeExpectation,
  describeVerdict,
  type Expectation,
  type ExpectationId,
  type Expected,
  everyone,
  expectationCompletionsAt,
  nameInContext,
  not,
  parseExpectation,
  permits,
  printExpectation,
  same,
  signedIn,
  stands,
  type Verdict,
} from '@/core';
import { Button } from '@/ui';
import { exampleOf, TextForm } from '../condition';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { AsLive } from './as-live';
import { Crowd } from './finding-panel';

const closed = { kind: 'findings', open: null, expectation: null } as const;

interface PanelProps {
  readonly expectation: Expectation;
  /** Null while it is being worked out. */
  readonly verdict: Verdict | null;
}

export function ExpectationPanel({ expectation, verdict }: PanelProps) {
  const { data, draft, outline, vocabulary, setScreen } = useDesk();
  const names = { vocabulary, outline };
  const { id, ...expected } = expectation;
  const [text, setText] = useState(() => printExpectation(expected, names));
  const read = parseExpectation(text, names);
  const change = (next: Expected) =>
    draft.edit({
      ...draft.policy,
      expectations: draft.policy.expectations.map((one) => (one.id === id ? { id, ...next } : one)),
    });
  const remove = () => {
    draft.edit({
      ...draft.policy,
      expectations: draft.policy.expectations.filter((one) => one.id !== id),
    });
    setScreen(closed);
    toast('The expectation is out of the draft.', { action: { label: 'Undo', onClick: draft.undo } });
  };
  const problems =
    draft.saving.kind === 'refused' ? draft.saving.problems.filter(({ gate }) => gate === id) : [];
  return (
    <Panel
      title="What must stay so"
      note="In the draft"
      onClose={() => setScreen(closed)}
      closes="Close"
      actions={
        permits(data.desk, 'gates') && (
          <Button weight="quiet" onClick={remove}>
            Remove
          </Button>
        )
      }
    >
      <div className="grid gap-5">
        <p className="font-head text-lg leading-snug">
          {capital(describeExpectation(expected, outline, vocabulary))}.
        </p>
        {problems.map(({ message }) => (
          <p key={message} role="alert" className="border-alarm border-l-3 pl-3 text-alarm">
            {message}
          </p>
        ))}
        <VerdictView expectation={expectation} verdict={verdict} />
        <TextForm
          text={text}
          error={read.ok ? null : read.error}
          completionsAt={(at, cursor) => expectationCompletionsAt(at, cursor, names)}
          label="The expectation as text"
          rows={4}
          onType={(next) => {
            setText(next);
            const now = parseExpectation(next, names);
            if (now.ok && !same(now.expected, expected)) change(now.expected);
          }}
        />
        <Form />
      </div>
    </Panel>
  );
}

const FEW = 8;

function VerdictView({ expectation, verdict }: PanelProps) {
  const { compiled, outline, request, makeUp, draft } = useDesk();
  if (verdict === null) return <p className="note">Working it out …</p>;
  const text = describeVerdict(verdict, compiled.draft, request.today);
  if (stands(verdict)) return <p className="border-open border-l-3 pl-3">{text}</p>;
  const other =
    verdict.kind === 'broken' && verdict.against !== null
      ? draft.policy.expectations.find(({ id }) => id === verdict.against)
      : undefined;
  return (
    <>
      <p role="status" className="border-alarm border-l-3 pl-3">
        {text}
      </p>
      {other && (
        <p>
          It can’t be true together with another: “
          {capital(describeExpectation(other, outline, compiled.draft.vocabulary))}”.
        </p>
      )}
      {verdict.kind === 'broken' && (
        <>
          <Crowd
            of={{ kind: 'expectation', id: expectation.id, items: verdict.items }}
            whom="get something else than is expected today"
          />
          {verdict.items.length > 1 && (
            <section aria-label="Where">
              <h3 className="mb-1">At {counted(verdict.items.length, 'item')}</h3>
              <p>
                {verdict.items
                  .slice(0, FEW)
                  .flatMap((id) => outline.items.get(id) ?? [])
                  .map((item) => nameInContext(item, outline))
                  .join(', ')}
                {verdict.items.length > FEW && ` and ${verdict.items.length - FEW} more`}
              </p>
            </section>
          )}
          <div className="flex flex-wrap gap-2">
            {verdict.witness.visitor.signedIn && (
              <Button onClick={() => makeUp('Breaks what is expected', verdict.witness.visitor)}>
                Put such a visitor on the board
              </Button>
            )}
            <AsLive expectation={expectation} verdict={verdict} />
          </div>
        </>
      )}
    </>
  );
}

/** Something new that is expected: nothing of it is in the draft until it can be read. */
export function NewExpectation() {
  const { draft, outline, vocabulary, setScreen } = useDesk();
  const names = { vocabulary, outline };
  const [text, setText] = useState('');
  const read = parseExpectation(text, names);
  const add = (expected: Expected) => {
    const id = crypto.randomUUID() as ExpectationId;
    draft.edit({ ...draft.policy, expectations: [...draft.policy.expectations, { id, ...expected }] });
    setScreen({ kind: 'findings', open: null, expectation: id });
  };
  return (
    <Panel title="New expectation" onClose={() => setScreen(closed)} closes="Close">
      <div className="grid gap-5">
        <TextForm
          text={text}
          error={read.ok ? null : read.error}
          completionsAt={(at, cursor) => expectationCompletionsAt(at, cursor, names)}
          label="The expectation as text"
          placeholder="not signed in never sees branch …"
          rows={4}
          onType={setText}
        />
        {read.ok && (
          <p className="font-head text-lg leading-snug">
            {capital(describeExpectation(read.expected, outline, vocabulary))}.
          </p>
        )}
        <Button
          weight="main"
          className="justify-self-start"
          disabled={!read.ok}
          onClick={() => read.ok && add(read.expected)}
        >
          Expect this
        </Button>
        <Form />
      </div>
    </Panel>
  );
}

/** How an expectation is written, of what there is here. */
function Form() {
  const { data, outline, vocabulary } = useDesk();
  const [page, other = page] = [...outline.addressed.values()];
  const who = exampleOf(data.names);
  const at = (kind: 'item' | 'branch', item = page) => ({
    targets: item ? [{ kind, item: item.id }] : [],
    except: [],
  });
  const examples: readonly Expected[] = [
    { who: everyone, claim: { kind: 'opens' }, what: at('item') },
    { who, claim: { kind: 'only opens' }, what: at('branch', other) },
    { who: not(signedIn), claim: { kind: 'gets', outcome: 'teaser' }, what: at('item', other) },
    { who: not(who), claim: { kind: 'never sees' }, what: at('branch', other) },
  ];
  return (
    <section aria-label="How it is written" className="note grid gap-1">
      <p>Whom it is about, what is so, and where:</p>
      <ul className="condition-text grid gap-0.5">
        {examples
          .map((one) => printExpectation(one, { vocabulary, outline }))
          .map((text) => (
            <li key={text}>{text}</li>
          ))}
      </ul>
    </section>
  );
}
