/**
 * Branded ids: a role's id can't be passed where a group's is wanted. At run time they are plain strings
 * of the site's own choosing; renaming a thing never changes its id, so conditions survive a rename.
 */
declare const brand: unique symbol;
type Id<Name extends string> = string & { readonly [brand]: Name };

export type ItemId = Id<'item'>;
export type GateId = Id<'gate'>;
export type AudienceId = Id<'audience'>;
export type PersonId = Id<'person'>;
export type RoleId = Id<'role'>;
export type GroupId = Id<'group'>;
export type LevelId = Id<'level'>;
export type ProductId = Id<'product'>;
export type FieldId = Id<'field'>;
export type PassphraseId = Id<'passphrase'>;
export type TurnAwayId = Id<'turn-away'>;
export type LandingId = Id<'landing'>;
export type ExpectationId = Id<'expectation'>;
export type PriceId = Id<'price'>;
export type OrderId = Id<'order'>;
export type VoucherId = Id<'voucher'>;

/** Takes a string that is known to be an id of the wanted kind (from the database, a parsed form, a test). */
export const asId = <T extends Id<string>>(text: string): T => text as T;
