'use client';
import { useCallback, useRef } from 'react';
import type { Member } from '@/core';
import { ask } from './service';

/** A search for members as one types; an answer that comes after a later one was asked for is dropped. */
export function useMemberSearch(
  onFound: (members: readonly Member[]) => void,
): (text: string) => Promise<void> {
  const latest = useRef(0);
  return useCallback(
    async (text) => {
      const turn = ++latest.current;
      const answer = await ask<readonly Member[]>('GET', `members?q=${encodeURIComponent(text)}`);
      if (answer.ok && turn === latest.current) onFound(answer.value);
    },
    [onFound],
  );
}
