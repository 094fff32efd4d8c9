'use client';
import { useEffect, useState } from 'react';
import { type Answer, ask } from './service';

const PAUSE_MS = 120;
const RETRY_MS = 3000;

/**
 * The server's answer to a question that changes as one edits: asked after a short pause, earlier questions called off.
 * Until a new answer is there, the last one stays; `null` before the first. Asked again when `renewed` is another value, and
 * for as long as the server can't be reached. A refusal is an answer: whoever shows what is known has to say so.
 */
export function useAnswer<T>(path: string, question: unknown, renewed?: unknown): Answer<T> | null {
  const [answer, setAnswer] = useState<Answer<T> | null>(null);
  const text = JSON.stringify(question);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when what it is about was renewed
  useEffect(() => {
    const calledOff = new AbortController();
    const once = async () => {
      const found = await ask<T>('POST', path, JSON.parse(text), calledOff.signal);
      setAnswer(found);
      if (!found.ok && found.status === 0) askIn(RETRY_MS);
    };
    let timer: ReturnType<typeof setTimeout>;
    const askIn = (ms: number) => {
      // What is called off is answered by nothing.
      timer = setTimeout(() => void once().catch(() => undefined), ms);
    };
    askIn(PAUSE_MS);
    return () => {
      clearTimeout(timer);
      calledOff.abort();
    };
  }, [path, text, renewed]);
  return answer;
}
