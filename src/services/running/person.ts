/** A person in memory: what is kept of them, and the facts that decisions are made of. */
import { createHmac } from 'node:crypto';
import {
  type Following,
  factsOf,
  type Member,
  type PersonId,
  type Purchase,
  type VisitorFacts,
} from '@/core';
import type { PersonRecord, Settings } from '@/store';

export interface Person extends PersonRecord {
  readonly facts: VisitorFacts;
}

/** What of a site makes facts of what is kept of people. */
export interface FactSource extends Following {
  readonly settings: Pick<Settings, 'shareKey'>;
  /** What was bought at the till, by person. */
  readonly bought: ReadonlyMap<PersonId, readonly Purchase[]>;
  /** Who never showed that their mailbox is theirs: gates do not know it. */
  readonly unconfirmed: Pick<ReadonlySet<PersonId>, 'has'>;
}

/** Makes a person of what is kept of them. Facts are made when they are asked for: very many people are only gone through. */
export const personOf = (record: PersonRecord, source: FactSource): Person => new KnownPerson(record, source);

class KnownPerson implements Person {
  readonly id;
  readonly email;
  readonly name;
  readonly desk;
  readonly level;
  readonly roles;
  readonly groups;
  readonly groupsSince;
  readonly profile;
  readonly joined;
  readonly purchases;
  readonly enrolments;
  readonly completions;
  readonly #source: FactSource;
  #facts: VisitorFacts | undefined;

  constructor(record: PersonRecord, source: FactSource) {
    this.id = record.id;
    this.email = record.email;
    this.name = record.name;
    this.desk = record.desk;
    this.level = record.level;
    this.roles = record.roles;
    this.groups = record.groups;
    this.groupsSince = record.groupsSince;
    this.profile = record.profile;
    this.joined = record.joined;
    this.purchases = record.purchases;
    this.enrolments = record.enrolments;
    this.completions = record.completions;
    this.#source = source;
  }

  get facts(): VisitorFacts {
    this.#facts ??= factsIn(this, this.#source);
    return this.#facts;
  }
}

const factsIn = (record: PersonRecord, source: FactSource): VisitorFacts =>
  factsOf(
    {
      ...heldBy(record),
      email: source.unconfirmed.has(record.id) ? null : record.email,
      purchases: [...record.purchases, ...(source.bought.get(record.id) ?? [])],
      desk: record.desk?.right ?? null,
      share: shareOf(record.id, source.settings.shareKey),
    },
    source,
  );

/** What of a record conditions may ask about. */
const heldBy = ({ desk: _, name: __, ...held }: PersonRecord): Omit<PersonRecord, 'desk' | 'name'> => held;

/** What is kept of a person, without what was made of it. */
export const recordOf = (person: Person): PersonRecord => {
  const { id, email, name, desk, level, roles, groups, groupsSince, profile, joined } = person;
  const { purchases, enrolments, completions } = person;
  return {
    id,
    email,
    name,
    desk,
    level,
    roles,
    groups,
    groupsSince,
    profile,
    joined,
    purchases,
    enrolments,
    completions,
  };
};

/** Where somebody falls between 0 and 100: always the same, and nothing that they could choose. */
export function shareOf(id: string, shareKey: string): number {
  const hash = createHmac('sha256', Buffer.from(shareKey, 'hex')).update(id).digest();
  return (hash.readUInt32BE(0) / 2 ** 32) * 100;
}

/** A person as a stand-in of the board. */
export const memberOf = ({ id, name, facts }: Person): Member => ({ id, name, facts });
