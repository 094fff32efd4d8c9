/** The keys of a table in the order in which it is written, as a list that is known not to be empty. */
export const keysOf = <T extends object>(table: T): readonly [keyof T & string, ...(keyof T & string)[]] =>
  Object.keys(table) as [keyof T & string, ...(keyof T & string)[]];

/** What stands under those keys, in the same order. */
export const valuesOf = <T extends object>(table: T): readonly [T[keyof T], ...T[keyof T][]] =>
  Object.values(table) as [T[keyof T], ...T[keyof T][]];
