/** A person in memory: what is kept of them, and the facts that decisions are made of. */
import { createHmac } from 'node:crypto';
import { type Member, member, type VisitorFacts } from '@/core';
import type { PersonRecord } from '@/store';

export interface Person extends PersonRecord {
  readonly facts: VisitorFacts;
}

/** Makes a person of what is kept of them. The key is the site's, in hex. */
export const personOf = (record: PersonRecord, shareKey: string): Person => ({
  ...record,
  facts: member({
    id: record.id,
    email: record.email,
    roles: record.roles,
    groups: record.groups,
    level: record.level,
    profile: record.profile,
    purchases: record.purchases,
    joined: record.joined,
    enrolments: record.enrolments,
    completions: record.completions,
    desk: record.desk?.right ?? null,
    share: shareOf(record.id, shareKey),
  }),
});

/** What is kept of a person, without what was made of it. */
export const recordOf = ({ facts: _, ...record }: Person): PersonRecord => record;

/** Where somebody falls between 0 and 100: always the same, and nothing that they could choose. */
export function shareOf(id: string, shareKey: string): number {
  const hash = createHmac('sha256', Buffer.from(shareKey, 'hex')).update(id).digest();
  return (hash.readUInt32BE(0) / 2 ** 32) * 100;
}

/** A person as a stand-in of the board. */
export const memberOf = ({ id, name, facts }: Person): Member => ({ id, name, facts });
