/** What somebody gets, as what is to stay so. */
import { expect, it } from 'vitest';
import { all, any, everyone, guests, hasRole, inGroup, level, signedIn, test } from '../condition';
import { asId, type ItemId } from '../ids';
import { compile, decide, outcomeOf } from '../policy';
import { guest, member, type StandIn, type VisitorFacts } from '../site';
import { crew, keeper, outline, people, policy, request, trustee, vocabulary } from '../testing/larkfell';
import { meantBy, pinned, whomTheyCanBe } from './pinned';
import { printExpectation } from './print';

const compiled = compile(policy, outline, vocabulary);
const madeUp = (facts: VisitorFacts): StandIn => ({
  kind: 'made up',
  madeUp: { id: 'a', name: 'A', facts },
});
const texts = (...items: readonly string[]) => {
  const got = items.map((item) => {
    const id = asId<ItemId>(item);
    return [id, outcomeOf(decide(compiled, id, guest, request))] as const;
  });
  return pinned(guests, got, outline).map((one) => printExpectation(one, { vocabulary, outline }));
};

it('says one thing for each that is got, and a branch where nothing is seen of all of it', () => {
  expect(texts('crew', 'rota')).toEqual(['not signed in never sees branch "Dome crew"']);
  expect(texts('crew', 'rota', 'home', 'observers')).toEqual([
    'not signed in never sees branch "Dome crew"',
    'not signed in opens "Home"',
    'not signed in gets redirect at "Observers’ room"',
  ]);
  expect(texts('crew')).toEqual(['not signed in never sees "Dome crew"']);
  expect(texts('rota')).toEqual(['not signed in never sees "Rota"']);
});

it('says in several what is too much for one', () => {
  const many = Array.from({ length: 1200 }, (_, at) => [asId<ItemId>(`item-${at}`), 'open'] as const);
  expect(pinned(guests, many, outline).map(({ what }) => what.targets.length)).toEqual([500, 500, 200]);
});

it('is meant for whom a stand-in stands', () => {
  expect(meantBy({ kind: 'guest' })).toEqual(guests);
  const ines = { id: asId<never>('ines'), name: 'Ines', facts: member({ email: 'ines@larkfell.example' }) };
  expect(meantBy({ kind: 'member', member: ines })).toEqual(test('person', 'is', 'ines@larkfell.example'));
  expect(meantBy(madeUp(member()))).toEqual(signedIn);
  expect(meantBy(madeUp(people.ines))).toEqual(all(level('exactly', keeper), inGroup(crew)));
});

it('can be meant for everybody with something that they have, and for nobody who has it not', () => {
  expect(whomTheyCanBe([{ kind: 'guest' }], vocabulary, request)).toEqual([guests]);
  const choices = whomTheyCanBe([madeUp(people.priya)], vocabulary, request);
  expect(choices).toContainEqual(hasRole(trustee));
  expect(choices).toContainEqual(level('at least', keeper));
  expect(choices).not.toContainEqual(inGroup(crew));
  expect(choices.at(-1)).toEqual(signedIn);
});

it('can be meant for several: themselves, those who have what all of them have, and everybody', () => {
  const two = whomTheyCanBe([madeUp(people.priya), madeUp(people.ines)], vocabulary, request);
  expect(two[0]).toEqual(any(meantBy(madeUp(people.priya)), meantBy(madeUp(people.ines))));
  expect(two).toContainEqual(level('at least', keeper));
  expect(two).not.toContainEqual(hasRole(trustee));
  expect(two.at(-1)).toEqual(signedIn);
  const withGuests = whomTheyCanBe([{ kind: 'guest' }, madeUp(people.ines)], vocabulary, request);
  expect(withGuests).toEqual([any(guests, meantBy(madeUp(people.ines))), everyone]);
});
