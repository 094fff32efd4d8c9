'use client';
/** Where a link or a button leads. */
import { type ItemId, isAddressed, type LinkTarget, pathOf } from '@/core';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';

interface TargetPickProps {
  readonly label: string;
  readonly target: LinkTarget;
  readonly onChange: (target: LinkTarget) => void;
}

export function TargetPick({ label, target, onChange }: TargetPickProps) {
  const { outline } = useDesk();
  const items = [...outline.items.values()].flatMap((item) => {
    const path = pathOf(item);
    return path === null
      ? []
      : [{ value: item.id as string, label: `${item.title}  ${isAddressed(item) ? path : 'file'}` }];
  });
  return (
    <>
      <Pick
        label={label}
        value={target.kind === 'item' ? target.item : target.kind}
        options={[
          { value: 'sign in', label: 'sign in' },
          { value: 'sign up', label: 'sign up' },
          { value: 'sign out', label: 'sign out' },
          { value: 'outside', label: 'an address elsewhere …' },
          ...items,
        ]}
        onPick={(value) =>
          onChange(
            value === 'sign in' || value === 'sign up' || value === 'sign out'
              ? { kind: value }
              : value === 'outside'
                ? { kind: 'outside', url: 'https://place.example/' }
                : { kind: 'item', item: value as ItemId },
          )
        }
      />
      {target.kind === 'outside' && (
        <Input
          label="Address elsewhere"
          value={target.url}
          maxLength={2000}
          onChange={(event) => onChange({ kind: 'outside', url: event.target.value })}
        />
      )}
    </>
  );
}
