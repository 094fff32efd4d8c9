'use client';
import { useEffect, useMemo, useState } from 'react';
import { type Kinds, type Outcome, representativesOf, type Witness } from '@/core';
import type { KindsReport, PeopledKind } from '@/services';
import { useDesk } from '../context';
import type { Answer } from '../service';
import { useAnswer } from '../use-answer';
import type { KindsQuestion } from './kinds-worker';
import { useAnalysedSite } from './use-analysis';

/** A kind of visitor as the desk shows it. */
export interface ShownKind {
  readonly key: string;
  readonly gets: readonly Outcome[];
  readonly who: Kinds['kinds'][number]['who'];
  readonly witness: Witness | null;
  /** Null for a kind that nobody is of now. */
  readonly peopled: PeopledKind | null;
}

export interface KindsShown {
  readonly answer: Answer<KindsReport> | null;
  /** Null while it is being worked out who they are. */
  readonly kinds: readonly ShownKind[] | null;
  readonly count: number | null;
}

/** The kinds of visitor under the draft, those that members are of first. */
export function useKinds(person: string | null): KindsShown {
  const { data, draft, request } = useDesk();
  const { policy } = draft;
  const answer = useAnswer<KindsReport>('kinds', { policy, person }, data);
  const site = useAnalysedSite(data);
  const peopled = answer?.ok ? answer.value.kinds : null;
  const [found, setFound] = useState<{ readonly of: unknown; readonly kinds: Kinds } | null>(null);
  useEffect(() => {
    if (peopled === null) return;
    const worker = new Worker(new URL('./kinds-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data: kinds }: MessageEvent<Kinds>) => setFound({ of: peopled, kinds });
    const question: KindsQuestion = { site, policy, request, wanted: peopled.map(({ gets }) => gets) };
    worker.postMessage(question);
    return () => worker.terminate();
  }, [peopled, site, policy, request]);
  const kinds = useMemo((): readonly ShownKind[] | null => {
    if (peopled === null || found?.of !== peopled) return null;
    return [
      ...peopled.map((one, at) => ({
        key: one.gets.join(),
        gets: one.gets,
        who: found.kinds.kinds[at]?.who ?? null,
        witness: found.kinds.kinds[at]?.witness ?? null,
        peopled: one,
      })),
      ...found.kinds.others.map((one) => ({ key: one.gets.join(), ...one, peopled: null })),
    ];
  }, [peopled, found]);
  return { answer, kinds, count: found?.kinds.count ?? null };
}

/** How many items stand behind each place of what a kind gets. */
export function useRepresentatives() {
  const { compiled } = useDesk();
  return useMemo(() => representativesOf(compiled.draft), [compiled.draft]);
}
