'use client';
/** What whoever has just begun does first: each a step away, until all of it is done or they want no more of it. */
import { Check, X } from 'lucide-react';
import { useState } from 'react';
import { permits } from '@/core';
import { Button } from '@/ui';
import { useDesk } from './context';
import type { Screen } from './screens';

const LEFT = 'first steps left';

// A browser may keep nothing for anybody; then they are there again next time.
function wereLeft(): boolean {
  try {
    return localStorage.getItem(LEFT) !== null;
  } catch {
    return false;
  }
}

function leave(): void {
  try {
    localStorage.setItem(LEFT, '');
  } catch {}
}

export function FirstSteps() {
  const { data, outline, setScreen } = useDesk();
  const [left, setLeft] = useState(wereLeft);
  const { firstSteps: steps } = data;
  if (!steps || left || !permits(data.desk, 'everything')) return null;
  const home = [...outline.addressed.values()].find(({ address }) => address === '/');
  const list: readonly { readonly done: boolean; readonly says: string; readonly to: Screen }[] = [
    {
      done: steps.written,
      says: 'Say on the first page what the site is',
      to: { kind: 'site', item: home?.id ?? null },
    },
    { done: steps.settled, says: 'Give it its words and its colours', to: { kind: 'settings' } },
    {
      done: steps.peopled,
      says: 'Write somebody down, and invite them',
      to: { kind: 'person', person: null },
    },
  ];
  if (list.every(({ done }) => done)) return null;
  return (
    <section aria-labelledby="first-steps" className="mb-5 border-copper border-l-3 py-1 pl-4">
      <header className="flex items-center justify-between">
        <h3 id="first-steps" className="font-head">
          First steps
        </h3>
        <Button
          weight="quiet"
          size="small"
          aria-label="No more first steps"
          onClick={() => {
            leave();
            setLeft(true);
          }}
        >
          <X size={15} aria-hidden="true" />
        </Button>
      </header>
      <ol className="mt-1 grid gap-1">
        {list.map(({ done, says, to }) => (
          <li key={says} className="flex items-center gap-2">
            <span
              aria-hidden="true"
              className="grid size-4 place-items-center rounded-full border border-iron"
            >
              {done && <Check size={11} />}
            </span>
            <button
              type="button"
              onClick={() => setScreen(to)}
              className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
            >
              {says}
              {done && <span className="sr-only">, done</span>}
            </button>
          </li>
        ))}
        <li className="flex items-center gap-2">
          <span aria-hidden="true" className="size-4 rounded-full border border-iron" />
          Put them beside the guest with + and see what each gets
        </li>
      </ol>
    </section>
  );
}
