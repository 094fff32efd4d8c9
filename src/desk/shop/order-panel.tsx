'use client';
/** One order: how it stands, what giving it back or ending it would close, and every notice behind it. */
import { type ReactNode, useEffect, useState } from 'react';
import { dayInWords, listed, permits } from '@/core';
import type { IfEnded, OrderReport } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { Field } from '../people';
import { type Answer, ask } from '../service';
import { Titles } from './titles';

interface PanelProps {
  readonly order: string;
  /** Read again when it is another value. */
  readonly renewed: unknown;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

export function OrderPanel({ order, renewed, onClose, onDone }: PanelProps) {
  const { setScreen, reloadSite } = useDesk();
  const [answer, setAnswer] = useState<Answer<OrderReport> | null>(null);
  const path = `sales/${encodeURIComponent(order)}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(() => {
    ask<OrderReport>('GET', path).then(setAnswer);
  }, [path, renewed]);
  if (!answer?.ok)
    return (
      <Panel title="An order" onClose={onClose} closes="Back to the sales">
        <p role={answer ? 'alert' : undefined}>{answer ? answer.title : 'Looking …'}</p>
      </Panel>
    );
  const report = answer.value;
  const { sale, notices, ifEnded, due } = report;
  const done = async () => {
    await reloadSite();
    onDone();
  };
  return (
    <Panel
      title={sale.productName}
      onClose={onClose}
      closes="Back to the sales"
      note={
        <>
          {sale.name}, {sale.email}. Ordered on {dayInWords(sale.on)}
          {report.voucher && ', with a voucher'}
          {report.notedBy !== null && `, and noted by ${report.notedBy}, without the till`}.
        </>
      }
      actions={
        <>
          {report.tillPage !== null && (
            <a
              href={report.tillPage}
              target="_blank"
              rel="noreferrer"
              title="At the till that stands in: the bank can be asked there, too"
              className="py-1 underline underline-offset-4 hover:text-copper"
            >
              At the till
            </a>
          )}
          {sale.person && (
            <Button onClick={() => setScreen({ kind: 'person', person: sale.person })}>Their page</Button>
          )}
        </>
      }
    >
      <div className="grid gap-5">
        {due.length > 0 && (
          <p className="border-teaser border-l-3 pl-3">
            The till is still to be asked: {listed(due)}. It is asked again by itself.
          </p>
        )}
        <Steps report={report} path={path} onDone={done} />
        {ifEnded === null && sale.standing === 'good' && (
          <p className="text-quiet">Nobody has this by an account, so ending it closes nothing.</p>
        )}
        <section aria-label="What happened">
          <h3>{report.notedBy === null ? 'What the till told' : 'What was noted'}</h3>
          {notices.length === 0 && <p className="text-quiet">Nothing yet.</p>}
          <ol className="grid">
            {notices.map(({ id, came, kind, words, problem, said }) => (
              <li key={id} className="border-thin border-t py-1.5">
                <details>
                  <summary className="flex flex-wrap gap-x-2">
                    <span className="text-quiet">{came}</span>
                    <span className={problem ? 'text-alarm' : 'font-semibold'}>{kind ?? 'unread'}</span>
                    <span>{words}</span>
                  </summary>
                  {problem && <p className="text-alarm">Not counted: {problem}</p>}
                  <pre className="mt-1 overflow-x-auto bg-sunk p-2 text-xs">{said}</pre>
                </details>
              </li>
            ))}
          </ol>
        </section>
      </div>
    </Panel>
  );
}

interface StepsProps {
  readonly report: OrderReport;
  readonly path: string;
  readonly onDone: () => Promise<void>;
}

type Step = 'refund' | 'end';

function Steps({ report, path, onDone }: StepsProps) {
  const { data } = useDesk();
  const [step, setStep] = useState<Step | null>(null);
  if (!permits(data.desk, 'everything') || (report.refundable === '' && !report.canEnd)) return null;
  return (
    <section aria-label="Steps" className="grid gap-3">
      <p className="flex flex-wrap gap-2">
        {report.refundable !== '' && (
          <Button
            aria-pressed={step === 'refund'}
            onClick={() => setStep(step === 'refund' ? null : 'refund')}
          >
            Give money back …
          </Button>
        )}
        {report.canEnd && (
          <Button aria-pressed={step === 'end'} onClick={() => setStep(step === 'end' ? null : 'end')}>
            End it …
          </Button>
        )}
      </p>
      {step === 'refund' && <Refund report={report} path={path} onDone={onDone} />}
      {step === 'end' && <End report={report} path={path} onDone={onDone} />}
    </section>
  );
}

function Refund({ report, path, onDone }: StepsProps) {
  const [amount, setAmount] = useState(report.refundable);
  const [ends, setEnds] = useState(true);
  // Sent twice, it gives back once.
  const [key] = useState(() => crypto.randomUUID());
  const { send, sending, problem } = useStep(path, onDone);
  return (
    <Before ifEnded={ends ? report.ifEnded : null}>
      <Field label={`How much, ${report.currency}`} problem={problem ?? undefined}>
        <Input
          label="How much to give back"
          inputMode="decimal"
          className="w-28"
          value={amount}
          aria-invalid={problem !== null || undefined}
          onChange={({ target }) => setAmount(target.value)}
        />
      </Field>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={ends} onChange={({ target }) => setEnds(target.checked)} />
        and it ends now
      </label>
      <p>
        <Button weight="main" disabled={sending} onClick={() => void send('refund', { amount, ends, key })}>
          {sending ? 'Giving it back …' : `Give back ${amount} ${report.currency}`}
        </Button>
      </p>
    </Before>
  );
}

function End({ report, path, onDone }: StepsProps) {
  const { send, sending, problem } = useStep(path, onDone);
  return (
    <Before ifEnded={report.ifEnded}>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <p className="flex flex-wrap gap-2">
        {report.canStop && (
          <Button weight="main" disabled={sending} onClick={() => void send('end', { when: 'at the end' })}>
            When what is paid for is over
          </Button>
        )}
        <Button
          weight={report.canStop ? 'plain' : 'main'}
          disabled={sending}
          onClick={() => void send('end', { when: 'now' })}
        >
          End it now
        </Button>
      </p>
    </Before>
  );
}

function useStep(path: string, onDone: () => Promise<void>) {
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (step: Step, body: unknown) => {
    setSending(true);
    const answer = await ask('POST', `${path}/${step}`, body);
    setProblem(answer.ok ? null : answer.title);
    if (answer.ok) await onDone();
    setSending(false);
  };
  return { send, sending, problem };
}

/** What ending would do, said before it is done. */
function Before({ ifEnded, children }: { readonly ifEnded: IfEnded | null; readonly children: ReactNode }) {
  return (
    <div className="grid gap-3 border-copper border-l-3 pl-4">
      {ifEnded && (
        <div className="grid gap-1" data-testid="if-ended">
          {ifEnded.loses.length > 0 && <p>They lose {listed(ifEnded.loses)}.</p>}
          {ifEnded.closes.length === 0 && <p>Nothing closes.</p>}
          <Titles verb="Closes" items={ifEnded.closes} className="text-alarm" />
          <Titles verb="Opens" items={ifEnded.opens} />
          {ifEnded.keeps.length > 0 && <p>They keep {listed(ifEnded.keeps)}.</p>}
        </div>
      )}
      {children}
    </div>
  );
}
