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

/** Sends a change; when it is made, says so with a way back, and reads the desk's data again. */
export function useChange(): <T extends Changed>(
  method: string,
  path: string,
  body: unknown,
  told?: (value: T) => string,
) => Promise<Answer<T>> {
  const { refreshPeople } = useDesk();
  return useCallback(
    async (method, path, body, told) => {
      const answer = await ask<never>(method, path, body);
      if (!answer.ok) return answer;
      const value = answer.value as Changed;
      await refreshPeople();
      const undo = async () => {
        const back = await ask<Changed>('POST', 'people/undo', value.change);
        if (!back.ok) toast.error(back.title);
        else toast('Taken back.');
        await refreshPeople();
      };
      const text = told?.(answer.value) ?? value.summary ?? 'Done';
      toast.success(`${text}.`, { action: { label: 'Undo', onClick: () => void undo() }, duration: 10_000 });
      return answer;
    },
    [refreshPeople],
  );
}
