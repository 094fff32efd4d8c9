'use client';
/** Every decision of the board, worked out by a worker: for filters, counts and what goes out as a table. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { type ItemId, keyOfStandIn, type Matrix, standInFacts } from '@/core';
import { useDesk } from '../context';
import type { BoardAnswer, BoardQuestion } from './board-worker';

export interface BoardMatrix {
  readonly matrix: Matrix;
  /** The row of an item. */
  readonly rowOf: ReadonlyMap<ItemId, number>;
  /** The column of a stand-in, by key. */
  readonly columnOf: ReadonlyMap<string, number>;
}

/** The decisions for what the board shows now; the last ones until those are there, and null before the first. */
export function useMatrix(): BoardMatrix | null {
  const { data, draft, standIns, request } = useDesk();
  const worker = useRef<Worker | null>(null);
  const told = useRef<{ -readonly [K in keyof BoardQuestion]?: unknown } & { items?: unknown }>({});
  const number = useRef(0);
  const asked = useRef(new Map<number, Omit<BoardMatrix, 'matrix'>>());
  const [answer, setAnswer] = useState<BoardMatrix | null>(null);
  const columnOf = useMemo(
    () => new Map(standIns.map((one, column) => [keyOfStandIn(one), column])),
    [standIns],
  );
  const rowOf = useMemo(() => new Map(data.items.map(({ id }, row) => [id, row])), [data.items]);

  useEffect(() => {
    const made = new Worker(new URL('./board-worker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data: { number: which, matrix } }: MessageEvent<BoardAnswer>) => {
      const about = asked.current.get(which);
      asked.current.delete(which);
      // An answer to an older question would take the board back.
      if (about && which === number.current) setAnswer({ matrix, ...about });
    };
    worker.current = made;
    told.current = {};
    return () => made.terminate();
  }, []);

  const { live, policy } = draft;
  useEffect(() => {
    const known = told.current;
    const site = known.items !== data.items || known.site !== data.names;
    const question: BoardQuestion = {
      number: ++number.current,
      ...(site && { site: { items: data.items, names: data.names } }),
      ...((site || known.draft !== policy) && { draft: policy }),
      ...((site || known.live !== live.policy) && { live: live.policy }),
      visitors: standIns.map(standInFacts),
      request,
    };
    told.current = { items: data.items, site: data.names, draft: policy, live: live.policy };
    asked.current.set(question.number, { rowOf, columnOf });
    worker.current?.postMessage(question);
  }, [data.items, data.names, policy, live.policy, standIns, request, rowOf, columnOf]);

  return answer;
}
