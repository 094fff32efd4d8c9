import { clsx } from 'clsx';
import type { ComponentProps } from 'react';

interface InputProps extends ComponentProps<'input'> {
  readonly label: string;
}

/** A one-line input named for those who can't see where it stands. */
export function Input({ label, className, ...rest }: InputProps) {
  return (
    <input
      aria-label={label}
      className={clsx(
        'min-w-0 rounded-[3px] border border-iron bg-raised px-1.5 py-1 leading-5 hover:border-copper aria-invalid:border-alarm',
        className,
      )}
      {...rest}
    />
  );
}
