/** Audiences: conditions with names, used in other conditions. */
import type { AudienceId } from '../ids';
import type { Audience } from '../site/vocabulary';
import { audiencesIn, type Condition, inAudience } from './condition';
import { fold } from './fold';

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

/** The most tests that an audience may come to once the audiences in it are spelt out, repeats included. */
export const MOST_SPELT_OUT = 2000;

const known = new WeakMap<readonly Audience[], ReadonlyMap<AudienceId, Audience>>();

/**
 * The audiences that mean something, by id. One that comes back to itself, or that comes to more tests than anybody could
 * ask, is unknown of everybody, like one that is gone: audiences that use one another several times double with each step.
 */
export function soundAudiences(audiences: readonly Audience[]): ReadonlyMap<AudienceId, Audience> {
  const found = known.get(audiences);
  if (found) return found;
  const sizeOf = spellingOut(audiences);
  const sound = new Map(
    audiences.flatMap((one) =>
      sizeOf(inAudience(one.id)) <= MOST_SPELT_OUT ? [[one.id, one] as const] : [],
    ),
  );
  known.set(audiences, sound);
  return sound;
}

/**
 * How many tests a condition comes to with its audiences spelt out; infinitely many for one that comes back to itself.
 * Each audience is looked at once.
 */
export function spellingOut(audiences: readonly Audience[]): (condition: Condition) => number {
  const byId = new Map(audiences.map((audience) => [audience.id, audience]));
  const sizes = new Map<AudienceId, number>();
  const sizeOf = (condition: Condition): number =>
    fold<number>(condition, {
      group: (parts) => parts.reduce((sum, part) => sum + part, 0),
      not: (part) => part,
      test: () => 1,
      audience: (use) => {
        const audience = byId.get(use.audience);
        if (!audience) return 1;
        const size = sizes.get(audience.id);
        if (size !== undefined) return size;
        // For as long as it is being looked at: whatever uses it then is in it.
        sizes.set(audience.id, Number.POSITIVE_INFINITY);
        const made = sizeOf(audience.who);
        sizes.set(audience.id, made);
        return made;
      },
    });
  return sizeOf;
}

/** A condition with every audience replaced by what it stands for; one that means nothing stays. */
export function expanded(condition: Condition, audiences: readonly Audience[]): Condition {
  const sound = soundAudiences(audiences);
  const spelt = (part: Condition): Condition =>
    fold<Condition>(part, {
      group: (of, group) => ({ ...group, of }),
      not: (of) => ({ kind: 'not', of }),
      test: (one) => one,
      audience: (use) => {
        const found = sound.get(use.audience);
        return found ? spelt(found.who) : use;
      },
    });
  return spelt(condition);
}
