import type { ByHandPreview } from '@/services';

interface TitlesProps {
  /** "Opens", "Closes". */
  readonly verb: string;
  readonly items: ByHandPreview['opens'];
  readonly className?: string;
}

/** What opens or closes, each in a line of its own, for titles have commas in them. Nothing where there is none. */
export function Titles({ verb, items, className }: TitlesProps) {
  if (items.length === 0) return null;
  const [first] = items;
  if (first && items.length === 1)
    return (
      <p className={className}>
        {verb} {first.title}.
      </p>
    );
  return (
    <div className={className}>
      <p>
        {verb} {items.length}:
      </p>
      <ul className="list-disc pl-4">
        {items.map(({ id, title }) => (
          <li key={id}>{title}</li>
        ))}
      </ul>
    </div>
  );
}
