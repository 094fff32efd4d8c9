'use client';
import { type ItemId, isAddressed } from '@/core';
import { Pick } from '@/ui';
import { useDesk } from '../context';

interface PagePickProps {
  readonly label: string;
  readonly value: ItemId | '';
  /** What stands first, when nothing is picked yet. */
  readonly none?: string;
  readonly onPick: (item: ItemId) => void;
}

/** One of the site's pages and posts. */
export function PagePick({ label, value, none, onPick }: PagePickProps) {
  const { outline } = useDesk();
  const pages = [...outline.items.values()].flatMap((item) =>
    isAddressed(item) ? [{ value: item.id as string, label: `${item.title}  ${item.address}` }] : [],
  );
  return (
    <Pick
      label={label}
      value={value as string}
      options={[...(none === undefined ? [] : [{ value: '', label: none }]), ...pages]}
      onPick={(id) => id !== '' && onPick(id as ItemId)}
    />
  );
}
