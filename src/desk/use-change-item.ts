'use client';
/** Changing the site's items: what was done is shown at once with the way back, and what opens something is asked about. */
import { useCallback } from 'react';
import { toast } from 'sonner';
import type { ItemId } from '@/core';
import type { ItemEdit } from '@/services';
import { useDesk } from './context';
import { ask } from './service';

interface Done {
  readonly item: ItemId;
  readonly removal: string | null;
  readonly summary: string;
  readonly undo?: ItemEdit;
}

/** What is said when something opens by a change and that is meant. */
const MEANT = { move: 'Move it', publish: 'Do it', remove: 'Take it away' } as const;

/** The item that was made or changed; null where nothing was. */
export type ChangeItem = (edit: ItemEdit) => Promise<ItemId | null>;

export function useChangeItem(): {
  readonly change: ChangeItem;
  readonly bringBack: (removal: string) => Promise<void>;
} {
  const { reloadSite } = useDesk();
  const bringBack = useCallback(
    async (removal: string): Promise<void> => {
      const answer = await ask<Done>('POST', 'items/back', removal);
      if (!answer.ok) toast.error(answer.title);
      else toast(answer.value.summary);
      await reloadSite();
    },
    [reloadSite],
  );
  const change = useCallback(
    async (edit: ItemEdit): Promise<ItemId | null> => {
      const answer = await ask<Done>('POST', 'items', edit);
      if (!answer.ok) {
        if ((edit.kind === 'move' || edit.kind === 'publish' || edit.kind === 'remove') && answer.body.opens)
          toast(answer.title, {
            duration: Number.POSITIVE_INFINITY,
            cancel: { label: 'Leave it', onClick: () => {} },
            action: { label: MEANT[edit.kind], onClick: () => void change({ ...edit, leaving: true }) },
          });
        else toast.error(answer.title);
        return null;
      }
      const { removal, summary, item, undo } = answer.value;
      const back = removal !== null ? () => bringBack(removal) : undo && (() => change(undo));
      if (back) toast(summary, { action: { label: 'Undo', onClick: () => void back() } });
      else if (edit.kind === 'move') toast(summary);
      await reloadSite();
      return item;
    },
    [reloadSite, bringBack],
  );
  return { change, bringBack };
}
