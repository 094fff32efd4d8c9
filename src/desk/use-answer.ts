'use client';
import { useEffect, useState } from 'react';
import { type Answer, ask } from './service';

const PAUSE_MS = 120;

/**
 * The server's answer to a question that changes as one edits: asked after a short pause, earlier questions called off.
 * Until a new answer is there, the last one stays; `null` before the first. Asked again when `renewed` is another value.
 */
export function useAnswer<T>(path: string, question: unknown, renewed?: unknown): Answer<T> | null {
  const [answer, setAnswer] = useState<Answer<T> | null>(null);
  const text = JSON.stringify(question);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when what it is about was renewed
  useEffect(() => {
    const calledOff = new AbortController();
    const timer = setTimeout(() => {
      ask<T>('POST', path, JSON.parse(text), calledOff.signal).then(setAnswer, () => undefined);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      calledOff.abort();
    };
  }, [path, text, renewed]);
  return answer;
}
