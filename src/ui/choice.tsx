import { clsx } from 'clsx';
import { ToggleGroup } from 'radix-ui';
import type { ReactNode } from 'react';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T | null;
  readonly options: readonly { readonly value: T; readonly label: ReactNode; readonly title?: string }[];
  readonly onChoose: (value: T) => void;
  /** Options that may wrap to several lines stand apart; a short row stands joined. */
  readonly apart?: boolean;
}

/** One of a few, all in view. */
export function Choice<T extends string>({ label, value, options, onChoose, apart = false }: ChoiceProps<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value ?? ''}
      onValueChange={(next) => next && onChoose(next as T)}
      className={
        apart ? 'flex flex-wrap gap-1.5' : 'inline-flex overflow-clip rounded-[3px] border border-iron'
      }
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          title={option.title}
          className={clsx(
            'inline-flex items-center gap-1.5 px-2.5 py-1 leading-5 hover:text-copper',
            'data-[state=on]:bg-ink data-[state=on]:text-paper [&[data-state=on]_svg]:text-paper',
            apart
              ? 'rounded-full border border-iron data-[state=on]:border-ink'
              : 'border-iron not-first:border-l',
          )}
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
