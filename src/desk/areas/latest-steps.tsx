'use client';
/** What was done to areas lately, each with the way back. */
import type { AreaList } from '@/services';
import { Button } from '@/ui';
import { useStepBack } from './use-areas';

export function LatestSteps({ steps }: { readonly steps: AreaList['steps'] }) {
  const back = useStepBack();
  if (steps.length === 0) return null;
  return (
    <section className="kept mt-5">
      <h3>Done lately</h3>
      <ul>
        {steps.map(({ id, at, by, summary }) => (
          <li key={id} className="flex items-baseline gap-2 border-thin border-b py-1 last:border-b-0">
            <span className="min-w-0 flex-1">
              {summary}
              <span className="block text-quiet text-xs">
                {by}, {new Date(at).toLocaleString()}
              </span>
            </span>
            <Button weight="quiet" onClick={() => void back(id)}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
