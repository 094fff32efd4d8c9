'use client';
/**
 * The draft at the desk: every edit shows at once, is saved a moment later, and can be undone. A save that comes too late
 * stops and shows both versions; what could not be saved stays here.
 */
import { useCallback, useEffect, useReducer, useRef } from 'react';
import { type Policy, same } from '@/core';
import type { PolicyProblem } from '@/services';
import { beginDraft, type DraftState, isSettled, reduceDraft, type Saving, type Theirs } from './draft-state';
import { ask } from './service';

const SAVE_PAUSE_MS = 250;
const RETRY_MS = 4000;
const NEWS_MS = 15_000;

/** The draft and what can be done with it. */
export interface DraftDesk {
  readonly policy: Policy;
  /** What the server held when the edits here began. */
  readonly base: Policy;
  readonly version: number;
  readonly live: DraftState['live'];
  readonly saving: Saving;
  /** Whether everything here is also on the server. */
  readonly settled: boolean;
  readonly canUndo: boolean;
  readonly edit: (policy: Policy) => void;
  readonly undo: () => void;
  readonly settle: (take: 'mine' | 'theirs') => void;
  readonly refresh: () => Promise<void>;
}

export function useDraft(initial: {
  readonly draft: { readonly policy: Policy; readonly version: number };
  readonly live: DraftState['live'];
}): DraftDesk {
  const [state, dispatch] = useReducer(reduceDraft, null, () => beginDraft(initial.draft, initial.live));
  const { policy, base, version, saving } = state;
  const settled = isSettled(state);
  const busy = useRef(false);
  /** What was sent last of which is not known what has become of it. */
  const unanswered = useRef<Policy | null>(null);

  // One save at a time; an edit made meanwhile is saved next, because `base` then differs from it.
  useEffect(() => {
    if (saving.kind === 'stale' || busy.current || same(policy, base)) return;
    const refusedAlready = saving.kind === 'refused' && same(saving.policy, policy);
    if (refusedAlready && saving.problems.length > 0) return;
    const timer = setTimeout(
      async () => {
        busy.current = true;
        dispatch({ kind: 'saving' });
        const answer = await ask<{ version: number }>('PUT', 'draft', { version, policy });
        busy.current = false;
        if (!answer.ok && (answer.status === 0 || answer.status >= 500)) unanswered.current = policy;
        if (answer.ok) dispatch({ kind: 'saved', policy, version: answer.value.version });
        else if (answer.status === 409) {
          const theirs = answer.body.theirs as Theirs;
          // A save whose answer was lost comes too late when it is sent again: what there is is one's own.
          if ([policy, unanswered.current].some((one) => same(one, theirs.policy)))
            dispatch({ kind: 'saved', policy: theirs.policy, version: theirs.version });
          else dispatch({ kind: 'stale', theirs });
        } else {
          // What one's right does not reach to is not tried again.
          const forbidden = answer.status === 403 ? [{ gate: null, message: answer.title }] : [];
          const problems = (answer.body.problems as readonly PolicyProblem[] | undefined) ?? forbidden;
          dispatch({ kind: 'refused', title: answer.title, problems, policy });
        }
      },
      refusedAlready ? RETRY_MS : SAVE_PAUSE_MS,
    );
    return () => clearTimeout(timer);
  }, [policy, base, version, saving]);

  const refresh = useCallback(async () => {
    const answer = await ask<{ draft: Theirs; live: DraftState['live'] }>('GET', 'draft');
    if (answer.ok) dispatch({ kind: 'news', ...answer.value });
  }, []);

  // Others' changes appear when one comes back to the tab, and every now and then while one stays.
  useEffect(() => {
    const look = () => document.visibilityState === 'visible' && void refresh();
    const timer = setInterval(look, NEWS_MS);
    window.addEventListener('focus', look);
    return () => {
      clearInterval(timer);
      window.removeEventListener('focus', look);
    };
  }, [refresh]);

  // Leaving with something unsaved is asked about.
  useEffect(() => {
    if (settled) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [settled]);

  return {
    policy,
    base,
    version,
    live: state.live,
    saving,
    settled,
    canUndo: state.past.length > 0,
    edit: useCallback((next) => dispatch({ kind: 'edit', policy: next }), []),
    undo: useCallback(() => dispatch({ kind: 'undo' }), []),
    settle: useCallback((take) => dispatch({ kind: 'settle', take }), []),
    refresh,
  };
}
