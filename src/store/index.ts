/** What is kept: queries over PostgreSQL, one file per kind of thing. */

export * from './areas';
export { askedThread } from './asked-thread';
export * from './attempts';
export { isAway, isLocked } from './away';
export * from './base-backup';
export * from './boards';
export * from './changes';
export * from './codes';
export * from './content';
export * from './database';
export { type Embedded, openEmbedded } from './embedded';
export * from './files';
export * from './hand-ins';
export * from './invitations';
export * from './item-drafts';
export * from './items';
export * from './journal';
export * from './keys';
export { copyDatabase, countOthers, differingTables, isEmptyDatabase } from './move';
export * from './names';
export { newDatabaseFile } from './new-database';
export { isOnServer, openDatabase } from './open-database';
export * from './orders';
export * from './outbox';
export { packedPeople, packPerson, type Slice, saysMail, unpackPerson } from './packed-person';
export * from './people';
export * from './people-anew';
export * from './people-changes';
export { inOrder, type PersonRecord } from './person-record';
export * from './places';
export * from './played';
export * from './policies';
export * from './product-terms';
export * from './quiz-attempts';
export * from './removals';
export * from './search-texts';
export type { FormField, SectionContent } from './section-content';
export * from './sessions';
export * from './set-asides';
export * from './settings';
export * from './snapshot';
export * from './takings';
export {
  type AreaStep,
  type DraftDocument,
  type DueStep,
  type Hashes,
  JOURNAL_KEEPS,
  type JournalKeeps,
  type PeopleChange,
  type RemovedItems,
  type RevisionEffect,
  SIGN_UPS,
  type SiteLetters,
  type SiteLook,
  type SiteStarts,
  type SiteWords,
  type StandInRef,
  type TakenOver,
  type WalkScene,
} from './types';
export * from './vacuum';
export * from './vouchers';
export * from './walks';
