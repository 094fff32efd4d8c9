'use client';
import { useEffect, useState } from 'react';
import { Button } from '@/ui';
import { type Answer, ask } from '../service';

interface Letter {
  readonly id: number;
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

/** The outbox: what Trivet would have mailed, the newest first. */
export function OutboxScreen() {
  const [answer, setAnswer] = useState<Answer<readonly Letter[]> | null>(null);
  const read = () => void ask<readonly Letter[]>('GET', 'outbox').then(setAnswer);
  useEffect(read, []);
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-6 py-5">
      <div className="flex max-w-3xl items-start justify-between gap-4">
        <div>
          <h2 className="text-xl">Outbox</h2>
          <p className="note">
            No mail leaves this machine: what would have been sent stands here, codes and letters from forms.
          </p>
        </div>
        <Button onClick={read}>Look again</Button>
      </div>
      {answer && !answer.ok && (
        <p role="alert" className="mt-3 text-alarm">
          {answer.title}
        </p>
      )}
      {answer?.ok && answer.value.length === 0 && (
        <p className="mt-6 max-w-prose">
          Nothing was sent yet. When somebody signs up, the code they wait for will stand here.
        </p>
      )}
      <ol className="mt-4 grid max-w-3xl">
        {answer?.ok &&
          answer.value.map((letter) => (
            <li key={letter.id} className="grid gap-1 border-thin border-b py-3">
              <p className="flex flex-wrap items-baseline gap-x-3">
                <strong>{letter.subject}</strong>
                <span>to {letter.to}</span>
                <time className="note" dateTime={letter.at}>
                  {new Date(letter.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                </time>
              </p>
              <p className="whitespace-pre-line">{letter.text}</p>
            </li>
          ))}
      </ol>
    </main>
  );
}
