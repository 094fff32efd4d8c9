import type { PersonId } from '../ids';
import { guest, type VisitorFacts } from './visitor';

/** A member as checking needs them: a name to show and the facts to decide by. */
export interface Member {
  readonly id: PersonId;
  readonly name: string;
  readonly facts: VisitorFacts;
}

/** Somebody who is not on the site: a name and any facts, for trying. They are kept with what they are made of. */
export interface MadeUp {
  readonly id: string;
  readonly name: string;
  readonly facts: VisitorFacts;
}

/** A visitor used for checking. */
export type StandIn =
  | { readonly kind: 'guest' }
  | { readonly kind: 'member'; readonly member: Member }
  | { readonly kind: 'made up'; readonly madeUp: MadeUp };

export function standInFacts(standIn: StandIn): VisitorFacts {
  switch (standIn.kind) {
    case 'guest':
      return guest;
    case 'member':
      return standIn.member.facts;
    case 'made up':
      return standIn.madeUp.facts;
    default:
      return standIn satisfies never;
  }
}

/** A name for a column's head or a sentence's subject. */
export function nameOf(standIn: StandIn): string {
  switch (standIn.kind) {
    case 'guest':
      return 'Guest';
    case 'member':
      return standIn.member.name;
    case 'made up':
      return standIn.madeUp.name;
    default:
      return standIn satisfies never;
  }
}

/** An id that tells stand-ins apart. */
export function keyOfStandIn(standIn: StandIn): string {
  switch (standIn.kind) {
    case 'guest':
      return 'guest';
    case 'member':
      return `member:${standIn.member.id}`;
    case 'made up':
      return `made up:${standIn.madeUp.id}`;
    default:
      return standIn satisfies never;
  }
}
