'use client';
/** What is being taken in: sent, looked at again whenever something changes, and put on the site. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { Outline } from '@/core';
import type { TakingAnswer, TakingProgress, TakingReport } from '@/services';
import { useDesk } from '../context';
import { ask, askLines, sendBytes } from '../service';

/** How what was found is to come in. */
export interface Wishes {
  readonly above: string;
  readonly posts: boolean;
  readonly published: boolean;
  readonly first: boolean;
  readonly menu: string | null;
}

export type WebAsked = { readonly sitemap: string; readonly begins: string };

export type Step =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'packing'; readonly files: number }
  | { readonly kind: 'sending'; readonly part: number }
  | { readonly kind: 'working'; readonly progress: TakingProgress | null; readonly making: boolean }
  | { readonly kind: 'looked' };

export interface Taking {
  readonly step: Step;
  readonly report: TakingReport | null;
  readonly problem: string | null;
  readonly wishes: Wishes;
  readonly wish: (change: Partial<Wishes>) => void;
  readonly send: (pack: () => Promise<Blob>, name: string, files: number) => Promise<void>;
  readonly readWeb: (asked: WebAsked) => void;
  readonly stop: () => void;
  readonly leave: () => void;
  /** Puts it on the site; tells whether it is there. */
  readonly make: () => Promise<boolean>;
}

type Line = ({ readonly kind: 'progress' } & TakingProgress) | TakingAnswer;

/** What was sent stays while one looks at other screens. */
let kept: { readonly source: string; readonly wishes: Wishes } | null = null;

const LARGEST = 300_000_000;
const FEW_PAGES = 3;

/** A site that has hardly begun gets its menu with its pages. */
const menuAtFirst = ({ items, addressed }: Outline): string | null =>
  addressed.size > FEW_PAGES
    ? null
    : ([...items.values()].find((item) => item.kind === 'menu' && item.place === 'top')?.id ?? null);

export function useTaking(): Taking {
  const { data, outline, draft, reloadSite } = useDesk();
  const [source, setSource] = useState(kept?.source ?? null);
  const [wishes, setWishes] = useState<Wishes>(
    () =>
      kept?.wishes ?? {
        above: outline.root,
        posts: true,
        published: true,
        first: true,
        menu: menuAtFirst(outline),
      },
  );
  const [step, setStep] = useState<Step>({ kind: 'nothing' });
  const [report, setReport] = useState<TakingReport | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const underWay = useRef<AbortController | null>(null);

  const begin = (): AbortSignal => {
    underWay.current?.abort();
    underWay.current = new AbortController();
    setProblem(null);
    return underWay.current.signal;
  };

  const forget = useCallback(() => {
    kept = null;
    setSource(null);
    setReport(null);
    setStep({ kind: 'nothing' });
  }, []);

  /** Asks, and answers the last line; null when it was called off. */
  const asked = useCallback(
    async (from: string | WebAsked, wished: Wishes, basis: string | null, signal: AbortSignal) => {
      let last: TakingAnswer | null = null;
      setStep({ kind: 'working', progress: null, making: basis !== null });
      const refusal = await askLines<Line>(
        'taking-in',
        { source: from, wishes: wished, basis },
        (line) => {
          if (signal.aborted) return;
          if (line.kind === 'progress') {
            const { kind: _, ...progress } = line;
            setStep({ kind: 'working', progress, making: basis !== null });
          } else last = line;
        },
        signal,
      );
      if (signal.aborted) return null;
      return (last ?? {
        kind: 'wrong',
        message: refusal ?? 'The answer broke off. Try again.',
      }) as TakingAnswer;
    },
    [],
  );

  const look = useCallback(
    async (from: string | WebAsked, wished: Wishes, signal: AbortSignal) => {
      const answer = await asked(from, wished, null, signal);
      if (!answer) return;
      if (answer.kind === 'report') {
        kept = { source: answer.source, wishes: wished };
        setSource(answer.source);
        setReport(answer.report);
        setStep({ kind: 'looked' });
      } else if (answer.kind === 'gone') {
        forget();
        setProblem(answer.message);
      } else {
        setReport(null);
        setStep(typeof from === 'string' ? { kind: 'looked' } : { kind: 'nothing' });
        if ('message' in answer) setProblem(answer.message);
      }
    },
    [asked, forget],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at when something else is held, or wished
  useEffect(() => {
    if (source !== null) void look(source, wishes, begin());
  }, [source, wishes]);
  // Looked at again when the site was changed; while it is read for the first time, that begins no second reading.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the data is what it is about
  useEffect(() => {
    if (source !== null && report !== null) void look(source, wishes, begin());
  }, [data]);
  useEffect(() => () => underWay.current?.abort(), []);

  return {
    step,
    report,
    problem,
    wishes,
    wish: (change) => setWishes({ ...wishes, ...change }),
    send: async (pack, name, files) => {
      const signal = begin();
      setReport(null);
      setSource(null);
      setStep({ kind: 'packing', files });
      try {
        const blob = await pack();
        if (signal.aborted) return;
        if (blob.size > LARGEST) {
          setStep({ kind: 'nothing' });
          setProblem(
            `That has ${Math.ceil(blob.size / 1_000_000)} MB, and at most ${LARGEST / 1_000_000} are taken in at once. Send it in parts.`,
          );
          return;
        }
        setStep({ kind: 'sending', part: 0 });
        const sent = await sendBytes<{ readonly source: string }>(
          `taking-in/folder?name=${encodeURIComponent(name)}`,
          blob,
          (part) => setStep({ kind: 'sending', part }),
          signal,
        );
        if (signal.aborted) return;
        if (sent.ok) setSource(sent.value.source);
        else {
          setStep({ kind: 'nothing' });
          setProblem(sent.title);
        }
      } catch {
        setStep({ kind: 'nothing' });
        setProblem('That could not be read here. Choose it again.');
      }
    },
    readWeb: (web) => {
      setReport(null);
      setSource(null);
      void look(web, wishes, begin());
    },
    stop: () => {
      underWay.current?.abort();
      setStep(source === null ? { kind: 'nothing' } : { kind: 'looked' });
    },
    leave: () => {
      underWay.current?.abort();
      setProblem(null);
      forget();
    },
    make: async () => {
      if (source === null || !report) return false;
      const answer = await asked(source, wishes, report.basis, begin());
      if (!answer) return false;
      if (answer.kind === 'taken') {
        forget();
        await Promise.all([reloadSite(), draft.refresh()]);
        toast.success(`${answer.summary}.`, {
          action: {
            label: 'Take back',
            onClick: () => void takeBack(answer.taking, reloadSite, draft.refresh),
          },
          duration: 10_000,
        });
        return true;
      }
      setStep({ kind: 'looked' });
      if (answer.kind === 'stale' || answer.kind === 'gone')
        await Promise.all([reloadSite(), draft.refresh()]);
      if ('message' in answer) setProblem(answer.message);
      return false;
    },
  };
}

/** Takes back what was taken in, and says whether that could be. */
export async function takeBack(
  taking: string,
  reloadSite: () => Promise<void>,
  refresh: () => Promise<unknown>,
): Promise<void> {
  const answer = await ask<{ readonly summary: string }>('POST', 'taking-in/back', taking);
  if (answer.ok) toast(`${answer.value.summary}.`);
  else toast.error(answer.title);
  await Promise.all([reloadSite(), refresh()]);
}
