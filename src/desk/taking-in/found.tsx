'use client';
/** Everything that was found: the tree of pages with what is to be known of each, and what stays out. */
import { useState } from 'react';
import { counted } from '@/core';
import type { TakingReport } from '@/services';
import { Button, Choice } from '@/ui';
import { KindMark } from '../marks';

type Shown = 'all' | 'told' | 'out';

const FIRST = 200;

export function Found({ report: { pages, leftOut } }: { readonly report: TakingReport }) {
  const [chosen, setChosen] = useState<Shown>('all');
  const [most, setMost] = useState(FIRST);
  const told = pages.filter(({ notes }) => notes.length > 0);
  const shown =
    (chosen === 'told' && told.length === 0) || (chosen === 'out' && leftOut.length === 0) ? 'all' : chosen;
  const list = shown === 'told' ? told : pages;
  const rows = shown === 'out' ? leftOut.length : list.length;
  return (
    <section aria-label="What would come of it" className="flex min-h-0 flex-col">
      <div className="flex items-end justify-between gap-4 border-iron border-b px-6 py-3">
        <Choice
          label="What is shown"
          value={shown}
          options={[
            { value: 'all' as const, label: `Everything that comes (${pages.length})` },
            ...(told.length > 0
              ? [{ value: 'told' as const, label: `With something to be known (${told.length})` }]
              : []),
            ...(leftOut.length > 0
              ? [{ value: 'out' as const, label: `Stays out (${leftOut.length})` }]
              : []),
          ]}
          onChoose={setChosen}
        />
        {shown !== 'out' && <span className="note">Who can read it</span>}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-6 pb-6">
        {shown === 'out' ? (
          <ul aria-label="Stays out">
            {leftOut.slice(0, most).map(({ path, why }) => (
              <li key={`${path} ${why}`} className="border-thin border-b py-2">
                <span className="break-all">{path}</span>
                <span className="block text-quiet">{why}</span>
              </li>
            ))}
          </ul>
        ) : (
          <ul aria-label="What comes">
            {list.slice(0, most).map((page) => (
              <Page key={page.id} page={page} depth={shown === 'told' ? 0 : page.depth} />
            ))}
          </ul>
        )}
        {rows > most && (
          <Button weight="quiet" className="mt-2" onClick={() => setMost(most + 1000)}>
            {counted(rows - most, 'more', 'more')}
          </Button>
        )}
      </div>
    </section>
  );
}

const OPENS = {
  everybody: ['text-open', 'everybody'],
  some: ['', 'not guests'],
  nobody: ['text-quiet', 'nobody yet'],
} as const;

function Page({ page, depth }: { readonly page: TakingReport['pages'][number]; readonly depth: number }) {
  const { kind, title, address, from, opens, formerly, files, notes } = page;
  const [colour, who] = OPENS[opens];
  return (
    <li
      className="grid grid-cols-[minmax(0,1fr)_7rem] gap-x-4 border-thin border-b py-2"
      style={{ paddingLeft: `${Math.min(depth, 12) * 1.4}rem` }}
    >
      <div className="min-w-0">
        <p className="flex items-center gap-2">
          <KindMark kind={kind} />
          <strong className="truncate">{title}</strong>
          <span className="min-w-0 truncate text-quiet">{address}</span>
        </p>
        <p className="note truncate pl-5">
          {from === null ? 'made for the folder, empty' : from || 'its first page'}
          {files > 0 && `, with ${counted(files, 'file', 'files')}`}
          {formerly.length > 0 && `, also found at ${formerly.join(', ')}`}
        </p>
        {notes.length > 0 && (
          <ul className="mt-1 ml-5 grid gap-0.5 border-copper border-l-2 pl-3">
            {notes.map(({ line, message }) => (
              <li key={`${line} ${message}`}>
                {line !== null && <span className="text-quiet">Line {line}: </span>}
                {message}
              </li>
            ))}
          </ul>
        )}
      </div>
      <p className={`${colour} text-right`}>{who}</p>
    </li>
  );
}
