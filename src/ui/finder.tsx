'use client';
import { clsx } from 'clsx';
import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { useWaitingEnter } from './use-waiting-enter';

/** Something that can be found by typing. */
export interface Findable {
  readonly key: string;
  readonly label: string;
  readonly note?: string;
  /** Something to do rather than something found: Enter never comes to it by waiting. */
  readonly action?: boolean;
}

interface FinderProps<T extends Findable> {
  readonly trigger: ReactNode;
  readonly label: string;
  readonly placeholder: string;
  readonly found: readonly T[];
  readonly nothing: string;
  /** For entries that are sentences. */
  readonly wide?: boolean;
  /** Called as one types, by finders whose results come from elsewhere, until they are there; others are searched here. */
  readonly onType?: (text: string) => Promise<void>;
  readonly onChoose: (chosen: T) => void;
}

/** A button that opens a list to be searched by typing. */
export function Finder<T extends Findable>(props: FinderProps<T>) {
  const { trigger, label, placeholder, found, nothing, wide = false, onType, onChoose } = props;
  const [open, setOpen] = useState(false);
  const { type, ref, onKeyDownCapture } = useWaitingEnter(onType);
  const change = (next: boolean) => {
    setOpen(next);
    if (next) type('');
  };
  return (
    <Popover.Root open={open} onOpenChange={change}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className={clsx(
            'z-30 rounded-[4px] border border-iron bg-raised shadow-[0_6px_24px_rgb(0_0_0/0.18)]',
            wide ? 'w-[34rem]' : 'w-72',
          )}
        >
          <Command
            ref={ref}
            onKeyDownCapture={onKeyDownCapture}
            label={label}
            shouldFilter={!onType}
            filter={allWords}
            loop
          >
            <FinderList
              placeholder={placeholder}
              found={found}
              nothing={nothing}
              {...(onType && { onType: type })}
              onChoose={(chosen) => {
                setOpen(false);
                onChoose(chosen);
              }}
            />
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface ListProps<T extends Findable> {
  readonly placeholder: string;
  readonly found: readonly T[];
  readonly nothing: string;
  readonly onType?: (text: string) => void;
  readonly onChoose: (chosen: T) => void;
}

function FinderList<T extends Findable>({ placeholder, found, nothing, onType, onChoose }: ListProps<T>) {
  return (
    <>
      <Command.Input
        autoFocus
        placeholder={placeholder}
        {...(onType && { onValueChange: onType })}
        className="w-full border-b border-thin bg-transparent px-3 py-2 outline-none placeholder:text-quiet"
      />
      <Command.List className="max-h-72 overflow-y-auto p-1">
        <Command.Empty className="px-2 py-3 text-quiet">{nothing}</Command.Empty>
        {found.map((one) => (
          <Command.Item
            key={one.key}
            value={`${one.label} ${one.note ?? ''} ${one.key}`}
            onSelect={() => onChoose(one)}
            data-action={one.action || undefined}
            className="flex cursor-pointer items-baseline justify-between gap-3 rounded-[3px] px-2 py-1.5 data-[selected=true]:bg-wash"
          >
            <span>{one.label}</span>
            {one.note && <span className="truncate text-quiet text-xs">{one.note}</span>}
          </Command.Item>
        ))}
      </Command.List>
    </>
  );
}

/** Every word that is typed has to be somewhere in the entry, whatever the case. */
const allWords = (entry: string, typed: string): number => {
  const text = entry.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
    ? 1
    : 0;
};

interface PaletteProps<T extends Findable> {
  /** Called as one types, for entries that come from elsewhere, until they are there. */
  readonly onType: (text: string) => Promise<void>;
  readonly onOpenChange: (open: boolean) => void;
  readonly groups: readonly { readonly heading: string; readonly entries: readonly T[] }[];
  readonly onChoose: (chosen: T) => void;
}

/** Everything there is, found by typing. */
export function Palette<T extends Findable>({ onOpenChange, onType, groups, onChoose }: PaletteProps<T>) {
  const { type, ref, onKeyDownCapture } = useWaitingEnter(onType);
  return (
    <Command.Dialog
      ref={ref}
      onKeyDownCapture={onKeyDownCapture}
      open
      onOpenChange={onOpenChange}
      label="Find or do"
      loop
      filter={allWords}
      overlayClassName="fixed inset-0 z-40 bg-black/30"
      contentClassName="fixed left-1/2 top-24 z-50 w-[36rem] -translate-x-1/2 rounded-[4px] border border-iron bg-raised shadow-[0_12px_48px_rgb(0_0_0/0.3)]"
    >
      <Command.Input
        placeholder="A page, a person, a gate, or something to do"
        onValueChange={type}
        className="w-full border-b border-thin bg-transparent px-4 py-3 text-base outline-none placeholder:text-quiet"
      />
      <Command.List className="max-h-96 overflow-y-auto p-2">
        <Command.Empty className="px-2 py-4 text-quiet">Nothing here by that name.</Command.Empty>
        {groups.map((group) => (
          <Command.Group
            key={group.heading}
            heading={group.heading}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-quiet [&_[cmdk-group-heading]]:text-xs"
          >
            {group.entries.map((entry) => (
              <Command.Item
                key={entry.key}
                value={`${entry.label} ${entry.note ?? ''} ${entry.key}`}
                onSelect={() => {
                  onOpenChange(false);
                  onChoose(entry);
                }}
                className="flex cursor-pointer items-baseline justify-between gap-4 rounded-[3px] px-2 py-1.5 data-[selected=true]:bg-wash"
              >
                <span>{entry.label}</span>
                {entry.note && <span className="truncate text-quiet text-xs">{entry.note}</span>}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
