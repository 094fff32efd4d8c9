import { clsx } from 'clsx';

interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
}

/** Options under a heading of their own. */
export interface OptionGroup<T extends string> {
  readonly heading: string;
  readonly options: readonly Option<T>[];
}

interface PickProps<T extends string> {
  /** What is being picked, for those who can't see where it stands. */
  readonly label: string;
  readonly value: T;
  readonly options: readonly (Option<T> | OptionGroup<T>)[];
  readonly onPick: (value: T) => void;
  readonly className?: string;
}

/** One of a list that opens. The browser's own, which every keyboard and screen reader knows. */
export function Pick<T extends string>({ label, value, options, onPick, className }: PickProps<T>) {
  const known = options
    .flatMap((one) => ('options' in one ? one.options : [one]))
    .some((option) => option.value === value);
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => onPick(event.target.value as T)}
      className={clsx(
        'rounded-[3px] border border-iron bg-raised px-1.5 py-1 leading-5 hover:border-copper',
        className ?? 'max-w-full',
      )}
    >
      {!known && <option value={value}>no longer there</option>}
      {options.map((one) =>
        'options' in one ? (
          <optgroup key={one.heading} label={one.heading}>
            {one.options.map(optionOf)}
          </optgroup>
        ) : (
          optionOf(one)
        ),
      )}
    </select>
  );
}

const optionOf = ({ value, label }: Option<string>) => (
  <option key={value} value={value}>
    {label}
  </option>
);
