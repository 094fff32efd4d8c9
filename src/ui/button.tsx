import { clsx } from 'clsx';
import type { ComponentProps } from 'react';

type Weight = 'main' | 'plain' | 'quiet';

const WEIGHTS: Record<Weight, string> = {
  main: 'bg-copper text-copper-ink border-copper hover:brightness-110 font-semibold',
  plain: 'bg-raised border-iron hover:border-copper hover:text-copper',
  quiet: 'border-transparent text-quiet hover:text-copper hover:bg-sunk',
};

interface ButtonProps extends ComponentProps<'button'> {
  readonly weight?: Weight;
}

/** A button. At most one on a surface is the main one. */
export function Button({ weight = 'plain', className, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex items-center justify-center gap-1.5 rounded-[3px] border px-2.5 py-1 leading-5 disabled:opacity-50',
        WEIGHTS[weight],
        className,
      )}
      {...rest}
    />
  );
}
