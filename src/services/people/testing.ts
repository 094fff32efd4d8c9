/** What tests of people ask again and again. */
import { expect } from 'vitest';
import { asId, type PersonId } from '@/core';
import { type Administrator, findPeople, type Trivet, undoChange } from '..';
import { now } from '../testing';

/** By whoever is at the desk when it is asked. */
export function peopleAt(desk: () => { readonly trivet: Trivet; readonly greta: Administrator }) {
  return {
    /** Somebody who is there. */
    person: (id: string) => {
      const found = desk().trivet.state.people.get(asId<PersonId>(id));
      if (!found) throw new Error(`There is no ${id}.`);
      return found;
    },
    find: async (over: object) => {
      const { trivet, greta } = desk();
      const answer = await findPeople(trivet, greta, over, now);
      if (answer.kind !== 'found') throw new Error(answer.kind);
      return answer;
    },
    undo: async (answer: { readonly kind: string; readonly change?: string }) => {
      const { trivet, greta } = desk();
      expect(answer.kind).toMatch(/changed|saved/);
      expect(await undoChange(trivet, greta, answer.change)).toMatchObject({ kind: 'changed' });
    },
  };
}
