'use client';
/**
 * A document being written: kept as one types, based on the version that was read. Somebody else's save in between is not
 * overwritten: both versions are here until one is chosen.
 */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Document, DocumentProblem, KeptDraft, Writing } from '@/services';
import { ask } from '../service';

const PAUSE_MS = 500;
const RETRY_MS = 3000;

export type Keeping = 'kept' | 'keeping' | 'not kept';

export interface WritingState {
  readonly document: Document | null;
  /** Whether there is something that is not on the site. */
  readonly drafted: boolean;
  readonly keeping: Keeping;
  readonly problem: string | null;
  readonly problems: readonly DocumentProblem[];
  /** Somebody else's version, when theirs came first. */
  readonly theirs: KeptDraft | null;
  readonly change: (document: Document) => void;
  readonly send: () => Promise<boolean>;
  readonly drop: () => Promise<void>;
  readonly settle: (take: 'mine' | 'theirs') => void;
}

export function useWriting(item: string): WritingState {
  const [document, setDocument] = useState<Document | null>(null);
  const [drafted, setDrafted] = useState(false);
  const [keeping, setKeeping] = useState<Keeping>('kept');
  const [problem, setProblem] = useState<string | null>(null);
  const [problems, setProblems] = useState<readonly DocumentProblem[]>([]);
  const [theirs, setTheirs] = useState<KeptDraft | null>(null);
  const draftVersion = useRef(0);
  const siteVersion = useRef(0);
  const latest = useRef<Document | null>(null);
  const saved = useRef<Document | null>(null);
  // One save at a time, each based on the one before.
  const turn = useRef<Promise<unknown>>(Promise.resolve());

  const read = useCallback(async () => {
    const answer = await ask<Writing>('GET', `items/${encodeURIComponent(item)}`);
    if (!answer.ok) {
      setProblem(answer.title);
      return;
    }
    const { live, version, draft } = answer.value;
    const shown = (draft?.document as Document | undefined) ?? live;
    siteVersion.current = version;
    draftVersion.current = draft?.version ?? 0;
    latest.current = shown;
    saved.current = shown;
    setDocument(shown);
    setDrafted(draft !== null);
    setKeeping('kept');
    setProblem(null);
    setProblems([]);
  }, [item]);
  useEffect(() => void read(), [read]);

  /** Shows what somebody else wrote: their draft, or what they put on the site, after which there is no draft. */
  const showTheirs = useCallback(
    async (draft: unknown) => {
      const answer = await ask<Writing>('GET', `items/${encodeURIComponent(item)}`);
      if (!answer.ok) return;
      siteVersion.current = answer.value.version;
      const onSite = { document: answer.value.live, version: 0, by: 'Somebody', at: '' };
      setTheirs((draft as KeptDraft | null) ?? answer.value.draft ?? onSite);
    },
    [item],
  );

  const save = useCallback((): Promise<boolean> => {
    const mine = turn.current.then(async () => {
      const wanted = latest.current;
      if (wanted === null || wanted === saved.current) return true;
      const answer = await ask<{ version: number }>('PUT', `items/${encodeURIComponent(item)}/draft`, {
        version: draftVersion.current,
        document: wanted,
      });
      if (answer.ok) {
        draftVersion.current = answer.value.version;
        saved.current = wanted;
        setDrafted(true);
        setProblem(null);
        setKeeping(latest.current === wanted ? 'kept' : 'keeping');
        return true;
      }
      setKeeping('not kept');
      setProblem(answer.title);
      // Out of reach: what is typed is kept here and tried again.
      if (answer.status === 0) setTimeout(() => void save(), RETRY_MS);
      if (answer.status === 409) await showTheirs(answer.body.draft);
      return false;
    });
    turn.current = mine.catch(() => undefined);
    return mine;
  }, [item, showTheirs]);

  useEffect(() => {
    if (keeping !== 'keeping' || document === null) return;
    const timer = setTimeout(() => void save(), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [keeping, document, save]);

  // Leaving the page or the desk keeps the last words too.
  useEffect(() => {
    const last = () => void save();
    window.addEventListener('pagehide', last);
    return () => {
      window.removeEventListener('pagehide', last);
      last();
    };
  }, [save]);

  const change = useCallback((next: Document) => {
    latest.current = next;
    setDocument(next);
    setKeeping('keeping');
    setProblems([]);
  }, []);

  const send = useCallback(async () => {
    if (!(await save())) return false;
    const answer = await ask<{ version: number; live: Document }>(
      'POST',
      `items/${encodeURIComponent(item)}/send`,
      {
        version: siteVersion.current,
        draft: draftVersion.current,
      },
    );
    if (answer.ok) {
      await read();
      return true;
    }
    setProblem(answer.title);
    setProblems((answer.body.problems as readonly DocumentProblem[] | undefined) ?? []);
    if (answer.status === 409) await showTheirs(answer.body.draft);
    return false;
  }, [item, save, read, showTheirs]);

  const drop = useCallback(async () => {
    latest.current = saved.current;
    await turn.current;
    await ask('DELETE', `items/${encodeURIComponent(item)}/draft`);
    await read();
  }, [item, read]);

  const settle = useCallback(
    (take: 'mine' | 'theirs') => {
      if (!theirs) return;
      draftVersion.current = theirs.version;
      setTheirs(null);
      setProblem(null);
      if (take === 'theirs') {
        const document = theirs.document as Document;
        latest.current = document;
        saved.current = document;
        setDocument(document);
        setDrafted(theirs.version > 0);
        setKeeping('kept');
      } else {
        saved.current = null;
        setKeeping('keeping');
        void save();
      }
    },
    [theirs, save],
  );
  return { document, drafted, keeping, problem, problems, theirs, change, send, drop, settle };
}
