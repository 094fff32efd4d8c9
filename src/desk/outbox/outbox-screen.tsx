'use client';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';

interface Letter {
  readonly id: number;
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly state: 'waiting' | 'sent' | 'failed' | 'kept';
  readonly tries: number;
  readonly nextTry: string;
  readonly sentAt: string | null;
  readonly problem: string;
}

interface Letters {
  readonly from: string | null;
  readonly letters: readonly Letter[];
}

const inWords = (moment: string): string =>
  new Date(moment).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** The outbox: letters with what has become of them, the newest first. */
export function OutboxScreen() {
  const { setScreen } = useDesk();
  const [answer, setAnswer] = useState<Answer<Letters> | null>(null);
  const read = () => void ask<Letters>('GET', 'outbox').then(setAnswer);
  useEffect(read, []);
  const send = async (what: object, said: string) => {
    const sent = await ask<Letters>('POST', 'outbox', what);
    if (!sent.ok) return void toast.error(sent.title);
    setAnswer(sent);
    toast.success(said);
  };
  const from = answer?.ok ? answer.value.from : null;
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-6 py-5">
      <div className="flex max-w-3xl items-start justify-between gap-4">
        <div>
          <h2 className="text-xl">Outbox</h2>
          {answer?.ok && (
            <p className="note max-w-prose">
              {from === null
                ? 'No mail leaves this machine: what would have been sent stands here, codes and letters from forms. Set TRIVET_MAIL and TRIVET_MAIL_FROM and start the server again, and it is sent.'
                : `Letters come from ${from}. What can’t be sent at once is tried again, for about three days.`}
            </p>
          )}
        </div>
        <p className="flex shrink-0 gap-2">
          {from !== null && (
            <Button onClick={() => void send({ kind: 'try' }, 'It is on its way. Look again in a moment.')}>
              Send me one to try
            </Button>
          )}
          <Button onClick={() => setScreen({ kind: 'letters', letter: 'signUp' })}>What letters say</Button>
          <Button onClick={read}>Look again</Button>
        </p>
      </div>
      {answer && !answer.ok && (
        <p role="alert" className="mt-3 text-alarm">
          {answer.title}
        </p>
      )}
      {answer?.ok && answer.value.letters.length === 0 && (
        <p className="mt-6 max-w-prose">
          Nothing was sent yet. When somebody signs up, the code they wait for will stand here.
        </p>
      )}
      <ol className="mt-4 grid max-w-3xl">
        {answer?.ok &&
          answer.value.letters.map((letter) => (
            <li key={letter.id} className="grid gap-1 border-thin border-b py-3">
              <p className="flex flex-wrap items-baseline gap-x-3">
                <strong>{letter.subject}</strong>
                <span>to {letter.to}</span>
                <time className="note" dateTime={letter.at}>
                  {inWords(letter.at)}
                </time>
              </p>
              <Fate letter={letter}>
                {from !== null && letter.state !== 'waiting' && (
                  <Button
                    weight="quiet"
                    onClick={() => void send({ kind: 'again', id: letter.id }, 'It is on its way.')}
                  >
                    {letter.state === 'kept' ? 'Send it' : 'Send it again'}
                  </Button>
                )}
              </Fate>
              <p className="whitespace-pre-line">{letter.text}</p>
            </li>
          ))}
      </ol>
    </main>
  );
}

/** What has become of a letter, with what can be done about it. */
function Fate({ letter, children }: { readonly letter: Letter; readonly children: React.ReactNode }) {
  const said = {
    sent: () => `Sent ${inWords(letter.sentAt ?? letter.at)}.`,
    kept: () => 'Not sent: it stays here.',
    failed: () => `Could not be sent: ${letter.problem}`,
    waiting: () =>
      letter.tries === 0
        ? 'On its way.'
        : letter.problem === ''
          ? 'Being sent.'
          : `Tried ${letter.tries === 1 ? 'once' : `${letter.tries} times`}, and again ${inWords(letter.nextTry)}: ${letter.problem}`,
  }[letter.state]();
  return (
    <p
      className={`flex flex-wrap items-baseline gap-x-3 ${letter.state === 'failed' ? 'text-alarm' : 'note'}`}
    >
      {said} {children}
    </p>
  );
}
