'use client';
/** What is certain of every visitor there could be: what must stay so, and what was hardly meant. */
import { clsx } from 'clsx';
import { useMemo, useState } from 'react';
import {
  capital,
  counted,
  describeExpectation,
  type Finding,
  inShort,
  keyOfFinding,
  permits,
  type Verdict,
  type Weight,
  weightOf,
} from '@/core';
import { Button, Choice } from '@/ui';
import { useDesk } from '../context';
import type { Answer } from '../service';
import { useAnswer } from '../use-answer';
import { CertainHead } from './certain-head';
import { ExpectationPanel, NewExpectation } from './expectation-panel';
import { FindingPanel } from './finding-panel';
import { EDGES, useFindingText } from './found';
import { useSetAsides } from './use-set-asides';

interface ScreenProps {
  readonly open: string | null;
  readonly expectation: string | null;
}

const NEW = 'new';

export function FindingsScreen({ open, expectation }: ScreenProps) {
  const { data, draft, analysis } = useDesk();
  const today = useAnswer<readonly Finding[]>('findings/today', draft.policy, data);
  const findings = useMemo(
    () => analysis.draft && [...analysis.draft.findings, ...(today?.ok ? today.value : [])],
    [analysis.draft, today],
  );
  const found = findings?.find((one) => keyOfFinding(one) === open) ?? null;
  const expected = draft.policy.expectations.find(({ id }) => id === expectation);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_29rem]">
      <section aria-label="Findings" className="min-h-0 overflow-y-auto px-6 py-5">
        <CertainHead note="Worked out for every visitor there could be, from today on, in the draft. Nothing here is a guess." />
        <AtWork />
        <Expectations chosen={expectation} />
        <FoundList findings={findings} today={today} chosen={open} />
      </section>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {expectation === NEW ? (
          <NewExpectation />
        ) : expected ? (
          <ExpectationPanel
            key={expected.id}
            expectation={expected}
            verdict={analysis.draft?.verdicts.get(expected.id) ?? null}
          />
        ) : found ? (
          <FindingPanel key={keyOfFinding(found)} finding={found} />
        ) : (
          <p className="px-5 py-5 text-quiet">
            {open === null
              ? 'Choose something to see who shows it, whom it concerns and how to mend it.'
              : 'That is no longer so. Choose something else.'}
          </p>
        )}
      </aside>
    </main>
  );
}

const SIGNS: Readonly<
  Record<Verdict['kind'] | 'not yet', readonly [sign: string, word: string, colour: string]>
> = {
  holds: ['✓', 'proved', 'text-open'],
  broken: ['✗', 'broken', 'text-alarm'],
  gone: ['✗', 'names what is gone', 'text-alarm'],
  'not decided': ['?', 'not decided', 'text-teaser'],
  'not yet': ['…', 'being worked out', 'text-quiet'],
};

