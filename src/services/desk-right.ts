import type { Person } from './person';
import type { Visitor } from './visitor';

declare const brand: unique symbol;

/** A person who has been found to have the right to use the desk. Desk services take nothing less. */
export interface Administrator extends Person {
  readonly session: string;
  readonly [brand]: 'administrator';
}

/** The visitor as an administrator, or null if they may not use the desk. */
export const administratorOf = ({ person, session }: Visitor): Administrator | null =>
  person?.desk && session !== null ? ({ ...person, session } as Administrator) : null;
