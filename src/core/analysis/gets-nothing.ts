/** Members to whom nothing at all is open. */

import type { ItemId } from '../ids';
import { decide, decidedForAll } from '../policy';
import { isOpenable } from '../site';
import { type Diagram, NONE, orElse } from './diagram';
import type { Finding, Witness } from './finding';
import { shownBy } from './leading';
import type { Reach } from './reach';

/** A member to whom no page, post or file is open. Where something is open to everybody there is none. */
export function getsNothing(reach: Reach): readonly Finding[] {
  const { compiled, possible } = reach;
  const items = [...compiled.outline.items.values()].filter(isOpenable).map(({ id }) => id);
  if (items.some((id) => decidedForAll(compiled, id)?.kind === 'open')) return [];
  const getsNone = ({ visitor, request }: Witness) =>
    items.every((id) => decide(compiled, id, visitor, request).kind !== 'open');
  // Whoever has nothing gets least, mostly: of a large site it is asked of them what could be too much of everybody.
  const first = shownBy(possible, reach, true);
  const witness = first && getsNone(first) ? first : shownBy(left(reach, items), reach, true);
  return witness ? [{ gate: null, kind: 'gets nothing', witness }] : [];
}

/** Those to whom none of some items is open; nobody where that is too much to work out. */
const left = ({ space, possible, openTo }: Reach, items: readonly ItemId[]): Diagram =>
  orElse(
    () => {
      // What most get leaves fewest to look for.
      const sets = [...new Set(items.map(openTo))].toSorted((a, b) => space.share(b) - space.share(a));
      return space.attempt(() => {
        let those = possible;
        for (const set of sets) {
          if (those === NONE) break;
          those = space.and(those, space.not(set));
        }
        return those;
      });
    },
    () => NONE,
  );