function Expectations({ chosen }: { readonly chosen: string | null }) {
  const { data, draft, analysis, outline, vocabulary, setScreen } = useDesk();
  const { expectations } = draft.policy;
  return (
    <section aria-label="What must stay so" className="mt-5">
      <div className="flex items-baseline justify-between gap-4">
        <h3>What must stay so</h3>
        {permits(data.desk, 'gates') && (
          <Button onClick={() => setScreen({ kind: 'findings', open: null, expectation: NEW })}>
            New expectation
          </Button>
        )}
      </div>
      {expectations.length === 0 ? (
        <p className="mt-1 max-w-prose text-quiet">
          Nothing is expected yet. Write down what must never change, or choose “Keep it so” at a cell of the
          board: it is proved again at every edit, and nothing goes live that breaks it.
        </p>
      ) : (
        <ul className="mt-1 grid">
          {expectations.map((one) => {
            const [sign, word, colour] = SIGNS[analysis.draft?.verdicts.get(one.id)?.kind ?? 'not yet'];
            return (
              <li key={one.id}>
                <button
                  type="button"
                  aria-current={one.id === chosen ? 'true' : undefined}
                  onClick={() => setScreen({ kind: 'findings', open: null, expectation: one.id })}
                  className={clsx(
                    'grid w-full grid-cols-[1.5rem_1fr] rounded-[3px] px-2 py-2 text-left hover:bg-sunk',
                    one.id === chosen && 'bg-wash',
                  )}
                >
                  <span className={clsx('font-bold', colour)} title={word}>
                    {sign}
                    <span className="sr-only"> {word}:</span>
                  </span>
                  <span>{capital(describeExpectation(one, outline, vocabulary))}</span>
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

const WEIGHTS: Readonly<Record<Weight, string>> = {
  wrong: 'Wrong',
  risk: 'Hardly meant',
  idle: 'Could be less',
  open: 'Not decided',
};

const ORDERS = { weight: 'by weight', place: 'by place' } as const;

/** That it is being worked out, once that takes longer than a moment, with the way to stop it. */
function AtWork() {
  const { work, stop, goOn } = useDesk().analysis.work;
  if (work === 'done') return null;
  return (
    <p
      role="status"
      className={clsx('mt-3 flex items-center gap-3', work === 'going on' && 'after-a-moment')}
    >
      {work === 'going on' ? (
        <>
          <span className="text-quiet">Working it out …</span>
          <Button onClick={stop}>Stop</Button>
        </>
      ) : (
        <>
          <span>Stopped. What stands here is of before the last change, or nothing.</span>
          <Button onClick={goOn}>Work it out</Button>
        </>
      )}
    </p>
  );
}

function FoundList({
  findings,
  today,
  chosen,
}: {
  readonly findings: readonly Finding[] | null;
  /** What is found with the members there are, which the server tells. */
  readonly today: Answer<unknown> | null;
  readonly chosen: string | null;
}) {
  const { draft, compiled } = useDesk();
  const { isAside } = useSetAsides();
  const [order, setOrder] = useState<keyof typeof ORDERS>('weight');
  if (findings === null) return null;
  const aside = findings.filter(isAside);
  const standing = findings.filter((one) => !isAside(one));
  const groups: readonly (readonly [title: string, list: readonly Finding[]])[] =
    order === 'weight'
      ? (['wrong', 'risk', 'idle', 'open'] as const).map((weight) => [
          WEIGHTS[weight],
          standing.filter((one) => weightOf(one) === weight),
        ])
      : [
          ...draft.policy.gates.map(
            (gate) =>
              [inShort(gate, compiled.draft), standing.filter((one) => one.gate === gate.id)] as const,
          ),
          ['Names, audiences and products', standing.filter((one) => one.gate === null)] as const,
        ];
  return (
    <section aria-label="What was found" className="mt-7">
      <div className="flex items-baseline justify-between gap-4">
        <h3>What was found</h3>
        {standing.length > 0 && (
          <Choice
            label="Order"
            value={order}
            options={(['weight', 'place'] as const).map((value) => ({ value, label: ORDERS[value] }))}
            onChoose={setOrder}
          />
        )}
      </div>
      {today?.ok === false && (
        <p role="alert" className="mt-1 text-alarm">
          What is found with the members there are can’t be told: {today.title}
        </p>
      )}
      {today?.ok && standing.length === 0 && (
        <p className="mt-1 max-w-prose text-quiet">
          Nothing: no gate that nobody passes, no two that contradict, nobody who is led astray.
        </p>
      )}
      {groups.map(
        ([title, list]) => list.length > 0 && <Group key={title} title={title} list={list} chosen={chosen} />,
      )}
      {today === null && <p className="note mt-3">Looking at the members there are …</p>}
      {aside.length > 0 && (
        <details className="mt-5">
          <summary className="cursor-pointer text-quiet">
            {counted(aside.length, 'finding')} set aside
          </summary>
          <Group title="" list={aside} chosen={chosen} />
        </details>
      )}
    </section>
  );
}

function Group({
  title,
  list,
  chosen,
}: {
  readonly title: string;
  readonly list: readonly Finding[];
  readonly chosen: string | null;
}) {
  const { draft, compiled, setScreen } = useDesk();
  const text = useFindingText();
  return (
    <>
      {title !== '' && <h4 className="mt-4 mb-1 text-quiet">{title}</h4>}
      <ul className="grid gap-1.5">
        {list.map((finding) => {
          const key = keyOfFinding(finding);
          const gate = draft.policy.gates.find(({ id }) => id === finding.gate);
          return (
            <li key={key}>
              <button
                type="button"
                aria-current={key === chosen ? 'true' : undefined}
                onClick={() => setScreen({ kind: 'findings', open: key, expectation: null })}
                className={clsx(
                  'block w-full border-l-3 px-3 py-2 text-left hover:bg-sunk',
                  EDGES[weightOf(finding)],
                  key === chosen && 'bg-wash',
                )}
              >
                {text(finding)}
                {gate && (
                  <span className="block text-[0.8125rem] text-quiet">{inShort(gate, compiled.draft)}</span>
                )}
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
