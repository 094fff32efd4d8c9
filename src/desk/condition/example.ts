/** Examples in the site's own words: what one can type here is there. */
import { type Condition, inGroup, level, type SiteNames, signedIn } from '@/core';

/** Somebody whom a site of these names is likely to let into something. */
export function exampleOf({ groups, levels }: SiteNames): Condition {
  const [group] = groups;
  const [lowest] = levels;
  if (group) return inGroup(group.id);
  return lowest ? level('at least', lowest.id) : signedIn;
}
