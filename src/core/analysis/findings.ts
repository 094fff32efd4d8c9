/**
 * Everything that is certain of a policy and was hardly meant, over every visitor there could be. Whatever can be shown has
 * somebody to show it, who gets from `decide` what is said.
 */
import { everyone, expanded, testsIn } from '../condition';
import type { Gate } from '../gate';
import type { LevelId } from '../ids';
import { decideAlong } from '../policy';
import { same } from '../same';
import { describeWho } from '../sentence/who';
import { member, requestAt } from '../site';
import { byItself, LONG_AFTER } from './by-itself';
import { courseFindings } from './course-findings';
import { NONE, orElse } from './diagram';
import type { Finding } from './finding';
import {
  changesNothing,
  contradictions,
  hurdlesOf,
  idleGates,
  nobodyPasses,
  passing,
  unreachedCases,
  type Way,
  waysIn,
} from './gate-findings';
import { getsNothing } from './gets-nothing';
import { hiddenLinks, ledAstray, shownBy } from './leading';
import { leftOpen } from './left-open';
import {
  askedByAudiences,
  audienceFindings,
  goneIn,
  madeUpIn,
  namesAlike,
  productFindings,
  type Sold,
} from './name-findings';
import { outcomesIn } from './outcomes';
import { type Reach, reachOf } from './reach';
import { simplerThan } from './simpler';

/** Everything that is found about a policy: of its gates, in their order, and then of its names. */
export function findingsIn(reach: Reach, sold: Sold = new Set()): readonly Finding[] {
  const { compiled } = reach;
  const ways = waysIn(reach);
  // One by one first: what is too large alone is taken back before others are put together.
  for (const { hurdles } of ways)
    for (const hurdle of hurdles)
      orElse(
        () => reach.passing(hurdle),
        () => NONE,
      );
  const over = new Map<Gate, Way[]>();
  for (const way of ways)
    for (const gate of new Set(way.hurdles.map((hurdle) => hurdle.gate))) {
      const known = over.get(gate) ?? [];
      known.push(way);
      over.set(gate, known);
    }
  const idle = idleGates(compiled);
  const outcomes = outcomesIn(reach);
  let whenOver: Reach | null = null;
  const later = () => {
    whenOver ??= reachOf(compiled, LONG_AFTER, reach.following, askedByAudiences(compiled));
    return whenOver;
  };
  const links = [...compiled.outline.items.values()].filter(
    ({ kind, published }) => kind === 'link' && published,
  );
  const ofGates = compiled.policy.gates.flatMap((gate): readonly Finding[] => {
    const id = gate.id;
    const own = over.get(gate) ?? [];
    return orElse<readonly Finding[], readonly Finding[]>(
      () => [
        ...(idle.has(gate) ? [{ gate: id, kind: 'set aside' } as const] : []),
        ...nobodyPasses(reach, gate, own),
        ...contradictions(reach, gate, own),
        ...changesNothing(reach, gate, own),
        ...reach.space.attempt(() => unreachedCases(reach, gate, own)),
        ...hiddenLinks(reach, gate, links),
        ...ledAstray(reach, gate, own, outcomes),
        ...byItself(reach, later, gate, own),
        ...openedByInstead(reach, gate, own),
        ...leftOpen(reach, gate),
        ...exactLevels(reach, gate, own),
        ...goneIn(gate, compiled),
        ...madeUpIn(gate, compiled),
        ...simplerGates(reach, gate, own),
      ],
      ({ message }) => [{ gate: id, kind: 'not decided', why: message }],
    );
  });
  return [
    ...ofGates,
    ...courseFindings(reach),
    ...getsNothing(reach),
    ...audienceFindings(reach),
    ...namesAlike(compiled),
    ...productFindings(reach, sold),
  ];
}

// Levels are asked of members, whenever they ask.
const anyDay = requestAt({ today: '2000-01-01', minute: 720, weekday: 'Saturday' });

/** Somebody whom every gate that this one sets aside would turn away. Who lets everybody by means it. */
function openedByInstead(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const { compiled, space } = reach;
  if (gate.stance !== 'instead' || same(gate.who, everyone)) return [];
  for (const way of own)
    for (const hurdle of hurdlesOf(gate, way)) {
      const aside = (compiled.covering.get(hurdle.over.id) ?? []).filter(({ setAside }) => setAside);
      const item = way.items.includes(hurdle.over.id) ? hurdle.over.id : null;
      if (aside.length === 0 || item === null) continue;
      const outside = space.attempt(() =>
        space.all([
          reach.openTo(item),
          ...aside.map((one) => space.not(reach.meeting(one.gate.who, hurdle.at))),
        ]),
      );
      const witness = shownBy(outside, reach);
      if (witness) return [{ gate: gate.id, kind: 'opened by instead', item, witness }];
    }
  return [];
}

/** A level that is asked for exactly, where those above it get nothing. */
function exactLevels({ compiled }: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const { levels, audiences } = compiled.vocabulary;
  const exact = testsIn(expanded(gate.who, audiences)).filter(
    (test) => test.fact === 'level' && test.op === 'exactly',
  );
  for (const { value } of exact) {
    const rank = levels.findIndex(({ id }) => id === value);
    const [here, above] = [levels[rank], levels[rank + 1]];
    if (!here || !above) continue;
    for (const way of own) {
      const [item] = way.items;
      const gets = (level: LevelId) => decideAlong(way.hurdles, member({ level }), anyDay).kind === 'open';
      if (item !== undefined && gets(here.id) && !gets(above.id))
        return [
          {
            gate: gate.id,
            kind: 'exact level',
            item,
            witness: { visitor: member({ level: above.id }), request: anyDay },
          },
        ];
    }
  }
  return [];
}

/** A condition of which some can be left out: the same visitors pass at everything that the gate is over. */
function simplerGates(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const { space, possible, meeting } = reach;
  const places = [
    ...new Map(own.flatMap((way) => hurdlesOf(gate, way)).map((one) => [one.at.id, one.at])).values(),
  ];
  // Of what nobody passes, or everybody, it is said elsewhere.
  if (places.length === 0 || nobodyDoes(reach, gate, own)) return [];
  const those = places.map((at) => ({
    at,
    set: space.attempt(() => space.and(possible, meeting(gate.who, at))),
  }));
  const who = simplerThan(gate.who, (one) =>
    those.every(({ at, set }) => space.attempt(() => space.and(possible, meeting(one, at))) === set),
  );
  // What reads the same is no simpler to anybody.
  const { vocabulary } = reach.compiled;
  return who === null || describeWho(who, vocabulary) === describeWho(gate.who, vocabulary)
    ? []
    : [{ gate: gate.id, kind: 'can be simpler', who }];
}

const nobodyDoes = (reach: Reach, gate: Gate, own: readonly Way[]): boolean =>
  own.every((way) => passing(reach, hurdlesOf(gate, way)) === NONE);
