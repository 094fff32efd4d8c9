import type { ReactNode } from 'react';

interface TickProps {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly children: ReactNode;
}

/** A box to be ticked, with what it says. */
export const Tick = ({ checked, onChange, children }: TickProps) => (
  <label className="flex items-baseline gap-2">
    <input
      type="checkbox"
      className="accent-copper"
      checked={checked}
      onChange={({ target }) => onChange(target.checked)}
    />
    <span>{children}</span>
  </label>
);
