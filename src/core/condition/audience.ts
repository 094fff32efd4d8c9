/** Audiences: conditions with names, used in other conditions. */
import type { AudienceId } from '../ids';
import type { Audience } from '../site/vocabulary';
import { audiencesIn, type Condition } from './condition';

/**
 * The audiences that come back to themselves, as the path from one to itself by ids, or null when there are none.
 * Takes time in proportion to the uses there are.
 */
export function audienceCycle(audiences: readonly Audience[]): readonly AudienceId[] | null {
  const byId = new Map(audiences.map((audience) => [audience.id, audience]));
  const done = new Set<AudienceId>();
  const path: AudienceId[] = [];
  const visit = (id: AudienceId): readonly AudienceId[] | null => {
    const at = path.indexOf(id);
    if (at >= 0) return [...path.slice(at), id];
    const audience = byId.get(id);
    if (done.has(id) || !audience) return null;
    path.push(id);
    for (const used of audiencesIn(audience.who)) {
      const found = visit(used);
      if (found) return found;
    }
    path.pop();
    done.add(id);
    return null;
  };
  for (const { id } of audiences) {
    const found = visit(id);
    if (found) return found;
  }
  return null;
}

/** A condition with every audience replaced by what it stands for; one that is gone, or comes back to itself, stays. */
export function expanded(
  condition: Condition,
  audiences: readonly Audience[],
  within: readonly AudienceId[] = [],
): Condition {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return { ...condition, of: condition.of.map((part) => expanded(part, audiences, within)) };
    case 'not':
      return { kind: 'not', of: expanded(condition.of, audiences, within) };
    case 'audience': {
      const found = audiences.find(({ id }) => id === condition.audience);
      if (!found || within.includes(found.id)) return condition;
      return expanded(found.who, audiences, [...within, found.id]);
    }
    case 'test':
      return condition;
    default:
      return condition satisfies never;
  }
}
