import { clsx } from 'clsx';
import type { ComponentProps } from 'react';

type Weight = 'main' | 'plain' | 'quiet';

const WEIGHTS: Record<Weight, string> = {
  main: 'bg-copper text-copper-ink border-copper hover:brightness-110 font-semibold',
  plain: 'bg-raised border-iron hover:border-copper hover:text-copper',
  quiet: 'border-transparent text-quiet hover:text-copper hover:bg-sunk',
};

const SIZES = { usual: 'px-2.5 py-1', small: 'p-1' };

interface ButtonProps extends ComponentProps<'button'> {
  readonly weight?: Weight;
  /** A small one holds a sign and stands in a row with others. */
  readonly size?: 'usual' | 'small';
}

/** A button. At most one on a surface is the main one. */
export function Button({ weight = 'plain', size = 'usual', className, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex items-center justify-center gap-1.5 whitespace-nowrap rounded-[3px] border leading-5 disabled:opacity-50',
        SIZES[size],
        WEIGHTS[weight],
        className,
      )}
      {...rest}
    />
  );
}
