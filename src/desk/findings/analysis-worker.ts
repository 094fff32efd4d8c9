/** Works out what is certain of a policy, away from the screen. */
import {
  type Analysis,
  analyse,
  compile,
  type Day,
  type Following,
  type Item,
  type Outline,
  outlineOf,
  type Policy,
  type SiteNames,
} from '@/core';
import { answering } from '../worker-side';

/** What an analysis is made of besides the policy. */
export interface AnalysedSite {
  readonly items: readonly Item[];
  readonly names: SiteNames;
  readonly following: Following;
  /** The products that can be bought. */
  readonly sold: ReadonlySet<string>;
}

/** What is asked. A site that is the same as in the last question is left out. */
export interface AnalysisQuestion {
  readonly number: number;
  readonly site?: AnalysedSite;
  readonly policy: Policy;
  readonly today: Day;
}

export interface AnalysisAnswer {
  readonly number: number;
  readonly analysis: Analysis;
}

/** Answers questions one after the other, keeping the site. */
export function analysisKeeper(): (question: AnalysisQuestion) => AnalysisAnswer {
  let known: (AnalysedSite & { readonly outline: Outline }) | null = null;
  return ({ number, site, policy, today }) => {
    if (site) {
      const outline = outlineOf(site.items);
      if ('problems' in outline) throw new Error('The site’s outline can’t be read.');
      known = { ...site, outline };
    }
    if (!known) throw new Error('An analysis was asked for before the site was told.');
    const { outline, names, following, sold } = known;
    return { number, analysis: analyse(compile(policy, outline, names), today, following, sold) };
  };
}

answering(analysisKeeper());
