'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Analysis, Policy } from '@/core';
import type { DeskData } from '@/services';
import { followingIn } from '../context';
import type { AnalysedSite, AnalysisAnswer, AnalysisQuestion } from './analysis-worker';

const PAUSE_MS = 80;
/** The first one waits until the desk is there. */
const LONGEST_BUSY_MS = 1500;

/** What of the desk's data an analysis is made of: the same value as long as that is the same. */
export function useAnalysedSite({ items, names, byGroup, byProduct, onSale }: DeskData): AnalysedSite {
  return useMemo(
    () => ({
      items,
      names,
      following: followingIn({ byGroup, byProduct }),
      sold: new Set<string>(onSale.flatMap(({ product, terms }) => (terms.sold ? [product] : []))),
    }),
    [items, names, byGroup, byProduct, onSale],
  );
}

/**
 * What is certain of a policy, a moment after each change; the last answer until then, and null before the first. A worker
 * that is still at an older policy is ended: nobody waits for what is no longer asked.
 */
export function useAnalysis(policy: Policy | null, data: DeskData): Analysis | null {
  const [analysis, setAnalysis] = useState<Analysis | null>(null);
  const worker = useRef<Worker | null>(null);
  const told = useRef<unknown>(null);
  const number = useRef(0);
  const site = useAnalysedSite(data);
  const { today } = data.request;
  useEffect(() => {
    if (policy === null) return;
    const which = ++number.current;
    let answered = false;
    const end = () => {
      worker.current?.terminate();
      worker.current = null;
      told.current = null;
    };
    const begin = () => {
      worker.current ??= new Worker(new URL('./analysis-worker.ts', import.meta.url), { type: 'module' });
      worker.current.onmessage = ({ data: answer }: MessageEvent<AnalysisAnswer>) => {
        if (answer.number !== which) return;
        answered = true;
        setAnalysis(answer.analysis);
      };
      const question: AnalysisQuestion = {
        number: which,
        ...(told.current !== site && { site }),
        policy,
        today,
      };
      told.current = site;
      worker.current.postMessage(question);
    };
    let idle = 0;
    const timer = setTimeout(() => {
      if (which > 1) begin();
      else idle = requestIdleCallback(begin, { timeout: LONGEST_BUSY_MS });
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      if (idle > 0) cancelIdleCallback(idle);
      if (!answered) end();
    };
  }, [site, policy, today]);
  useEffect(() => () => worker.current?.terminate(), []);
  return analysis;
}
