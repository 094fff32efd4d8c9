/** Looks for what is certain about the draft's gates, away from the screen. */
import {
  compile,
  type Day,
  type Finding,
  findingsIn,
  type Item,
  type Outline,
  outlineOf,
  type Policy,
  type SiteNames,
} from '@/core';

/** What findings are made of. A site that is the same as in the last question is left out. */
export interface FindingsQuestion {
  readonly number: number;
  readonly site?: { readonly items: readonly Item[]; readonly names: SiteNames };
  readonly policy: Policy;
  readonly today: Day;
}

export interface FindingsAnswer {
  readonly number: number;
  readonly findings: readonly Finding[];
}

/** Answers questions one after the other, keeping the site. */
export function findingsKeeper(): (question: FindingsQuestion) => FindingsAnswer {
  let known: { readonly outline: Outline; readonly names: SiteNames } | null = null;
  return ({ number, site, policy, today }) => {
    if (site) {
      const outline = outlineOf(site.items);
      if ('problems' in outline) throw new Error('The site’s outline can’t be read.');
      known = { outline, names: site.names };
    }
    if (!known) throw new Error('Findings were asked for before the site was told.');
    return { number, findings: findingsIn(compile(policy, known.outline, known.names), today) };
  };
}

/** The worker's own side of the window; typed here, because the rest of the desk is typed for pages. */
interface WorkerSide {
  onmessage: ((event: MessageEvent<FindingsQuestion>) => void) | null;
  readonly postMessage: (answer: FindingsAnswer) => void;
}

if (typeof document === 'undefined' && typeof self !== 'undefined') {
  const side = self as unknown as WorkerSide;
  const answer = findingsKeeper();
  side.onmessage = ({ data }) => side.postMessage(answer(data));
}
