'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Finding, Policy } from '@/core';
import { useDesk } from '../context';
import type { FindingsAnswer, FindingsQuestion } from './findings-worker';

const PAUSE_MS = 80;

/**
 * What is found about the gates of a policy, the draft's where nothing else is said, a moment after each change; the last answer until then, and none before the
 * first. A worker that is still at an older draft is ended: nobody waits for what is no longer asked.
 */
export function useFindings(of?: Policy): readonly Finding[] {
  const { data, draft, request } = useDesk();
  const policy = of ?? draft.policy;
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const worker = useRef<Worker | null>(null);
  const told = useRef<unknown>(null);
  const number = useRef(0);
  const { items, names } = data;
  const site = useMemo(() => ({ items, names }), [items, names]);
  const { today } = request;
  useEffect(() => {
    const which = ++number.current;
    let answered = false;
    const end = () => {
      worker.current?.terminate();
      worker.current = null;
      told.current = null;
    };
    const timer = setTimeout(() => {
      worker.current ??= new Worker(new URL('./findings-worker.ts', import.meta.url), { type: 'module' });
      worker.current.onmessage = ({ data: answer }: MessageEvent<FindingsAnswer>) => {
        if (answer.number !== which) return;
        answered = true;
        setFindings(answer.findings);
      };
      const question: FindingsQuestion = {
        number: which,
        ...(told.current !== site && { site }),
        policy,
        today,
      };
      told.current = site;
      worker.current.postMessage(question);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      if (!answered) end();
    };
  }, [site, policy, today]);
  useEffect(() => () => worker.current?.terminate(), []);
  return findings;
}
