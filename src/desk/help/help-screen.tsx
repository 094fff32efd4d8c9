'use client';
/** The handbook, opened at the page of the screen that one came from. */
import { type MouseEvent, useEffect, useRef, useState } from 'react';
import type { HandbookPage } from '@/services';
import { useDesk } from '../context';
import { addressOfScreen } from '../screens';
import { type Answer, ask } from '../service';

const HERE = /^\/desk\/help\/([a-z]+)$/;

export function HelpScreen({ page }: { readonly page: string }) {
  const { setScreen } = useDesk();
  const [answer, setAnswer] = useState<Answer<readonly HandbookPage[]> | null>(null);
  const text = useRef<HTMLElement>(null);
  useEffect(() => {
    const calledOff = new AbortController();
    ask<readonly HandbookPage[]>('GET', 'help', undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, []);
  const pages = answer?.ok ? answer.value : [];
  const at = pages.findIndex(({ name }) => name === page);
  const shown = pages[Math.max(0, at)];
  const next = pages[Math.max(0, at) + 1];
  const go = (event: MouseEvent) => {
    const link = event.target instanceof Element ? event.target.closest('a') : null;
    const [, name] = HERE.exec(link?.getAttribute('href') ?? '') ?? [];
    // A new tab is the browser's business.
    if (name === undefined || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    setScreen({ kind: 'help', page: name });
    text.current?.scrollTo(0, 0);
  };
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[16rem_minmax(0,1fr)]">
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: it is links that are clicked, which have keys of their own */}
      <nav
        aria-label="Handbook"
        className="min-h-0 overflow-y-auto border-iron border-r px-4 py-5"
        onClick={go}
      >
        <h2 className="mb-2 text-xl">Handbook</h2>
        <ol className="grid gap-0.5">
          {pages.map(({ name, title }, number) => (
            <li key={name}>
              <a
                href={addressOfScreen({ kind: 'help', page: name }).path}
                aria-current={name === shown?.name ? 'page' : undefined}
                className="flex gap-2 rounded-[3px] px-2 py-1 hover:text-copper aria-[current]:bg-wash aria-[current]:font-semibold"
              >
                <span className="w-5 text-right text-quiet">{number + 1}</span> {title}
              </a>
            </li>
          ))}
        </ol>
      </nav>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: it is links that are clicked, which have keys of their own */}
      <section ref={text} aria-label="The page" className="min-h-0 overflow-y-auto px-8 py-6" onClick={go}>
        {answer && !answer.ok && (
          <p role="alert" className="text-alarm">
            {answer.title}
          </p>
        )}
        {shown && (
          <>
            {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own text, read like any author's */}
            <article className="handbook" dangerouslySetInnerHTML={{ __html: shown.html }} />
            {next && (
              <p className="mt-6">
                Next:{' '}
                <a
                  href={addressOfScreen({ kind: 'help', page: next.name }).path}
                  className="underline underline-offset-3 hover:text-copper"
                >
                  {next.title}
                </a>
              </p>
            )}
          </>
        )}
      </section>
    </main>
  );
}
