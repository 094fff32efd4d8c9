/**
 * What is certain of courses: what nobody can ever complete, because what it waits for waits for it, and what somebody never
 * gets past. Whatever can be completed is found by beginning with nothing done and going on until nothing more opens.
 */
import { expanded, type Test, testOf, testsIn } from '../condition';
import type { GateId, ItemId } from '../ids';
import { type CompiledPolicy, decide, hurdlesOf } from '../policy';
import type { Activity, Item } from '../site';
import { ALL, type Diagram, NONE, orElse } from './diagram';
import type { Finding } from './finding';
import { shownBy } from './leading';
import type { Reach } from './reach';
import { type Asked, THINGS, type Thing, thingsRead } from './things';

/** An activity in a course, with what has to be done for it. */
interface Step {
  readonly activity: Activity;
  readonly course: ItemId;
  /** The activities, units and courses whose completion the gates over it ask about. */
  readonly needs: readonly ItemId[];
  readonly gates: readonly GateId[];
}

/** The activities of all courses, in their order. */
function stepsIn(compiled: CompiledPolicy): readonly Step[] {
  const { outline, vocabulary } = compiled;
  const steps: Step[] = [];
  for (const item of outline.items.values()) {
    if (item.kind !== 'activity' || !item.within) continue;
    const needs = new Set<string>();
    const gates = new Set<GateId>();
    for (const { gate, at } of hurdlesOf(compiled, item.id) ?? []) {
      if (gate === null) continue;
      for (const test of testsIn(expanded(gate.who, vocabulary.audiences)))
        for (const thing of thingsRead({ test, item: at }, vocabulary))
          if (thing.kind === 'done') {
            needs.add(thing.of);
            gates.add(gate.id);
          }
    }
    const { course } = item.within;
    steps.push({ activity: item, course, needs: [...needs] as ItemId[], gates: [...gates] });
  }
  return steps;
}

/** Whether something is done, by what it is; null for what is gone. */
function isDone(item: Item | undefined): Test | null {
  if (item?.kind === 'activity') return testOf('completed', item.id, 'is');
  if (item?.kind === 'unit') return testOf('completed unit', item.id, 'is');
  if (item?.kind === 'course') return testOf('completed course', item.id, 'is');
  return null;
}

const isEnrolled = (course: ItemId): Test => testOf('enrolled', course, 'is');

/** What is asked of learners, where gates ask what they have completed. */
export function* askedByCourses(compiled: CompiledPolicy): Iterable<Asked> {
  const asking = stepsIn(compiled).filter(({ needs }) => needs.length > 0);
  const tests = [
    ...[...new Set(asking.flatMap(({ needs }) => needs))].map((id) => isDone(compiled.outline.items.get(id))),
    ...[...new Set(asking.map(({ course }) => course))].map(isEnrolled),
  ];
  for (const test of tests) if (test) yield { test, item: null };
}

/** What is found of every course in which something waits for something. */
export function courseFindings(reach: Reach): readonly Finding[] {
  const steps = stepsIn(reach.compiled);
  if (steps.every(({ needs }) => needs.length === 0)) return [];
  // What can't be decided of one gate is said of that gate.
  return orElse(
    () => {
      const able = completable(reach, steps);
      return [...neverCompleted(reach, steps, able), ...neverPast(reach, steps, able)];
    },
    () => [],
  );
}

/** Of whom it is true that something is done. */
const doing = ({ compiled, meeting }: Reach, id: ItemId): Diagram => {
  const test = isDone(compiled.outline.items.get(id));
  return test ? meeting(test, null) : NONE;
};

/** Everything that somebody can complete who begins with nothing done. */
function completable(reach: Reach, steps: readonly Step[]): ReadonlySet<ItemId> {
  const { space, openTo } = reach;
  const able = new Set<ItemId>();
  const opens = ({ activity, needs }: Step): boolean => {
    const open = openTo(activity.id);
    const waiting = needs.filter((id) => !able.has(id)).map((id) => space.not(doing(reach, id)));
    return waiting.length === 0 ? open !== NONE : space.attempt(() => space.all([open, ...waiting])) !== NONE;
  };
  let before: number;
  do {
    before = able.size;
    for (const step of steps) {
      const { activity, course } = step;
      if (able.has(activity.id) || !opens(step)) continue;
      // A unit or a course is done when everything is that is open there: the last one makes it so.
      for (const id of [activity.id, activity.within?.unit, course]) if (id) able.add(id);
    }
  } while (able.size > before);
  return able;
}

