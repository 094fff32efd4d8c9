'use client';
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ItemId } from '@/core';
import type { ItemEdit } from '@/services';
import { useDesk } from '../context';
import { ask } from '../service';

interface Done {
  readonly item: ItemId;
  readonly removal: string | null;
  readonly summary: string;
}

interface Standing {
  readonly drafted: readonly ItemId[];
  readonly removals: readonly { readonly id: string; readonly summary: string }[];
}

/** Changing the site's items: what was done is shown at once, and taking away can be undone. */
export function useItems() {
  const { reloadSite, data } = useDesk();
  const [standing, setStanding] = useState<Standing>({ drafted: [], removals: [] });
  const look = useCallback(async () => {
    const answer = await ask<Standing>('GET', 'items');
    if (answer.ok) setStanding(answer.value);
  }, []);
  // Asked again whenever the site was read anew.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the data is what it is asked about
  useEffect(() => void look(), [look, data]);
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
        toast.error(answer.title);
        return null;
      }
      const { removal, summary, item } = answer.value;
      if (removal !== null)
        toast(summary, { action: { label: 'Undo', onClick: () => void bringBack(removal) } });
      await reloadSite();
      return item;
    },
    [reloadSite, bringBack],
  );
  return { ...standing, change, bringBack };
}
