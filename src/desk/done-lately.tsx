/** What was done lately in one step, each with the way back. */
import { Button } from '@/ui';

interface DoneLatelyProps {
  readonly title: string;
  readonly list: readonly {
    readonly id: string;
    readonly at: string | Date;
    readonly by: string;
    readonly summary: string;
  }[];
  readonly onBack: (id: string) => void;
}

export function DoneLately({ title, list, onBack }: DoneLatelyProps) {
  if (list.length === 0) return null;
  return (
    <section className="kept mt-5">
      <h3>{title}</h3>
      <ul>
        {list.map(({ id, at, by, summary }) => (
          <li key={id} className="flex items-baseline gap-2 border-thin border-b py-1 last:border-b-0">
            <span className="min-w-0 flex-1">
              {summary}
              <span className="block text-quiet text-xs">
                {by}, {new Date(at).toLocaleString()}
              </span>
            </span>
            <Button weight="quiet" onClick={() => onBack(id)}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
