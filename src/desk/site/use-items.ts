'use client';
import { useCallback, useEffect, useState } from 'react';
import type { ItemId } from '@/core';
import { useDesk } from '../context';
import { ask } from '../service';
import { useChangeItem } from '../use-change-item';

interface Standing {
  readonly drafted: readonly ItemId[];
  readonly removals: readonly { readonly id: string; readonly summary: string }[];
}

/** Changing the site's items, and how they stand: what is being written, and what was taken away lately. */
export function useItems() {
  const { data } = useDesk();
  const [standing, setStanding] = useState<Standing>({ drafted: [], removals: [] });
  const look = useCallback(async () => {
    const answer = await ask<Standing>('GET', 'items');
    if (answer.ok) setStanding(answer.value);
  }, []);
  // Asked again whenever the site was read anew.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the data is what it is asked about
  useEffect(() => void look(), [look, data]);
  return { ...standing, ...useChangeItem() };
}
