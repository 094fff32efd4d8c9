/** What whoever has just begun does first, and how much of it is done. */
import type { Address } from '@/core';
import type { SiteState } from '../running';

export interface FirstSteps {
  /** Whether the first page says something of its own. */
  readonly written: boolean;
  /** Whether the site has words or colours of its own. */
  readonly settled: boolean;
  /** Whether there is anybody beside its owner. */
  readonly peopled: boolean;
}

/** A site with more people, or with gates that were changed more often, has begun. */
const FEW_PEOPLE = 3;
const FEW_REVISIONS = 2;

/** The first steps of a site that has hardly begun; null for any other. */
export function firstStepsOf({ outline, versions, settings, people, live }: SiteState): FirstSteps | null {
  if (people.size > FEW_PEOPLE || live.revision > FEW_REVISIONS) return null;
  const home = outline.addressed.get('/' as Address);
  const onHome = home ? [home, ...(outline.children.get(home.id) ?? [])] : [];
  return {
    written: onHome.some(({ id }) => (versions.get(id) ?? 1) > 1),
    settled:
      settings.look !== null ||
      settings.words.foot + settings.words.missing !== '' ||
      (versions.get(outline.root) ?? 1) > 1,
    peopled: people.size > 1,
  };
}
