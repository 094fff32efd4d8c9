'use client';
import { useEffect, useState } from 'react';
import type { Expectation, ExpectationId, Policy } from '@/core';
import { useDesk } from '../context';
import type { ExpectationsQuestion } from './expectations-worker';
import { useAnalysedSite } from './use-analysis';

/** For each of some policies what is expected of the draft, and stands, and would no longer; null until that is known. */
export function useBreaks(policies: readonly Policy[]): readonly (readonly Expectation[])[] | null {
  const { data, draft, request } = useDesk();
  const site = useAnalysedSite(data);
  const { policy } = draft;
  const { today } = request;
  const [found, setFound] = useState<{
    readonly of: readonly Policy[];
    readonly broken: readonly (readonly ExpectationId[])[];
  } | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('./expectations-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data: broken }: MessageEvent<readonly (readonly ExpectationId[])[]>) =>
      setFound({ of: policies, broken });
    const question: ExpectationsQuestion = { site, policies: [policy, ...policies], today };
    worker.postMessage(question);
    return () => worker.terminate();
  }, [site, policy, policies, today]);
  if (found?.of !== policies) return null;
  const [now, ...then] = found.broken;
  return then.map((broken) =>
    policy.expectations.filter(({ id }) => broken.includes(id) && !now?.includes(id)),
  );
}
