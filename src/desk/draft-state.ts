/**
 * The draft as the desk holds it, and what can happen to it: a reducer, so that saving, undoing, coming too late and hearing
 * of others' changes can be told apart and tested without a screen.
 */
import { type Policy, rebase, same } from '@/core';
import type { PolicyProblem } from '@/services';

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

/** A save that the server did not take. */
export interface Refused {
  readonly kind: 'refused';
  readonly title: string;
  /** What is wrong with the draft; none when it could not be sent at all. */
  readonly problems: readonly PolicyProblem[];
  /** What was refused, so that it is not sent again as it is. */
  readonly policy: Policy;
}

/** Everything that is known of the draft in this tab. */
export interface DraftState {
  readonly policy: Policy;
  /** What the server holds, as far as this tab knows. */
  readonly base: Policy;
  readonly version: number;
  readonly live: { readonly policy: Policy; readonly revision: number };
  readonly past: readonly Policy[];
  readonly saving: Saving;
}

/** What can happen to a draft. */
export type DraftAction =
  | { readonly kind: 'edit'; readonly policy: Policy }
  | { readonly kind: 'undo' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'saved'; readonly policy: Policy; readonly version: number }
  | Refused
  | { readonly kind: 'stale'; readonly theirs: Theirs }
  | { readonly kind: 'settle'; readonly take: 'mine' | 'theirs' }
  | { readonly kind: 'news'; readonly draft: Theirs; readonly live: DraftState['live'] };

const MOST_UNDO = 100;

/** What was refused is forgotten once the draft is again what the server holds: there is nothing left to refuse. */
const mended = (state: DraftState): DraftState =>
  state.saving.kind === 'refused' && same(state.policy, state.base)
    ? { ...state, saving: { kind: 'saved' } }
    : state;

/** The draft after something happened to it. */
export function reduceDraft(state: DraftState, action: DraftAction): DraftState {
  switch (action.kind) {
    case 'edit': {
      const past = [...state.past, state.policy].slice(-MOST_UNDO);
      return same(action.policy, state.policy) ? state : mended({ ...state, policy: action.policy, past });
    }
    case 'undo': {
      const previous = state.past.at(-1);
      return previous ? mended({ ...state, policy: previous, past: state.past.slice(0, -1) }) : state;
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
      const mine =
        action.take === 'mine' ? rebase(state.base, state.policy, theirs.policy).policy : theirs.policy;
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
      const { draft } = action;
      // Of several processes one may not have heard of what another has put live.
      const live = action.live.revision < state.live.revision ? state.live : action.live;
      const here = { ...state, live };
      if (draft.version <= state.version || state.saving.kind !== 'saved') return here;
      if (!same(state.policy, state.base)) return here;
      return { ...here, policy: draft.policy, base: draft.policy, version: draft.version, past: [] };
    }
    default:
      return action satisfies never;
  }
}

/** A draft as it comes from the server. */
export const beginDraft = (
  draft: { readonly policy: Policy; readonly version: number },
  live: DraftState['live'],
): DraftState => ({
  policy: draft.policy,
  base: draft.policy,
  version: draft.version,
  live,
  past: [],
  saving: { kind: 'saved' },
});

/** Whether everything here is also on the server. */
export const isSettled = ({ saving, policy, base }: DraftState): boolean =>
  saving.kind === 'saved' && same(policy, base);
