/** The tables. Plain PostgreSQL; the embedded database is only where they live by default. */
import { sql } from 'drizzle-orm';
import { boolean, check, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core';
import type { LinkTarget, Policy, StandInRef } from './types';

export const levels = pgTable('levels', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  rank: integer().notNull().unique(),
});

export const roles = pgTable('roles', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
});

export const groups = pgTable('groups', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  private: boolean().notNull().default(false),
});

export const people = pgTable('people', {
  id: text().primaryKey(),
  /** In lower case, so that one mailbox is one account. */
  email: text().notNull().unique(),
  name: text().notNull(),
  /** argon2id in PHC format; null for somebody who can't sign in with a password. */
  passwordHash: text('password_hash'),
  level: text().references(() => levels.id),
  /** Whether this person may use the desk. */
  desk: boolean().notNull().default(false),
});

export const personRoles = pgTable(
  'person_roles',
  {
    person: text()
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    role: text()
      .notNull()
      .references(() => roles.id, { onDelete: 'cascade' }),
  },
  (table) => [primaryKey({ columns: [table.person, table.role] })],
);

export const personGroups = pgTable(
  'person_groups',
  {
    person: text()
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    group: text('group_id')
      .notNull()
      .references(() => groups.id, { onDelete: 'cascade' }),
  },
  (table) => [primaryKey({ columns: [table.person, table.group] })],
);

/** Items with their content. Columns that a kind does not have are null. */
export const items = pgTable('items', {
  id: text().primaryKey(),
  kind: text({ enum: ['site', 'page', 'menu', 'link'] }).notNull(),
  parent: text(),
  rank: integer().notNull(),
  title: text().notNull(),
  published: boolean().notNull().default(true),
  address: text().unique(),
  place: text({ enum: ['top'] }),
  target: jsonb().$type<LinkTarget>(),
  summary: text().notNull().default(''),
  /** Markdown. */
  body: text().notNull().default(''),
});

/** Every policy that was ever live. */
export const revisions = pgTable('revisions', {
  number: integer().primaryKey(),
  policy: jsonb().$type<Policy>().notNull(),
  author: text().notNull(),
  note: text().notNull().default(''),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  /** How many people gained and lost something when it went live. */
  gained: integer().notNull().default(0),
  lost: integer().notNull().default(0),
});

/** One row: the draft, and which revision is live. Both change in one statement, so there is never a mixture. */
export const policyState = pgTable(
  'policy_state',
  {
    id: integer().primaryKey().default(1),
    draft: jsonb().$type<Policy>().notNull(),
    /** Goes up with every save; a save names the version it was based on. */
    draftVersion: integer('draft_version').notNull().default(1),
    draftBy: text('draft_by').notNull(),
    live: integer()
      .notNull()
      .references(() => revisions.number),
  },
  (table) => [check('only_one', sql`${table.id} = 1`)],
);

export const sessions = pgTable('sessions', {
  /** SHA-256 of the token, in hex. The token itself is only in the visitor's cookie. */
  tokenHash: text('token_hash').primaryKey(),
  person: text()
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' }),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
});

/** Failed sign-ins in a window of time, by account and by network address. */
export const signInAttempts = pgTable('sign_in_attempts', {
  key: text().primaryKey(),
  count: integer().notNull(),
  windowEnds: timestamp('window_ends', { withTimezone: true }).notNull(),
});

/** The stand-ins on each administrator's board, in order. */
export const boards = pgTable('boards', {
  person: text()
    .primaryKey()
    .references(() => people.id, { onDelete: 'cascade' }),
  standIns: jsonb('stand_ins').$type<readonly StandInRef[]>().notNull(),
});

/** Walks under way. One belongs to the session that started it and ends with it. */
export const walks = pgTable('walks', {
  tokenHash: text('token_hash').primaryKey(),
  session: text()
    .notNull()
    .references(() => sessions.tokenHash, { onDelete: 'cascade' }),
  standIn: jsonb('stand_in').$type<StandInRef>().notNull(),
  side: text({ enum: ['draft', 'live'] }).notNull(),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
});
