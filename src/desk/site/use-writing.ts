'use client';
/**
 * A document being written: kept as one types, based on the version that was read. Somebody else's save in between is not
 * overwritten: both versions are here until one is chosen.
 */
import { useCallback, useEffect, useReducer, useRef } from 'react';
import type { Document, DocumentProblem, KeptDraft, Writing } from '@/services';
import { ask } from '../service';
import {
  type AnyDocument,
  keepingOf,
  nothingRead,
  reduceWriting,
  type WritingAction,
  type WritingState,
} from './writing-state';

const PAUSE_MS = 500;
const RETRY_MS = 3000;

/** What is written, and what can be done with it. */
export interface WritingDesk<D extends AnyDocument = Document>
  extends Pick<WritingState<D>, 'document' | 'drafted' | 'problem' | 'problems' | 'theirs'> {
  readonly keeping: ReturnType<typeof keepingOf>;
  readonly change: (document: D) => void;
  readonly send: () => Promise<boolean>;
  readonly drop: () => Promise<void>;
  readonly settle: (take: 'mine' | 'theirs') => void;
}

export function useWriting<D extends AnyDocument = Document>(item: string): WritingDesk<D> {
  const path = `items/${encodeURIComponent(item)}`;
  // What goes to the server is read when it goes, whatever was drawn last.
  const state = useRef<WritingState<D>>(nothingRead);
  const [, redraw] = useReducer((count: number) => count + 1, 0);
  const happen = useCallback((action: WritingAction<D>) => {
    state.current = reduceWriting(state.current, action);
    redraw();
  }, []);
  // One save at a time, each based on the one before.
  const turn = useRef<Promise<unknown>>(Promise.resolve());

  const read = useCallback(async () => {
    const answer = await ask<Writing<D>>('GET', path);
    happen(answer.ok ? { kind: 'read', writing: answer.value } : { kind: 'not read', title: answer.title });
  }, [path, happen]);
  useEffect(() => void read(), [read]);

  const showTheirs = useCallback(
    async (draft: unknown) => {
      const answer = await ask<Writing<D>>('GET', path);
      if (answer.ok) happen({ kind: 'theirs', draft: draft as KeptDraft | null, writing: answer.value });
    },
    [path, happen],
  );

  const save = useCallback((): Promise<boolean> => {
    const mine = turn.current.then(async () => {
      const { document, saved, versions } = state.current;
      if (document === null || document === saved) return true;
      const answer = await ask<{ version: number }>('PUT', `${path}/draft`, {
        version: versions.draft,
        document,
      });
      if (answer.ok) {
        happen({ kind: 'kept', document, version: answer.value.version });
        return true;
      }
      happen({ kind: 'not kept', title: answer.title });
      // Out of reach: what is typed is kept here and tried again.
      if (answer.status === 0) setTimeout(() => void save(), RETRY_MS);
      if (answer.status === 409) await showTheirs(answer.body.draft);
      return false;
    });
    turn.current = mine.catch(() => undefined);
    return mine;
  }, [path, happen, showTheirs]);

  const { document, drafted, problem, problems, theirs } = state.current;
  const keeping = keepingOf(state.current);
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

  const change = useCallback((next: D) => happen({ kind: 'typed', document: next }), [happen]);

  const send = useCallback(async () => {
    if (!(await save())) return false;
    const { site, draft } = state.current.versions;
    const answer = await ask<{ version: number; live: D }>('POST', `${path}/send`, {
      version: site,
      draft,
    });
    if (answer.ok) {
      await read();
      return true;
    }
    const wrong = answer.body.problems as readonly DocumentProblem[] | undefined;
    happen({ kind: 'not sent', title: answer.title, problems: wrong ?? [] });
    if (answer.status === 409) await showTheirs(answer.body.draft);
    return false;
  }, [path, happen, save, read, showTheirs]);

  const drop = useCallback(async () => {
    happen({ kind: 'let go' });
    await turn.current;
    // What was on its way is kept by now, and as little wanted.
    happen({ kind: 'let go' });
    await ask('DELETE', `${path}/draft`);
    await read();
  }, [path, happen, read]);

  const settle = useCallback(
    (take: 'mine' | 'theirs') => {
      happen({ kind: 'settle', take });
      if (take === 'mine') void save();
    },
    [happen, save],
  );
  return { document, drafted, keeping, problem, problems, theirs, change, send, drop, settle };
}
