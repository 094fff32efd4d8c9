/** A letter as it arrives, filled in with examples. */
import { useState } from 'react';
import { exampleOf, filledLetter, type LetterKind, type LetterTemplate, namesIn, paragraphsOf } from '@/core';
import { Tick } from '@/ui';
import { useDesk } from '../context';

interface PreviewProps {
  readonly kind: LetterKind;
  readonly letter: LetterTemplate;
  /** What the site is called. */
  readonly site: string;
}

export function LetterPreview({ kind, letter, site }: PreviewProps) {
  const { data } = useDesk();
  const [whole, setWhole] = useState(true);
  const names = Object.entries(namesIn(kind));
  const example = exampleOf(kind, { site, origin: window.location.origin, by: data.administrator });
  const left = names.flatMap(([name, { sometimes }]) => (sometimes && !whole ? [[name, '']] : []));
  // What is no name stays as it was written, for one to see.
  const wrong = [...`${letter.subject}\n${letter.text}`.matchAll(/\{([a-z]+)\}/g)].map(([all, name]) => [
    name,
    all,
  ]);
  const { subject, text } = filledLetter(letter, {
    ...Object.fromEntries(wrong),
    ...example,
    ...Object.fromEntries(left),
  });
  return (
    <section
      aria-label="How it arrives"
      className="min-h-0 overflow-y-auto border-iron border-l bg-sunk px-6 py-5"
    >
      <h3 className="text-quiet">How it arrives</h3>
      {names.some(([, { sometimes }]) => sometimes) && (
        <div className="mt-2">
          <Tick checked={whole} onChange={setWhole}>
            with everything that is not in all
          </Tick>
        </div>
      )}
      <article className="mt-3 rounded-[3px] border border-thin bg-raised">
        <header className="grid gap-0.5 border-thin border-b px-5 py-3">
          <p className="note">
            {site} · to {data.administrator}
          </p>
          <p className="font-semibold text-base">{subject || '(no subject)'}</p>
        </header>
        <div className="grid gap-3 px-5 py-4 font-[Georgia,serif] text-base leading-relaxed">
          {paragraphsOf(text).map((parts, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: paragraphs of one text
            <p key={at} className="whitespace-pre-line break-words">
              {parts.map((part, place) =>
                place % 2 === 0 ? (
                  part
                ) : (
                  // biome-ignore lint/suspicious/noArrayIndexKey: parts of one text
                  <span key={place} className="text-copper underline">
                    {part}
                  </span>
                ),
              )}
            </p>
          ))}
        </div>
      </article>
    </section>
  );
}
