import fc from 'fast-check';
import { expect, it } from 'vitest';
import { nobody, not, signedIn, test } from '../condition';
import type { Gate } from '../gate';
import { missing } from '../gate';
import { asId, type GateId } from '../ids';
import {
  type Item,
  LISTS,
  type NameKind,
  namesOf,
  noNames,
  type SiteNames,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import { gates as anyGate, visitors } from '../testing/arbitraries';
import { crew, items, people, request, soundOutline, vocabulary } from '../testing/larkfell';
import { compile, decide, openPolicy, type Policy } from '.';

// Items with facts of their own, groups among them, so that what gates describe takes some of them.
const furnished: readonly Item[] = items.map((item, at) => ({
  ...item,
  facts: {
    ...item.facts,
    ...(at % 2 === 0 && { group: crew }),
    ...(at % 3 === 0 && { owner: asId<never>('ines') }),
  },
}));
const outline = soundOutline(furnished);

const everyName = (Object.keys(LISTS) as NameKind[]).flatMap((kind) =>
  namesOf(vocabulary, kind).map(({ id }) => ({ kind, id })),
);

const without = ({ kind, id }: (typeof everyName)[number]): Vocabulary => ({
  ...vocabulary,
  [LISTS[kind]]: namesOf(vocabulary, kind).filter((one) => one.id !== id),
});

/** What a visitor is left with: nothing of them says the name any more. Levels are looked at where they are taken away. */
const withoutIt = (visitor: VisitorFacts, { kind, id }: (typeof everyName)[number]): VisitorFacts => {
  const rest = <T>(list: readonly T[] | null, of: (one: T) => string) =>
    list?.filter((one) => of(one) !== id) ?? null;
  const { [kind === 'field' ? id : '']: _, ...profile } = visitor.profile ?? {};
  return {
    ...visitor,
    roles: rest(visitor.roles, (one) => one),
    groups: rest(visitor.groups, (one) => one),
    profile: visitor.profile && profile,
    purchases: rest(visitor.purchases, ({ product }) => product),
    enrolments: rest(visitor.enrolments, ({ course }) => course),
    completions: rest(visitor.completions, ({ item }) => item),
    passphrases: visitor.passphrases.filter((one) => one !== id),
  };
};

const compiledWith = (gates: readonly Gate[], { audiences, ...names }: Vocabulary) =>
  compile({ ...openPolicy, gates, audiences } satisfies Policy, outline, names as SiteNames);

it('opens nothing to anybody to take a name away, whatever asks for it', () => {
  fc.assert(
    fc.property(
      fc.array(anyGate, { minLength: 1, maxLength: 4 }),
      fc.constantFrom(...everyName),
      visitors,
      (gates, name, visitor) => {
        const before = compiledWith(gates, vocabulary);
        const after = compiledWith(gates, without(name));
        const left = withoutIt(visitor, name);
        for (const { id } of furnished) {
          if (decide(before, id, visitor, request).kind === 'open') continue;
          expect(decide(after, id, left, request).kind, `${name.kind} ${name.id}, ${id}`).toBe('turned away');
        }
      },
    ),
    { numRuns: 400 },
  );
});

const over = (where: Gate['who'], who: Gate['who'], stance: Gate['stance'] = 'also'): Gate => ({
  id: asId<GateId>(`over-${stance}`),
  what: { targets: [{ kind: 'selection', where }], except: [] },
  who,
  otherwise: { cases: [], last: missing },
  stance,
});
const goneNames = { ...noNames, groups: vocabulary.groups.filter(({ id }) => id !== crew) };
const ofCrew = furnished.find(({ facts, kind }) => facts?.group === crew && kind === 'page') as Item;

it('goes on covering the items of a group that is no longer there', () => {
  const compiled = compile(
    { ...openPolicy, gates: [over(test('item group', 'includes', crew), signedIn)] },
    outline,
    goneNames,
  );
  expect(decide(compiled, ofCrew.id, people.guest, request).kind).toBe('turned away');
});

it('goes on setting aside by a group that is no longer there, and not what it set aside in its stead', () => {
  const gates = [
    over(test('item kind', 'is', 'page'), signedIn),
    over(test('item group', 'includes', crew), nobody, 'instead'),
  ];
  const compiled = compile({ ...openPolicy, gates }, outline, goneNames);
  expect(decide(compiled, ofCrew.id, people.ines, request).kind).toBe('turned away');
});

it('does not know who is in an item’s group when that is gone, so nobody is outside it', () => {
  const outsiders = over(test('item kind', 'is', 'page'), not(test('visitor in item group', 'is')));
  const compiled = compile({ ...openPolicy, gates: [outsiders] }, outline, goneNames);
  expect(decide(compiled, ofCrew.id, { ...people.ines, groups: [] }, request).kind).toBe('turned away');
});
