'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
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

/** What is certain of a policy, with the work on it. */
export interface AnalysisAtWork {
  /** The last answer, and null before the first. */
  readonly analysis: Analysis | null;
  /** Whether a newer one is being worked out, or was to be and is not. */
  readonly work: 'done' | 'going on' | 'stopped';
  readonly stop: () => void;
  readonly goOn: () => void;
}

/**
 * What is certain of a policy, a moment after each change; the last answer until then. A worker that is still at an older
 * policy is ended: nobody waits for what is no longer asked. One that takes too long can be stopped; the next change asks
 * anew.
 */
export function useAnalysis(policy: Policy | null, data: DeskData): AnalysisAtWork {
  const [analysis, setAnalysis] = useState<Analysis | null>(null);
  const worker = useRef<Worker | null>(null);
  const told = useRef<unknown>(null);
  const number = useRef(0);
  const site = useAnalysedSite(data);
  const { today } = data.request;
  // One value for each question.
  const question = useMemo(() => policy && { site, policy, today }, [site, policy, today]);
  const [answered, setAnswered] = useState<unknown>(null);
  const [stopped, setStopped] = useState<unknown>(null);
  const isStopped = question !== null && stopped === question;
  useEffect(() => {
    if (question === null || isStopped) return;
    const which = ++number.current;
    let done = false;
    const end = () => {
      worker.current?.terminate();
      worker.current = null;
      told.current = null;
    };
    const begin = () => {
      worker.current ??= new Worker(new URL('./analysis-worker.ts', import.meta.url), { type: 'module' });
      worker.current.onmessage = ({ data: answer }: MessageEvent<AnalysisAnswer>) => {
        if (answer.number !== which) return;
        done = true;
        setAnalysis(answer.analysis);
        setAnswered(question);
      };
      const { site: whole, ...asked } = question;
      const sent: AnalysisQuestion = {
        number: which,
        ...(told.current !== whole && { site: whole }),
        ...asked,
      };
      told.current = whole;
      worker.current.postMessage(sent);
    };
    let idle = 0;
    const timer = setTimeout(() => {
      if (which > 1) begin();
      else idle = requestIdleCallback(begin, { timeout: LONGEST_BUSY_MS });
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      if (idle > 0) cancelIdleCallback(idle);
      if (!done) end();
    };
  }, [question, isStopped]);
  useEffect(() => () => worker.current?.terminate(), []);
  const work = question === null || answered === question ? 'done' : isStopped ? 'stopped' : 'going on';
  const stop = useCallback(() => setStopped(question), [question]);
  const goOn = useCallback(() => setStopped(null), []);
  return useMemo(() => ({ analysis, work, stop, goOn }), [analysis, work, stop, goOn]);
}
