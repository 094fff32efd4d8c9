'use client';
/** The areas as the server knows them, and steps over them: made, told of, and taken back. */
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { AreaList } from '@/services';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';

/** The list of areas, read again whenever anything was changed; null before it is there for the first time. */
export function useAreas(): Answer<AreaList> | null {
  const { data } = useDesk();
  const [answer, setAnswer] = useState<Answer<AreaList> | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(() => {
    const calledOff = new AbortController();
    ask<AreaList>('GET', 'areas', undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, [data]);
  return answer;
}

interface StepMade {
  readonly step: string | null;
  readonly summary: string;
}

/** Takes a step back, and says whether it could be. */
export function useStepBack(): (step: string) => Promise<void> {
  const { reloadSite, draft } = useDesk();
  const { refresh } = draft;
  return useCallback(
    async (step) => {
      const answer = await ask<StepMade>('POST', 'areas/back', step);
      if (!answer.ok) toast.error(answer.title);
      else toast(`${answer.value.summary}.`);
      await Promise.all([reloadSite(), refresh()]);
    },
    [reloadSite, refresh],
  );
}

/** Makes a step; when it is made, says so with a way back, and reads everything again. */
export function useStep(): <T extends StepMade>(path: string, body: unknown) => Promise<Answer<T>> {
  const { reloadSite, draft } = useDesk();
  const { refresh } = draft;
  const back = useStepBack();
  return useCallback(
    async (path, body) => {
      const answer = await ask<never>('POST', path, body);
      // What was changed meanwhile is looked at again at once.
      if (!answer.ok && answer.status === 409) await Promise.all([reloadSite(), refresh()]);
      if (!answer.ok) return answer;
      const { step, summary } = answer.value as StepMade;
      await Promise.all([reloadSite(), refresh()]);
      toast.success(`${summary}.`, {
        ...(step !== null && { action: { label: 'Take back', onClick: () => void back(step) } }),
        duration: 10_000,
      });
      return answer;
    },
    [reloadSite, refresh, back],
  );
}
