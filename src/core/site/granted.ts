/** What purchases give while they are held, and what somebody has with it at a moment. */
import type { GroupId, ItemId, LevelId, ProductId, RoleId } from '../ids';
import type { Day } from './day';
import type { VisitorFacts } from './visitor';
import type { Named } from './vocabulary';

/** What a product gives while it is held. */
export interface Grants {
  readonly level: LevelId | null;
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
  readonly enrolments: readonly GrantedEnrolment[];
}

/** A course that a product brings, and for how many days: as many as the course says, where nothing is said here. */
export interface GrantedEnrolment {
  readonly course: ItemId;
  readonly days: number | null;
}

/** What gives nothing. */
export const noGrants: Grants = { level: null, roles: [], groups: [], enrolments: [] };

/** What products give. */
export type ByProduct = ReadonlyMap<ProductId, Grants>;

/** What one purchase gives, and when. */
export interface Granted {
  readonly product: ProductId;
  readonly on: Day;
  /** The last day; null where it does not end. */
  readonly until: Day | null;
  readonly level: LevelId | null;
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
}

/** What somebody has at a moment, by hand and by purchases, and for how long that stays the same. */
interface HeldThen {
  readonly from: Day;
  readonly until: Day;
  readonly levels: readonly LevelId[];
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
}

const FIRST: Day = '0000-01-01';
const LAST: Day = '9999-12-31';

const isThen = ({ on, until }: Granted, day: Day): boolean => on <= day && (until === null || day <= until);

function heldOn({ granted, level, roles, groups }: VisitorFacts, day: Day): HeldThen {
  let [from, until] = [FIRST, LAST];
  const levels = level === null ? [] : [level];
  const allRoles = new Set(roles);
  const allGroups = new Set(groups);
  // Days are told apart by before, within and after: it stays so until the next begins, or one of these ends.
  for (const one of granted) {
    if (isThen(one, day)) {
      if (one.level !== null) levels.push(one.level);
      for (const role of one.roles) allRoles.add(role);
      for (const group of one.groups) allGroups.add(group);
      if (one.on > from) from = one.on;
      if (one.until !== null && one.until < until) until = one.until;
    } else if (one.on > day) {
      const before = dayBefore(one.on);
      if (before < until) until = before;
    } else if (one.until !== null && one.until >= from) from = dayAfter(one.until);
  }
  return { from, until, levels, roles: [...allRoles], groups: [...allGroups] };
}

// Of texts that stand for days only the order counts here, so that no calendar has to be asked.
const dayBefore = (day: Day): Day => `${day.slice(0, 9)}${String.fromCharCode(day.charCodeAt(9) - 1)}`;
const dayAfter = (day: Day): Day => `${day}~`;

const kept = new WeakMap<VisitorFacts, HeldThen>();
// Who was asked about last, for which day, and by which order of levels: mostly it is the same again.
let asked: VisitorFacts | null = null;
let on: Day = '';
let then: HeldThen = { from: FIRST, until: LAST, levels: [], roles: [], groups: [] };
let order: readonly Named<LevelId>[] | null = null;
let highest: LevelId | null = null;

const heldThen = (visitor: VisitorFacts, day: Day): HeldThen =>
  visitor === asked && day === on ? then : heldAnew(visitor, day);

/** What somebody has on a day, worked out anew only when it may be something else. */
function heldAnew(visitor: VisitorFacts, day: Day): HeldThen {
  const known = kept.get(visitor);
  const found = known && known.from <= day && day <= known.until ? known : heldOn(visitor, day);
  if (found !== known) kept.set(visitor, found);
  asked = visitor;
  on = day;
  then = found;
  order = null;
  return found;
}

/** The roles that somebody has on a day; null where nobody knows. */
export const rolesAt = (visitor: VisitorFacts, day: Day): readonly RoleId[] | null =>
  visitor.granted.length === 0 || visitor.roles === null ? visitor.roles : heldThen(visitor, day).roles;

/** The groups that somebody is in on a day; null where nobody knows. */
export const groupsAt = (visitor: VisitorFacts, day: Day): readonly GroupId[] | null =>
  visitor.granted.length === 0 || visitor.groups === null ? visitor.groups : heldThen(visitor, day).groups;

/** The level that somebody has on a day: the highest of those that were given to them. */
export function levelAt(visitor: VisitorFacts, day: Day, levels: readonly Named<LevelId>[]): LevelId | null {
  if (visitor.granted.length === 0) return visitor.level;
  if (visitor === asked && day === on && levels === order) return highest;
  highest = highestOf(heldThen(visitor, day).levels, levels);
  order = levels;
  return highest;
}

function highestOf(held: readonly LevelId[], levels: readonly Named<LevelId>[]): LevelId | null {
  if (held.length < 2) return held[0] ?? null;
  return held.reduce((highest, level) => (rankOf(level, levels) > rankOf(highest, levels) ? level : highest));
}

const rankOf = (level: LevelId, levels: readonly Named<LevelId>[]): number =>
  levels.findIndex(({ id }) => id === level);
