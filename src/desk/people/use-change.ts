'use client';
/** Changes of people and names: made, told of, and taken back. */
import { useCallback } from 'react';
import { toast } from 'sonner';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';

interface Changed {
  readonly change: string;
  readonly summary?: string;
}

/** Takes a change back, and says whether it could be. */
export function useUndo(): (change: string) => Promise<void> {
  const { reloadSite } = useDesk();
  return useCallback(
    async (change) => {
      const answer = await ask<Changed>('POST', 'people/undo', change);
      if (!answer.ok) toast.error(answer.title);
      else toast('Taken back.');
      await reloadSite();
    },
    [reloadSite],
  );
}

/** Sends a change; when it is made, says so with a way back, and reads the desk's data again. */
export function useChange(): <T extends Changed>(
  method: string,
  path: string,
  body: unknown,
  told?: (value: T) => string,
) => Promise<Answer<T>> {
  const { reloadSite } = useDesk();
  const undo = useUndo();
  return useCallback(
    async (method, path, body, told) => {
      const answer = await ask<never>(method, path, body);
      if (!answer.ok) return answer;
      const value = answer.value as Changed;
      await reloadSite();
      const text = told?.(answer.value) ?? value.summary ?? 'Done';
      toast.success(`${text}.`, {
        action: { label: 'Undo', onClick: () => void undo(value.change) },
        duration: 10_000,
      });
      return answer;
    },
    [reloadSite, undo],
  );
}
