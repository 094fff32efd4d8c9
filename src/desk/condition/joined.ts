/** Conditions as they are edited: always tests joined by *all* or *any*, even if it is one, or none. */
import { type Condition, nobody } from '@/core';

/** Conditions joined by *all* or *any*. */
export type Joined = Extract<Condition, { kind: 'all' | 'any' }>;

/** A condition as joined tests; a lone one is joined to nothing. */
export const asJoined = (condition: Condition): Joined =>
  condition.kind === 'all' || condition.kind === 'any' ? condition : { kind: 'all', of: [condition] };

/** The other way round: one test joined to nothing is just that test. */
export const asCondition = (joined: Joined): Condition =>
  joined.of.length === 1 && joined.of[0] ? joined.of[0] : joined;

/**
 * Tests joined anew after one was added or taken out. When the last one is gone nobody passes: "all of nothing" is
 * everyone, and taking a test away must not open a gate to the world. Everyone is an answer of its own, chosen by name.
 */
export const joinedTests = (kind: Joined['kind'], of: readonly Condition[]): Joined =>
  of.length === 0 ? (nobody as Joined) : { kind, of };

/** Where a part stands: its place in each group on the way to it. A *not* around a group is no step. */
export type Path = readonly number[];

const inside = (part: Condition): Condition => (part.kind === 'not' ? part.of : part);
const groupIn = (part: Condition | undefined): Joined | null => {
  const inner = part && inside(part);
  return inner?.kind === 'all' || inner?.kind === 'any' ? inner : null;
};

/** The part at a path, or undefined when there is none. */
export function partAt(root: Joined, path: Path): Condition | undefined {
  let part: Condition | undefined = root;
  for (const step of path) part = groupIn(part)?.of[step];
  return part;
}

/** Changes the parts of the group at a path. A group that is left with nothing is taken out, and so on upwards. */
function changeGroup(
  group: Joined,
  path: Path,
  change: (of: readonly Condition[]) => readonly Condition[],
): Joined {
  const [step, ...rest] = path;
  if (step === undefined) return { ...group, of: change(group.of) };
  const part = group.of[step];
  const inner = groupIn(part);
  if (!part || !inner) return group;
  const changed = changeGroup(inner, rest, change);
  const kept: Condition[] =
    changed.of.length === 0 ? [] : [part.kind === 'not' ? { kind: 'not', of: changed } : changed];
  return { ...group, of: group.of.toSpliced(step, 1, ...kept) };
}

/**
 * Moves the part at a path to a place in a group, counted before it is taken out. Nothing moves into itself, and a part
 * that is dropped where it stands stays.
 */
export function movePart(root: Joined, from: Path, toGroup: Path, index: number): Joined {
  const part = partAt(root, from);
  const home = from.slice(0, -1);
  const at = from.at(-1);
  if (!part || at === undefined) return root;
  const intoItself = toGroup.length >= from.length && from.every((step, depth) => toGroup[depth] === step);
  const sameGroup = home.length === toGroup.length && home.every((step, depth) => toGroup[depth] === step);
  if (intoItself || (sameGroup && (index === at || index === at + 1))) return root;
  // A mark keeps the place, so that taking the part out does not shift where it goes.
  const mark: Condition = { kind: 'any', of: [] };
  const marked = changeGroup(root, home, (of) => of.toSpliced(at, 1, mark));
  const placed = changeGroup(marked, toGroup, (of) => of.toSpliced(index, 0, part));
  return withoutMark(placed, mark);
}

function withoutMark(group: Joined, mark: Condition): Joined {
  const of = group.of.flatMap((part): readonly Condition[] => {
    if (part === mark) return [];
    const inner = groupIn(part);
    if (!inner || inner.of.length === 0) return [part];
    const cleaned = withoutMark(inner, mark);
    if (cleaned.of.length === 0) return [];
    return [part.kind === 'not' ? { kind: 'not', of: cleaned } : cleaned];
  });
  return { ...group, of };
}