/** Activities that would open if it were not for what can't be done before them. */
function neverCompleted(
  { openTo }: Reach,
  steps: readonly Step[],
  able: ReadonlySet<ItemId>,
): readonly Finding[] {
  const stuck = steps.filter(({ activity }) => !able.has(activity.id) && openTo(activity.id) !== NONE);
  return [...new Set(stuck.map(({ course }) => course))].map((course): Finding => {
    const those = stuck.filter((one) => one.course === course);
    return {
      gate: null,
      kind: 'never completed',
      course,
      items: those.map(({ activity }) => activity.id),
      gates: [...new Set(those.flatMap(({ gates }) => gates))],
    };
  });
}

/** What the next activity asks for, while it never opens to somebody who is enrolled, whatever they do and however long they wait. */
function neverPast(reach: Reach, steps: readonly Step[], able: ReadonlySet<ItemId>): readonly Finding[] {
  const { space, possible, openTo, meeting } = reach;
  const own = new Map(steps.map((step) => [step.activity.id, step]));
  const which = (is: (thing: Thing) => boolean) => {
    const those = reach.cells.things.map(({ thing }) => is(thing));
    return (variable: number): boolean => those[variable] === true;
  };
  const theirs = which((thing) => isUpToThem(thing, reach));
  const ever = new Map<ItemId, Diagram>();
  const found = new Map<ItemId, Finding>();
  for (const next of steps)
    for (const id of next.needs) {
      const step = own.get(id);
      const isHere = step && step.course === next.course && id !== next.activity.id && able.has(id);
      if (!isHere || found.has(id) || openTo(id) === ALL) continue;
      const [course, open, done] = [openTo(next.course), openTo(next.activity.id), doing(reach, id)];
      const opens = ever.get(id) ?? space.attempt(() => space.somehow(openTo(id), theirs));
      ever.set(id, opens);
      if (opens === ALL) continue;
      const itself = which(({ kind, of }) => kind === 'done' && of === id);
      const witness = space.attempt(() => {
        const would = space.somehow(space.and(open, done), itself);
        return shownBy(
          space.all([
            possible,
            meeting(isEnrolled(next.course), null),
            course,
            would,
            space.not(open),
            space.not(opens),
          ]),
          reach,
          true,
        );
      });
      if (!witness || !isShut(reach, id, next.activity.id, witness)) continue;
      found.set(id, {
        gate: null,
        kind: 'never past',
        course: next.course,
        item: id,
        next: next.activity.id,
        witness,
        gates: [...new Set([...gatesOver(reach.compiled, id), ...next.gates])],
      });
    }
  return [...found.values()];
}

const gatesOver = (compiled: CompiledPolicy, item: ItemId): readonly GateId[] =>
  (hurdlesOf(compiled, item) ?? []).flatMap(({ gate }) => (gate ? [gate.id] : []));

/** Whether somebody gets from `decide` what is said: neither of the two, and the second once the first is done. */
function isShut(
  { compiled }: Reach,
  item: ItemId,
  next: ItemId,
  { visitor, request }: NonNullable<ReturnType<typeof shownBy>>,
): boolean {
  const opens = (id: ItemId, who = visitor) => decide(compiled, id, who, request).kind === 'open';
  const done = { item, on: request.today, score: 100 };
  return (
    !opens(item) &&
    !opens(next) &&
    opens(next, { ...visitor, completions: [...(visitor.completions ?? []), done] })
  );
}

/** What learners see to themselves, or time does: what they do and buy, when and how they come, what they were enrolled in. */
function isUpToThem({ kind, of }: Thing, { following, compiled }: Reach): boolean {
  const given = [...following.byProduct.values()];
  switch (kind) {
    case 'done':
    case 'course':
    case 'product':
    case 'passphrase':
      return true;
    case 'level':
      return given.some(({ level }) => level !== null);
    case 'role':
      return given.some(({ roles }) => roles.some((role) => role === of));
    case 'group':
      return given.some(({ groups }) => groups.some((group) => group === of));
    case 'profile':
      return compiled.vocabulary.fields.some(({ id, editable }) => id === of && editable);
    default:
      return THINGS[kind] === 'request';
  }
}
