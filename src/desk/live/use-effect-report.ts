'use client';
/** The effect of a policy, as it is being worked out: how far it is, the way to stop it, and the answer. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Policy } from '@/core';
import type { EffectReport } from '@/services';
import { askLines } from '../service';

export type EffectState =
  /** Under way; the last report is kept for as long as there is no newer one. */
  | { readonly kind: 'working'; readonly done: number; readonly last: EffectReport | null }
  | { readonly kind: 'report'; readonly report: EffectReport }
  | { readonly kind: 'stopped'; readonly last: EffectReport | null }
  | { readonly kind: 'refused'; readonly title: string };

type Line =
  | { readonly kind: 'progress'; readonly done: number }
  | { readonly kind: 'effect'; readonly report: EffectReport }
  | { readonly kind: 'wrong'; readonly problems: readonly { readonly message: string }[] }
  | { readonly kind: 'stopped' };

const PAUSE_MS = 150;

const lastOf = (now: EffectState): EffectReport | null =>
  now.kind === 'report' ? now.report : now.kind === 'refused' ? null : now.last;

/** Asks for the effect of a policy a moment after it stays as it is; `renewed` asks again when it changes. */
export function useEffectReport(
  policy: Policy,
  renewed: unknown,
): { readonly state: EffectState; readonly stop: () => void; readonly again: () => void } {
  const [state, setState] = useState<EffectState>({ kind: 'working', done: 0, last: null });
  const [turn, setTurn] = useState(0);
  const underWay = useRef<AbortController | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when what it is about was renewed
  useEffect(() => {
    const calledOff = new AbortController();
    underWay.current = calledOff;
    setState((now) => ({ kind: 'working', done: 0, last: lastOf(now) }));
    const timer = setTimeout(async () => {
      const onLine = (line: Line) => {
        if (calledOff.signal.aborted) return;
        if (line.kind === 'progress')
          setState((now) => ({ kind: 'working', done: line.done, last: lastOf(now) }));
        else if (line.kind === 'effect') setState({ kind: 'report', report: line.report });
        else if (line.kind === 'wrong')
          setState({ kind: 'refused', title: line.problems[0]?.message ?? 'The draft can’t be read.' });
      };
      const refusal = await askLines<Line>('effect', policy, onLine, calledOff.signal);
      if (refusal !== null && !calledOff.signal.aborted) setState({ kind: 'refused', title: refusal });
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      calledOff.abort();
    };
  }, [policy, renewed, turn]);

  return {
    state,
    stop: useCallback(() => {
      underWay.current?.abort();
      setState((now) => ({ kind: 'stopped', last: lastOf(now) }));
    }, []),
    again: useCallback(() => setTurn((now) => now + 1), []),
  };
}
