import type { PersonId } from '../ids';
import { guest, type VisitorFacts } from './visitor';

/** A member as checking needs them: a name to show and the facts to decide by. */
export interface Member {
  readonly id: PersonId;
  readonly name: string;
  readonly facts: VisitorFacts;
}

/** A visitor used for checking. */
export type StandIn = { readonly kind: 'guest' } | { readonly kind: 'member'; readonly member: Member };

export const factsOf = (standIn: StandIn): VisitorFacts =>
  standIn.kind === 'guest' ? guest : standIn.member.facts;

/** A name for a column's head or a sentence's subject. */
export const nameOf = (standIn: StandIn): string =>
  standIn.kind === 'guest' ? 'Guest' : standIn.member.name;

/** An id that tells stand-ins apart. */
export const keyOfStandIn = (standIn: StandIn): string =>
  standIn.kind === 'guest' ? 'guest' : `member:${standIn.member.id}`;
