import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { asId, keptNames, noNames, PackedMap, type PersonId } from '@/core';
import {
  inOrder,
  type OpenDatabase,
  type PersonRecord,
  packedPeople,
  packPerson,
  readPackedPeople,
  readPeopleAnew,
  saysMail,
  unpackPerson,
  writeNames,
  writePeople,
} from '.';
import { openFresh } from './testing';

// Quotes, what looks like the end of one, line ends, halves of letters that need two, and what JSON escapes.
const said = fc.string({
  unit: fc.constantFrom('a', 'Z', '"', '\\', ',', '[', '\n', '\t', '\u0001', ' ', 'é', '豈', '𝒜', '\u2028'),
  maxLength: 8,
});
/** No database tells zeros apart. */
const number = fc.double({ noNaN: true, noDefaultInfinity: true }).map((one) => one + 0);
const day = fc.integer({ min: 1, max: 28 }).map((at) => `2026-02-${String(at).padStart(2, '0')}`);
const some = (...ids: readonly string[]) => fc.subarray([...ids]).map((list) => list.map((one) => asId(one)));

const person = fc
  .record({
    id: fc.nat(999).chain((n) => said.map((text) => asId<PersonId>(`${n}${text}`))),
    email: said,
    name: said,
    desk: fc.option(
      fc.record({
        right: fc.constantFrom('owner' as const, 'tutor' as const),
        branch: fc.option(fc.constant(asId('b'))),
      }),
    ),
    level: fc.option(fc.constant(asId('keeper'))),
    roles: some('trustee', 'guide'),
    groups: some('crew', 'survey'),
    since: day,
    profile: fc.dictionary(
      fc.constantFrom('team', 'hours', 'odd"one', '__proto__'),
      fc.oneof(said, number, fc.boolean()),
      { noNullPrototype: true },
    ),
    joined: fc.option(day),
    purchases: fc.array(
      fc.record({
        product: fc.constant(asId('atlas')),
        on: day,
        until: fc.option(day),
        state: fc.constantFrom('paid' as const, 'refunded' as const),
      }),
      { maxLength: 3 },
    ),
    enrolments: fc.uniqueArray(
      fc.record({
        course: fc.constantFrom('one', 'two').map((one) => asId(one)),
        on: day,
        until: fc.option(day),
      }),
      { selector: ({ course }) => course, maxLength: 2 },
    ),
    completions: fc.uniqueArray(
      fc.record({
        item: fc.constantFrom('one', 'two').map((one) => asId(one)),
        on: day,
        score: fc.option(number),
      }),
      { selector: ({ item }) => item, maxLength: 2 },
    ),
  })
  .map(({ since, ...one }): PersonRecord => {
    const record = { ...one, groupsSince: Object.fromEntries(one.groups.slice(1).map((id) => [id, since])) };
    return { ...record, ...inOrder(record as PersonRecord) } as PersonRecord;
  });
const crowd = fc
  .uniqueArray(person, { selector: ({ id }) => id, maxLength: 60 })
  .map((list) => list.map((one, at) => ({ ...one, email: `${at}${one.email}` })));

const packing = { ...packedPeople, keyOf: ({ id }: PersonRecord) => id, read: unpackPerson };

let opened: OpenDatabase;
beforeAll(async () => {
  opened = await openFresh();
  const named = (...ids: readonly string[]) => ids.map((id) => ({ id: asId<never>(id), name: id }));
  await writeNames(opened.db, {
    ...keptNames(noNames),
    levels: named('keeper'),
    roles: named('trustee', 'guide'),
    groups: named('crew', 'survey').map((one) => ({ ...one, private: false, open: false })),
    products: named('atlas').map((one) => ({ ...one, kind: 'one-off' })),
  });
});
afterAll(() => opened.close());

it('is one line that says all that is kept of a person', () => {
  fc.assert(
    fc.property(person, (one) => {
      const line = packPerson(one);
      expect(line).not.toContain('\n');
      expect(unpackPerson(line)).toEqual(one);
      expect(line.startsWith(packedPeople.headOf(one.id))).toBe(true);
      expect(packedPeople.keyAt(`x\n${line}`, 2)).toBe(one.id);
      expect(line).toContain(saysMail(one.email));
    }),
  );
});

it('is said by the database as it is written, of everybody in order and of some', async () => {
  await fc.assert(
    fc.asyncProperty(crowd, async (people) => {
      // NUL is the one letter that a database refuses; none is among these.
      await opened.db
        .transaction(async (tx) => {
          await writePeople(
            tx,
            people.map((after) => ({ before: null, after })),
          );
          const read = PackedMap.of(await readPackedPeople(tx, 7), packing);
          const made = PackedMap.ofLines(people.map(packPerson), packing);
          expect([...read]).toEqual([...made]);
          for (const one of people) expect(read.get(one.id)).toEqual(one);
          const ids = people.filter((_, at) => at % 2 === 0).map(({ id }) => id);
          const found = await readPeopleAnew(tx, ids);
          expect(new Map(found.map(({ id, record }) => [id, record]))).toEqual(
            new Map(people.filter(({ id }) => ids.includes(id)).map((one) => [one.id, one])),
          );
          throw new Undone();
        })
        .catch((error: unknown) => {
          if (!(error instanceof Undone)) throw error;
        });
    }),
    { numRuns: 40 },
  );
});

it('lets whoever else asks have an answer while everybody is read', async () => {
  const members = Array.from({ length: 1000 }, (_, at) => ({
    ...(fc.sample(person, { seed: at, numRuns: 1 })[0] as PersonRecord),
    id: asId<PersonId>(`m${at}`),
    email: `m${at}@larkfell.example`,
  }));
  await writePeople(
    opened.db,
    members.map((after) => ({ before: null, after })),
  );
  const done: string[] = [];
  const read = readPackedPeople(opened.db, 100).then((texts) => {
    done.push('everybody');
    return PackedMap.of(texts, packing);
  });
  await readPeopleAnew(opened.db, [asId<PersonId>('m500')]).then(() => done.push('one'));
  expect([...(await read).keys()].toSorted()).toEqual(members.map(({ id }) => id).toSorted());
  expect(done).toEqual(['one', 'everybody']);
});

class Undone extends Error {}
