/** What is certain of names, audiences and products: nobody asks for them, or two are taken for one another. */
import { audiencesIn, expanded, foldCase, isFakeable, problemOf, testsIn } from '../condition';
import type { Gate } from '../gate';
import { asksAbout, type CompiledPolicy, conditionsOfPolicy, namedIn, namesUsed } from '../policy';
import { type NameKind, namesOf } from '../site';
import { NONE, orElse } from './diagram';
import type { Finding } from './finding';
import type { Reach } from './reach';
import type { Asked } from './things';

/** What a gate names and is gone. */
export function goneIn(gate: Gate, { vocabulary }: CompiledPolicy): readonly Finding[] {
  const there = new Set<string>(vocabulary.audiences.map(({ id }) => id));
  const names = [
    ...new Set([
      ...testsIn(expanded(gate.who, vocabulary.audiences)).flatMap(
        (test) => problemOf(test, vocabulary)?.message ?? [],
      ),
      ...audiencesIn(gate.who).flatMap((id) =>
        there.has(id) ? [] : ['An audience that it uses no longer exists.'],
      ),
    ]),
  ];
  return names.length === 0 ? [] : [{ gate: gate.id, kind: 'names what is gone', names }];
}

/** A gate that lets by whoever says the right thing of themselves. */
export function madeUpIn(gate: Gate, { vocabulary }: CompiledPolicy): readonly Finding[] {
  const tests = testsIn(expanded(gate.who, vocabulary.audiences));
  return tests.length > 0 && tests.every((test) => isFakeable(test, vocabulary))
    ? [{ gate: gate.id, kind: 'made up' }]
    : [];
}

/** What audiences ask, so that two can be compared. */
export function* askedByAudiences({ policy, vocabulary }: CompiledPolicy): Iterable<Asked> {
  for (const { who } of policy.audiences)
    for (const test of testsIn(expanded(who, vocabulary.audiences))) yield { test, item: null };
}

export function audienceFindings(reach: Reach): readonly Finding[] {
  const { policy, vocabulary } = reach.compiled;
  const used = new Set(conditionsOfPolicy(policy).flatMap(audiencesIn));
  // What asks about an item is another thing at each.
  const comparable = policy.audiences.filter(({ who }) => !asksAbout(who, vocabulary));
  const sets = comparable.map(({ id, who }) => ({
    id,
    set: orElse(
      () => reach.space.attempt(() => reach.space.and(reach.possible, reach.meeting(who, null))),
      () => null,
    ),
  }));
  const alike = sets.flatMap(({ id, set }, at): readonly Finding[] => {
    const twin = set === null || set === NONE ? undefined : sets.slice(0, at).find((one) => one.set === set);
    return twin ? [{ gate: null, kind: 'audiences alike', audience: id, other: twin.id }] : [];
  });
  const unused = policy.audiences.filter(({ id }) => !used.has(id)).map(({ id }) => id);
  return [
    ...alike,
    ...(unused.length === 0 ? [] : [{ gate: null, kind: 'audiences unused', audiences: unused } as const]),
  ];
}

const COMPARED = ['group', 'role', 'level'] as const satisfies readonly NameKind[];
const SHORTEST = 5;
/** Beyond so many names nobody reads what is alike. */
const MOST_NAMES = 400;

/** Names one letter apart, or the same in two kinds, of which one is asked for nowhere. */
export function namesAlike({ policy, vocabulary }: CompiledPolicy): readonly Finding[] {
  const names = COMPARED.flatMap((kind) =>
    namesOf(vocabulary, kind).map(({ id, name }) => ({ kind, id, bare: bare(name) })),
  );
  if (names.length > MOST_NAMES) return [];
  const used = namesUsed(policy);
  const isUnused = ({ kind, id }: (typeof names)[number]) => !used.has(`${kind} ${id}`);
  return names.flatMap((one, place): readonly Finding[] => {
    if (!isUnused(one)) return [];
    // Of two that nobody asks for it is said once, of the one that comes last.
    const like = names.find(
      (other, at) => at !== place && (at < place || !isUnused(other)) && areAlike(one.bare, other.bare),
    );
    return like
      ? [
          {
            gate: null,
            kind: 'names alike',
            unused: { kind: one.kind, id: one.id },
            like: { kind: like.kind, id: like.id },
          },
        ]
      : [];
  });
}

const bare = (name: string): string => foldCase(name).replace(/(s|\s)+$/u, '');

function areAlike(a: string, b: string): boolean {
  if (a === b) return true;
  if (Math.min(a.length, b.length) < SHORTEST || Math.abs(a.length - b.length) > 1) return false;
  return differByOne(a, b);
}

/** Whether one sign more, less or other makes one text of another. */
function differByOne(a: string, b: string): boolean {
  let at = 0;
  while (at < Math.min(a.length, b.length) && a[at] === b[at]) at += 1;
  return (
    a.slice(at + 1) === b.slice(at + 1) || a.slice(at) === b.slice(at + 1) || a.slice(at + 1) === b.slice(at)
  );
}

/** What is sold. */
export type Sold = ReadonlySet<string>;

/** Products on sale that open nothing, and gates that ask for products that are not. */
export function productFindings(reach: Reach, sold: Sold): readonly Finding[] {
  const { compiled, following, cells } = reach;
  const { policy, vocabulary } = compiled;
  const asked = new Set(cells.things.map(({ thing }) => `${thing.kind} ${thing.of}`.trim()));
  const opens = (product: string): boolean => {
    if (asked.has(`product ${product}`)) return true;
    const grants = following.byProduct.get(product as never);
    if (!grants) return false;
    return (
      (grants.level !== null && asked.has('level')) ||
      grants.roles.some((role) => asked.has(`role ${role}`)) ||
      grants.groups.some((group) => asked.has(`group ${group}`)) ||
      grants.enrolments.length > 0
    );
  };
  return [
    ...vocabulary.products.flatMap(({ id }): readonly Finding[] =>
      sold.has(id) && !opens(id) ? [{ gate: null, kind: 'product opens nothing', product: id }] : [],
    ),
    ...policy.gates.flatMap((gate): readonly Finding[] =>
      vocabulary.products
        .filter(
          ({ id }) =>
            !sold.has(id) && namedIn(expanded(gate.who, vocabulary.audiences)).includes(`product ${id}`),
        )
        .map(({ id }) => ({ gate: gate.id, kind: 'asks for what is not sold', product: id })),
    ),
  ];
}
