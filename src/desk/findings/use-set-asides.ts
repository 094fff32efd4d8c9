'use client';
import { useCallback, useMemo, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { aboutOf, type Finding, keyOfFinding, same } from '@/core';
import type { FindingSetAside } from '@/services';
import { useDesk } from '../context';
import { ask } from '../service';

// One list for the whole desk: gates, findings and what goes live all leave out what is set aside.
let known: readonly FindingSetAside[] | null = null;
let asked = false;
const listeners = new Set<() => void>();

async function read(): Promise<void> {
  asked = true;
  const answer = await ask<readonly FindingSetAside[]>('GET', 'findings');
  if (!answer.ok) {
    asked = false;
    return;
  }
  known = answer.value;
  for (const listener of listeners) listener();
}

const listen = (listener: () => void) => {
  listeners.add(listener);
  if (!asked) void read();
  return () => void listeners.delete(listener);
};

export interface SetAsides {
  /** What was noted of a finding, as long as what it is about is the same. */
  readonly of: (finding: Finding) => FindingSetAside | null;
  readonly isAside: (finding: Finding) => boolean;
  /** Sets a finding aside with a reason, or brings it back; answers whether that went well. */
  readonly put: (finding: Finding, reason: string | null) => Promise<boolean>;
}

export function useSetAsides(): SetAsides {
  const { draft } = useDesk();
  const { policy } = draft;
  const list = useSyncExternalStore(
    listen,
    () => known,
    () => null,
  );
  const of = useCallback(
    (finding: Finding) => {
      const key = keyOfFinding(finding);
      const found = list?.find((one) => one.finding === key);
      return found && same(found.about, aboutOf(finding, policy)) ? found : null;
    },
    [list, policy],
  );
  return useMemo(
    () => ({
      of,
      isAside: (finding) => of(finding) !== null,
      put: async (finding, reason) => {
        const about = aboutOf(finding, policy);
        const answer = await ask('POST', 'findings', { finding: keyOfFinding(finding), about, reason });
        if (!answer.ok) toast.error(answer.title);
        await read();
        return answer.ok;
      },
    }),
    [of, policy],
  );
}
