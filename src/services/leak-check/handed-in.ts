/** Work handed in by those whom doors are tried as, with a mark of their own in each: it is theirs and nobody else's. */
import type { ItemId, Outline, PersonId } from '@/core';
import { type HandedFile, type HandIn, insertHandIn } from '@/store';
import type { Trivet } from '../running';

export interface PlantedWork {
  readonly handIn: HandIn;
  readonly file: HandedFile & { readonly bytes: Uint8Array };
}

/** As many of these are enough to try whether somebody gets what is another's. */
const MOST_PEOPLE = 12;

/** A hand-in by some people to every activity that takes one; `own` makes a mark of somebody's. */
export const plantWork = (
  { items }: Outline,
  people: readonly PersonId[],
  now: Date,
  own: (person: PersonId) => string,
): readonly PlantedWork[] =>
  [...items.values()]
    .filter((item) => item.kind === 'activity' && item.activity === 'hand-in')
    .flatMap(({ id: activity }) =>
      people.slice(0, MOST_PEOPLE).map((person): PlantedWork => {
        const bytes = new TextEncoder().encode(own(person));
        const id = `work-${activity}-${person}`;
        return {
          handIn: {
            id,
            person,
            activity,
            version: 1,
            text: own(person),
            at: now,
            state: 'given back',
            score: null,
            words: own(person),
            by: own(person),
            judged: now,
          },
          file: {
            id: `file-${id}`,
            handIn: id,
            name: `${own(person)}.txt`,
            mediaType: 'text/plain',
            size: bytes.length,
            bytes,
          },
        };
      }),
    );

export async function writeWork({ db }: Trivet, list: readonly PlantedWork[]): Promise<void> {
  for (const { handIn, file } of list) await insertHandIn(db, handIn, [file]);
}

/** Where work is, for whoever handed it in. */
export const pathsOfWork = (list: readonly PlantedWork[]): readonly string[] =>
  list.flatMap(({ handIn: { activity }, file }) => [
    pathOfHandIn(activity),
    `${pathOfHandIn(activity)}/${file.id}/${file.name}`,
  ]);

export const pathOfHandIn = (activity: ItemId): string => `/me/hand-in/${encodeURIComponent(activity)}`;
