'use client';
/** Who has which seat of a product, for whoever stands at the door. */
import { useEffect, useState } from 'react';
import { counted } from '@/core';
import type { SeatHolder } from '@/services';
import { Download } from '@/ui';
import { type Answer, ask } from '../service';

interface SeatsProps {
  readonly product: string;
  /** Read again when it is another value. */
  readonly renewed: unknown;
  readonly onChoose: (order: string) => void;
}

/** Nothing where there are no seats. */
export function SeatList({ product, renewed, onChoose }: SeatsProps) {
  const [answer, setAnswer] = useState<Answer<readonly SeatHolder[]> | null>(null);
  const path = `sales/seats/${encodeURIComponent(product)}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(() => {
    const calledOff = new AbortController();
    ask<readonly SeatHolder[]>('GET', path, undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, [path, renewed]);
  const seats = answer?.ok ? answer.value : [];
  if (seats.length === 0) return null;
  return (
    <details className="mt-4 border-iron border-l-3 pl-3">
      <summary>Who has a seat: {counted(seats.length, 'person', 'people')}</summary>
      <ol className="mt-1 columns-2 gap-8">
        {seats.map(({ number, order, name, email, paid }) => (
          <li key={number} className="grid break-inside-avoid grid-cols-[2rem_minmax(0,1fr)] py-0.5">
            <span className="text-quiet">{number}</span>
            <button type="button" className="text-left hover:text-copper" onClick={() => onChoose(order)}>
              {name} <span className="note">{paid ? email : 'is paying just now'}</span>
            </button>
          </li>
        ))}
      </ol>
      <p className="mt-1">
        <Download href={`/desk/api/${path}/csv`} download>
          The seats as a table (CSV)
        </Download>
      </p>
    </details>
  );
}
