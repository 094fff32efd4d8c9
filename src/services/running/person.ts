/** A person in memory: what is kept of them, and the facts that decisions are made of. */
import { createHmac, createSecretKey, type KeyObject } from 'node:crypto';
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

// Field by field: taking a record apart and putting it together again takes longer than all the rest.
const factsIn = (record: PersonRecord, source: FactSource): VisitorFacts => {
  const { id, email, level, roles, groups, groupsSince, profile, joined, enrolments, completions } = record;
  const bought = source.bought.get(id);
  return factsOf(
    {
      id,
      email: source.unconfirmed.has(id) ? null : email,
      level,
      roles,
      groups,
      groupsSince,
      profile,
      joined,
      enrolments,
      completions,
      purchases: bought ? [...record.purchases, ...bought] : record.purchases,
      desk: record.desk?.right ?? null,
      share: shareOf(id, source.settings.shareKey),
    },
    source,
  );
};

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
  // Very many are asked for one after the other: a key is read once, and no buffer is made of the answer.
  if (key?.hex !== shareKey) key = { hex: shareKey, secret: createSecretKey(shareKey, 'hex') };
  const hash = createHmac('sha256', key.secret).update(id).digest('hex');
  return (Number.parseInt(hash.slice(0, 8), 16) / 2 ** 32) * 100;
}

let key: { readonly hex: string; readonly secret: KeyObject } | undefined;

/** A person as a stand-in of the board. */
export const memberOf = ({ id, name, facts }: Person): Member => ({ id, name, facts });
