'use client';
/**
 * The draft at the desk: every edit shows at once, is saved a moment later, and can be undone. A save that comes too late
 * stops and shows both versions; what could not be saved stays here.
 */
import { useCallback, useEffect, useReducer, useRef } from 'react';
import { type Policy, rebase, same } from '@/core';
import type { PolicyProblem } from '@/services';
import { ask } from './service';

/** The newer draft that somebody else saved. */
export interface Theirs {
  readonly policy: Policy;
  readonly version: number;
  readonly by: string;
}

/** Where the last edit stands. */
export type Saving =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | Refused
  | { readonly kind: 'stale'; readonly theirs: Theirs };

interface Refused {
  readonly kind: 'refused';
  readonly title: string;
  /** What is wrong with the draft; none when it could not be sent at all. */
  readonly problems: readonly PolicyProblem[];
  /** What was refused, so that it is not sent again as it is. */
  readonly policy: Policy;
}

interface State {
  readonly policy: Policy;
  /** What the server holds, as far as this tab knows. */
  readonly base: Policy;
  readonly version: number;
  readonly live: { readonly policy: Policy; readonly revision: number };
  readonly past: readonly Policy[];
  readonly saving: Saving;
}

type Action =
  | { readonly kind: 'edit'; readonly policy: Policy }
  | { readonly kind: 'undo' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'saved'; readonly policy: Policy; readonly version: number }
  | Refused
  | { readonly kind: 'stale'; readonly theirs: Theirs }
  | { readonly kind: 'settle'; readonly take: 'mine' | 'theirs' }
  | { readonly kind: 'news'; readonly draft: Theirs; readonly live: State['live'] };

const MOST_UNDO = 100;

function reduce(state: State, action: Action): State {
  switch (action.kind) {
    case 'edit': {
      const past = [...state.past, state.policy].slice(-MOST_UNDO);
      return same(action.policy, state.policy) ? state : { ...state, policy: action.policy, past };
    }
    case 'undo': {
      const previous = state.past.at(-1);
      return previous ? { ...state, policy: previous, past: state.past.slice(0, -1) } : state;
    }
    case 'saving':
      return { ...state, saving: { kind: 'saving' } };
    case 'saved':
      return { ...state, base: action.policy, version: action.version, saving: { kind: 'saved' } };
    case 'refused':
      return { ...state, saving: action };
    case 'stale':
      return { ...state, saving: action };
    case 'settle': {
      if (state.saving.kind !== 'stale') return state;
      const { theirs } = state.saving;
      const mine = action.take === 'mine' ? rebase(state.base, state.policy, theirs.policy) : theirs.policy;
      const past = [...state.past, state.policy];
      return {
        ...state,
        policy: mine,
        base: theirs.policy,
        version: theirs.version,
        past,
        saving: { kind: 'saved' },
      };
    }
    case 'news': {
      const { draft, live } = action;
      const here = { ...state, live };
      if (draft.version <= state.version || state.saving.kind !== 'saved') return here;
      if (!same(state.policy, state.base)) return here;
      return { ...here, policy: draft.policy, base: draft.policy, version: draft.version, past: [] };
    }
    default:
      return action satisfies never;
  }
}

const SAVE_PAUSE_MS = 250;
const RETRY_MS = 4000;
const NEWS_MS = 15_000;

/** The draft and what can be done with it. */
export interface DraftDesk {
  readonly policy: Policy;
  readonly version: number;
  readonly live: State['live'];
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
  readonly live: State['live'];
}): DraftDesk {
  const [state, dispatch] = useReducer(reduce, {
    policy: initial.draft.policy,
    base: initial.draft.policy,
    version: initial.draft.version,
    live: initial.live,
    past: [],
    saving: { kind: 'saved' },
  });
  const { policy, base, version, saving } = state;
  const settled = saving.kind === 'saved' && same(policy, base);
  const busy = useRef(false);

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
        if (answer.ok) dispatch({ kind: 'saved', policy, version: answer.value.version });
        else if (answer.status === 409) dispatch({ kind: 'stale', theirs: answer.body.theirs as Theirs });
        else {
          const problems = (answer.body.problems as readonly PolicyProblem[] | undefined) ?? [];
          dispatch({ kind: 'refused', title: answer.title, problems, policy });
        }
      },
      refusedAlready ? RETRY_MS : SAVE_PAUSE_MS,
    );
    return () => clearTimeout(timer);
  }, [policy, base, version, saving]);

  const refresh = useCallback(async () => {
    const answer = await ask<{ draft: Theirs; live: State['live'] }>('GET', 'draft');
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
