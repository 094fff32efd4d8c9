'use client';
import { counted, type ProductTerms } from '@/core';
import type { ProductAtDesk, TermsPreview } from '@/services';
import { useAnswer } from '../use-answer';

/** So many lines stand there at once, what closes first. */
const SHOWN = 5;

/** What another choice of what it gives would do, over everybody who has it. */
export function WhatTermsWouldDo({
  product,
  terms,
}: {
  readonly product: ProductAtDesk;
  readonly terms: ProductTerms;
}) {
  const answer = useAnswer<{ readonly preview: TermsPreview }>('shop/terms', {
    product: product.product,
    version: product.version,
    terms,
  });
  if (!answer) return <p className="note">Looking what that would do …</p>;
  if (!answer.ok) return <p className="note">What that would do can’t be told: {answer.title}</p>;
  const { have, opens, closes } = answer.value.preview;
  const lines = [
    ...closes.map((one) => ({ verb: 'Closes' as const, ...one })),
    ...opens.map((one) => ({ verb: 'Opens' as const, ...one })),
  ];
  return (
    <section
      aria-label="What this would change"
      className="grid max-h-48 gap-1 overflow-y-auto border-copper border-l-3 pl-3"
    >
      <h3>What this would change</h3>
      {have === 0 ? (
        <p>Nobody has it today, so nothing opens and nothing closes.</p>
      ) : lines.length === 0 ? (
        <p>Nothing opens and nothing closes to the {counted(have, 'person', 'people')} who have it.</p>
      ) : (
        <>
          <Lines of={lines.slice(0, SHOWN)} />
          {lines.length > SHOWN && (
            <details>
              <summary className="text-quiet">{restOf(lines.slice(SHOWN))}</summary>
              <Lines of={lines.slice(SHOWN)} />
            </details>
          )}
        </>
      )}
    </section>
  );
}

type Line = TermsPreview['opens'][number] & { readonly verb: 'Opens' | 'Closes' };

/** "8 more", "8 more that close", "8 more, of which 3 close". */
function restOf(lines: readonly Line[]): string {
  const closing = lines.filter(({ verb }) => verb === 'Closes').length;
  const all = `${lines.length} more`;
  if (closing === 0) return all;
  const close = closing === 1 ? 'closes' : 'close';
  return closing === lines.length ? `${all} that ${close}` : `${all}, of which ${closing} ${close}`;
}

const Lines = ({ of }: { readonly of: readonly Line[] }) => (
  <ul>
    {of.map(({ verb, id, title, first, people }) => (
      <li key={id} className={verb === 'Closes' ? 'text-alarm' : undefined}>
        {verb} {title} to {first}
        {people > 1 && ` and ${counted(people - 1, 'other', 'others')}`}
      </li>
    ))}
  </ul>
);
