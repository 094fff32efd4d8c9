/** Decides the whole board away from the screen: every item against every visitor, under the draft and what is live. */
import {
  type CompiledPolicy,
  compile,
  type Item,
  type Matrix,
  matrixOf,
  type Outline,
  outlineOf,
  type Policy,
  type RequestFacts,
  type SiteNames,
  type VisitorFacts,
} from '@/core';
import { answering } from '../worker-side';

/** What the board is made of. What did not change since the last question is left out. */
export interface BoardQuestion {
  readonly number: number;
  readonly site?: { readonly items: readonly Item[]; readonly names: SiteNames };
  readonly draft?: Policy;
  readonly live?: Policy;
  readonly visitors: readonly VisitorFacts[];
  readonly request: RequestFacts;
}

export interface BoardAnswer {
  readonly number: number;
  readonly matrix: Matrix;
}

/** Answers questions one after the other, keeping what was compiled. */
export function boardKeeper(): (question: BoardQuestion) => BoardAnswer {
  let outline: Outline | null = null;
  let names: SiteNames | null = null;
  let items: readonly Item[] = [];
  const policies: { draft: Policy | null; live: Policy | null } = { draft: null, live: null };
  const compiled: { draft: CompiledPolicy | null; live: CompiledPolicy | null } = { draft: null, live: null };
  const take = (side: 'draft' | 'live', policy: Policy | undefined, anew: boolean): CompiledPolicy => {
    policies[side] = policy ?? policies[side];
    const known = compiled[side];
    if (known && policy === undefined && !anew) return known;
    if (!outline || !names || !policies[side]) throw new Error('The board was asked before it was told.');
    const made = compile(policies[side], outline, names);
    compiled[side] = made;
    return made;
  };
  return ({ number, site, draft, live, visitors, request }) => {
    if (site) {
      const made = outlineOf(site.items);
      if ('problems' in made) throw new Error('The site’s outline can’t be read.');
      outline = made;
      names = site.names;
      items = site.items;
    }
    const anew = site !== undefined;
    const both = { draft: take('draft', draft, anew), live: take('live', live, anew) };
    return { number, matrix: matrixOf(both, items, visitors, request) };
  };
}

answering(boardKeeper(), ({ matrix: { draft, live, changes } }) => [
  draft.buffer,
  live.buffer,
  changes.buffer,
]);
