'use client';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

/** A button that opens a short list of things to do. */
export function Menu({ trigger, children }: { readonly trigger: ReactNode; readonly children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={2}
          collisionPadding={8}
          className="z-30 min-w-48 rounded-[4px] border border-iron bg-raised p-1 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function Entry({
  children,
  onSelect,
}: {
  readonly children: ReactNode;
  readonly onSelect: () => void;
}) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-pointer rounded-[3px] px-2 py-1.5 outline-none data-[highlighted]:bg-wash"
    >
      {children}
    </DropdownMenu.Item>
  );
}
