/**
 * A document being written, as this tab holds it, and what can happen to it: a reducer, so that keeping, sending, coming too
 * late and taking what somebody else wrote can be told apart and tested without a screen.
 */
import type { Document, DocumentProblem, KeptDraft, SharedDocument, Writing } from '@/services';

/** What is written: a page or post, or a section that many share. */
export type AnyDocument = Document | SharedDocument;

export interface WritingState<D extends AnyDocument = Document> {
  readonly document: D | null;
  /** What the server holds, as far as this tab knows; null when it holds something else. */
  readonly saved: D | null;
  /** The versions that are sent along: what comes from an older one is refused. */
  readonly versions: { readonly site: number; readonly draft: number };
  /** Whether there is something that is not on the site. */
  readonly drafted: boolean;
  /** Whether the last attempt to keep it failed, and nothing was typed since. */
  readonly failed: boolean;
  readonly problem: string | null;
  readonly problems: readonly DocumentProblem[];
  /** Somebody else's version, when theirs came first. */
  readonly theirs: KeptDraft | null;
}

export type WritingAction<D extends AnyDocument = Document> =
  | { readonly kind: 'read'; readonly writing: Writing<D> }
  | { readonly kind: 'not read'; readonly title: string }
  | { readonly kind: 'typed'; readonly document: D }
  | { readonly kind: 'kept'; readonly document: D; readonly version: number }
  | { readonly kind: 'not kept'; readonly title: string }
  | { readonly kind: 'not sent'; readonly title: string; readonly problems: readonly DocumentProblem[] }
  /** Others wrote first: their draft, or what they put on the site, after which there is no draft. */
  | { readonly kind: 'theirs'; readonly draft: KeptDraft | null; readonly writing: Writing<D> }
  | { readonly kind: 'settle'; readonly take: 'mine' | 'theirs' }
  /** What was typed here is not wanted. */
  | { readonly kind: 'let go' };

export const nothingRead: WritingState<never> = {
  document: null,
  saved: null,
  versions: { site: 0, draft: 0 },
  drafted: false,
  failed: false,
  problem: null,
  problems: [],
  theirs: null,
};

/** What is written after something happened to it. */
export function reduceWriting<D extends AnyDocument>(
  state: WritingState<D>,
  action: WritingAction<D>,
): WritingState<D> {
  switch (action.kind) {
    case 'read': {
      const { live, version, draft } = action.writing;
      const shown = draft ? (draft.document as D) : live;
      return {
        ...nothingRead,
        document: shown,
        saved: shown,
        versions: { site: version, draft: draft?.version ?? 0 },
        drafted: draft !== null,
      };
    }
    case 'not read':
      return { ...state, problem: action.title };
    case 'typed':
      return { ...state, document: action.document, failed: false, problems: [] };
    case 'kept':
      return {
        ...state,
        saved: action.document,
        versions: { ...state.versions, draft: action.version },
        drafted: true,
        failed: false,
        problem: null,
      };
    case 'not kept':
      return { ...state, failed: true, problem: action.title };
    case 'not sent':
      return { ...state, problem: action.title, problems: action.problems };
    case 'theirs': {
      const { live, version, draft } = action.writing;
      const onSite = { document: live, version: 0, by: 'Somebody', at: '' };
      return {
        ...state,
        versions: { ...state.versions, site: version },
        theirs: action.draft ?? draft ?? onSite,
      };
    }
    case 'settle': {
      const { theirs } = state;
      if (!theirs) return state;
      const versions = { ...state.versions, draft: theirs.version };
      const settled = { ...state, versions, theirs: null, problem: null, failed: false };
      if (action.take === 'mine') return { ...settled, saved: null };
      const document = theirs.document as D;
      return { ...settled, document, saved: document, drafted: theirs.version > 0 };
    }
    case 'let go':
      return { ...state, document: state.saved };
    default:
      return action satisfies never;
  }
}

/** Where the last words typed are. */
export const keepingOf = ({
  document,
  saved,
  failed,
}: Pick<WritingState<AnyDocument>, 'document' | 'saved' | 'failed'>): 'kept' | 'keeping' | 'not kept' =>
  failed ? 'not kept' : document === saved ? 'kept' : 'keeping';
