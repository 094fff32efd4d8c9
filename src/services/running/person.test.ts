import { createHmac } from 'node:crypto';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import type { PersonRecord } from '@/store';
import { personOf, recordOf } from '.';
import { shareOf } from './person';

const record: PersonRecord = {
  id: asId<PersonId>('ines'),
  email: 'ines@larkfell.example',
  name: 'Ines Calloway',
  desk: null,
  level: null,
  roles: [],
  groups: [asId('dome-crew')],
  groupsSince: {},
  profile: { valley: 'Sett' },
  joined: '2024-01-01',
  purchases: [{ product: asId('atlas'), on: '2026-01-01', until: null, state: 'paid' }],
  enrolments: [],
  completions: [],
};
const source = {
  settings: { shareKey: '00ff'.repeat(16) },
  bought: new Map(),
  unconfirmed: new Set<PersonId>(),
  byGroup: new Map(),
  byProduct: new Map(),
};

it('falls where a keyed hash says, whichever key was asked with before', () => {
  const key = fc
    .uint8Array({ minLength: 32, maxLength: 32 })
    .map((bytes) => Buffer.from(bytes).toString('hex'));
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), key, (id, hex) => {
      const hash = createHmac('sha256', Buffer.from(hex, 'hex')).update(id).digest();
      expect(shareOf(id, hex)).toBe((hash.readUInt32BE(0) / 2 ** 32) * 100);
    }),
  );
});

it('has its facts made once, and is the record that it was made of', () => {
  const person = personOf(record, source);
  expect(person.facts).toBe(person.facts);
  expect(recordOf(person)).toEqual(record);
  expect(person.facts).toMatchObject({ email: record.email, purchases: record.purchases, signedIn: true });
});

it('is known to gates by what was bought at the till as well, and not by a mailbox that nobody has shown to be theirs', () => {
  const bought = { ...record.purchases[0], on: '2026-02-02' } as PersonRecord['purchases'][number];
  const person = personOf(record, {
    ...source,
    bought: new Map([[record.id, [bought]]]),
    unconfirmed: new Set([record.id]),
  });
  expect(person.facts.purchases).toEqual([...record.purchases, bought]);
  expect([person.facts.email, person.email]).toEqual([null, record.email]);
});
