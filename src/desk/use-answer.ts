'use client';
import { useEffect, useState } from 'react';
import { type Answer, ask } from './service';

const PAUSE_MS = 120;

/**
 * The server's answer to a question that changes as one edits: asked after a short pause, earlier questions called off.
 * Until a new answer is there, the last one stays; `null` before the first.
 */
export function useAnswer<T>(path: string, question: unknown): Answer<T> | null {
  const [answer, setAnswer] = useState<Answer<T> | null>(null);
  const text = JSON.stringify(question);
  useEffect(() => {
    const calledOff = new AbortController();
    const timer = setTimeout(() => {
      ask<T>('POST', path, JSON.parse(text), calledOff.signal).then(setAnswer, () => undefined);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      calledOff.abort();
    };
  }, [path, text]);
  return answer;
}
