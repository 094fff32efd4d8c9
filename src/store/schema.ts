/** The tables. Plain PostgreSQL; the embedded database is only where they live by default. */
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import type { Content } from './content';
import type {
  Agreed,
  Answer,
  AreaStep,
  Asked,
  DraftDocument,
  DueStep,
  FieldValue,
  FreeAtFirst,
  Hashes,
  ItemFacts,
  KeptNames,
  LinkTarget,
  OrderState,
  PeopleChange,
  Policy,
  ProductTerms,
  Ranges,
  RemovedItems,
  Replaced,
  RevisionEffect,
  SectionContent,
  Shared,
  SiteLetters,
  SiteLook,
  SiteStarts,
  SiteWords,
  StandInRef,
  TakenOver,
  WalkScene,
} from './types';
import {
  ACTIVITY_TYPES,
  DESK_RIGHTS,
  DONE_WHENS,
  HAND_IN_STATES,
  ITEM_KINDS,
  JOURNAL_KEEPS,
  LETTER_STATES,
  MENU_PLACES,
  PRODUCT_KINDS,
  PURCHASE_STATES,
  SECTION_TYPES,
  SIGN_UPS,
} from './types';

const bytea = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

export const levels = pgTable('levels', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  rank: integer().notNull(),
});

export const roles = pgTable('roles', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
});

export const groups = pgTable('groups', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  private: boolean().notNull().default(false),
  /** Whether members may join and leave as they like. */
  open: boolean().notNull().default(false),
});

export const products = pgTable('products', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  kind: text({ enum: [...PRODUCT_KINDS] }).notNull(),
});

/** The fields of the members' profiles, in the order in which they are shown. */
export const fields = pgTable('fields', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  rank: integer().notNull(),
  type: text({ enum: ['text', 'choice', 'number', 'date', 'yes/no'] }).notNull(),
  choices: jsonb().$type<readonly string[]>().notNull().default([]),
  private: boolean().notNull().default(false),
  editable: boolean().notNull().default(false),
});

export const passphrases = pgTable('passphrases', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  /** argon2id with the site's salt, in hex; null until one is chosen. Two can't be alike. */
  hash: text().unique(),
});

/** One row: what the site as a whole is set to. */
export const settings = pgTable(
  'settings',
  {
    id: integer().primaryKey().default(1),
    /** IANA name. */
    timeZone: text('time_zone').notNull(),
    /** The key of the hash that shares of visitors are cut from, in hex. */
    shareKey: text('share_key').notNull(),
    /** In hex. */
    passphraseSalt: text('passphrase_salt').notNull(),
    /** Whether turn-aways are counted, and whether members who were turned away are named. */
    journal: text({ enum: JOURNAL_KEEPS }).notNull().default('counts'),
    /** How many days the journal keeps. */
    journalDays: integer('journal_days').notNull().default(90),
    /** For how many days a subscription stays open whose renewal does not come through. */
    graceDays: integer('grace_days').notNull().default(7),
    /** Who may make an account by themselves; whoever is written down always may. */
    signUp: text('sign_up', { enum: SIGN_UPS }).notNull().default('anybody'),
    /** The domains of mail addresses, in lower case, where it goes by them. */
    signUpDomains: jsonb('sign_up_domains').$type<readonly string[]>().notNull().default([]),
    /** How the site looks; null for what every site looks like at first. */
    look: jsonb().$type<SiteLook>(),
    words: jsonb().$type<SiteWords>().notNull().default({ foot: '', missing: '' }),
    /** The language of the site, a tag (BCP 47). */
    language: text().notNull().default('en'),
    letters: jsonb().$type<SiteLetters>().notNull().default({}),
    /** What somebody has who makes an account by themselves. */
    starts: jsonb().$type<SiteStarts>().notNull().default({ level: null, roles: [], groups: [], asks: [] }),
    /** How far the clock of a demo was moved on, in seconds. */
    clockAhead: integer('clock_ahead').notNull().default(0),
  },
  (table) => [check('only_one_setting', sql`${table.id} = 1`)],
);

export const people = pgTable('people', {
  id: text().primaryKey(),
  /** In lower case, so that one mailbox is one account. */
  email: text().notNull().unique(),
  name: text().notNull(),
  /** argon2id in PHC format; null for somebody who can't sign in with a password. */
  passwordHash: text('password_hash'),
  level: text().references(() => levels.id),
  /** By field. A field that nobody filled in has no entry. */
  profile: jsonb().$type<Readonly<Record<string, FieldValue>>>().notNull().default({}),
  joined: date({ mode: 'string' }),
  /** What this person may do at the desk; null for nothing. */
  deskRight: text('desk_right', { enum: DESK_RIGHTS }),
  /** The item to which a right is limited, with everything beneath it; null for the whole site. */
  deskBranch: text('desk_branch'),
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
    /** Null for those who were in it before that was kept. */
    since: date({ mode: 'string' }),
  },
  (table) => [primaryKey({ columns: [table.person, table.group] })],
);

const person = () =>
  text()
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' });

/** Records of purchases that were written by hand. What is bought at the till is an order. */
export const purchases = pgTable(
  'purchases',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    person: person(),
    product: text()
      .notNull()
      .references(() => products.id, { onDelete: 'cascade' }),
    on: date({ mode: 'string' }).notNull(),
    until: date({ mode: 'string' }),
    state: text({ enum: [...PURCHASE_STATES] }).notNull(),
  },
  (table) => [index('purchases_person').on(table.person)],
);

/** What products are sold for and give. One without a row is not sold and gives nothing. */
export const productTerms = pgTable('product_terms', {
  product: text()
    .primaryKey()
    .references(() => products.id, { onDelete: 'cascade' }),
  terms: jsonb().$type<ProductTerms>().notNull(),
  /** Goes up with every save; a save names the version it was based on. */
  version: integer().notNull().default(1),
});

/** What people set out to buy. An order of a subscription is the subscription. Orders stay when people and products go. */
export const orders = pgTable(
  'orders',
  {
    id: text().primaryKey(),
    /** Ids that may be gone; they never come back. */
    product: text().notNull(),
    productName: text('product_name').notNull(),
    person: text(),
    /** In lower case: whose it is while there is no account. */
    email: text().notNull(),
    name: text().notNull(),
    /** What it was bought at. */
    price: text().notNull(),
    agreed: jsonb().$type<Agreed & FreeAtFirst>().notNull(),
    voucher: text(),
    /** The order whose plan it takes the place of. */
    replaces: jsonb().$type<Replaced>(),
    /** Where they were, to come back to. */
    back: text().notNull().default('/'),
    /** The hash of the session in which a guest set out to buy. */
    session: text(),
    /** Whether paying made the account. */
    madeAccount: boolean('made_account').notNull().default(false),
    /** Who noted it at the desk, where no till took the money. */
    notedBy: text('noted_by'),
    /** What the till calls it, and its page to pay on; null until it was told of it. */
    reference: text(),
    payPage: text('pay_page'),
    made: timestamp({ withTimezone: true }).notNull(),
    /** Until when it can be paid. */
    payUntil: timestamp('pay_until', { withTimezone: true }).notNull(),
    /** When the till was last asked about it. */
    askedAt: timestamp('asked_at', { withTimezone: true }),
    /** Worked out of its notices, each time that one comes. */
    state: jsonb().$type<OrderState>().notNull(),
    /** Whether it waits to be paid. */
    open: boolean().notNull().default(true),
    /** What is left to ask of the till. */
    due: jsonb().$type<readonly DueStep[]>().notNull().default([]),
  },
  (table) => [
    // Whoever sets out twice comes to the same page to pay on, so that nobody pays twice.
    uniqueIndex('orders_open').on(table.email, table.product).where(sql`${table.open}`),
    index('orders_person').on(table.person),
    index('orders_product').on(table.product),
    index('orders_made').on(table.made),
  ],
);

/** What the till told, each as it came. One is told once, however often it comes. */
export const notices = pgTable(
  'notices',
  {
    /** The till's own. */
    id: text().primaryKey(),
    /** In the order in which they came. */
    number: integer().notNull().generatedAlwaysAsIdentity(),
    /** The order it is about, as it says; whether there is one or not. */
    order: text('order_id').notNull(),
    came: timestamp({ withTimezone: true }).notNull(),
    /** As it came. */
    said: jsonb().notNull(),
    /** Why it changes nothing; empty for those that count. */
    problem: text().notNull().default(''),
  },
  (table) => [index('notices_order').on(table.order), index('notices_problem').on(table.problem)],
);

/** Whatever there is a number of: seats, uses of a voucher. One place is one row, so that none is given twice. */
export const places = pgTable(
  'places',
  {
    /** A product's or a voucher's id. */
    of: text().notNull(),
    /** Counted from 1. */
    number: integer().notNull(),
    order: text('order_id').notNull(),
    /** Until when it is kept for somebody who pays; null once it is theirs. */
    heldUntil: timestamp('held_until', { withTimezone: true }),
  },
  (table) => [
    primaryKey({ columns: [table.of, table.number] }),
    uniqueIndex('places_order').on(table.of, table.order),
  ],
);

/** Codes that buy for less, or for nothing. */
export const vouchers = pgTable('vouchers', {
  id: text().primaryKey(),
  /** In capitals. */
  code: text().notNull().unique(),
  /** The products it is for; all of them where it names none. */
  products: jsonb().$type<readonly string[]>().notNull(),
  /** How much less, in percent: 1 to 100. */
  percent: integer().notNull(),
  /** How many times it can be used. */
  times: integer().notNull(),
  until: date({ mode: 'string' }),
  /** For those who run the shop. */
  note: text().notNull().default(''),
  /** Whether it can be used at all. */
  open: boolean().notNull().default(true),
});

/** Letters that went out about orders because a day had come, so that each goes out once. */
export const orderLetters = pgTable(
  'order_letters',
  {
    order: text('order_id').notNull(),
    what: text().notNull(),
    on: date({ mode: 'string' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.order, table.what, table.on] })],
);

export const enrolments = pgTable(
  'enrolments',
  {
    person: person(),
    /** An item's id. What is taken away keeps its records, so that bringing it back brings them back. */
    course: text().notNull(),
    on: date({ mode: 'string' }).notNull(),
    until: date({ mode: 'string' }),
  },
  (table) => [primaryKey({ columns: [table.person, table.course] })],
);

export const completions = pgTable(
  'completions',
  {
    person: person(),
    /** The id of an activity, a unit or a course; kept like an enrolment. */
    item: text('activity').notNull(),
    on: date({ mode: 'string' }).notNull(),
    score: doublePrecision(),
  },
  (table) => [primaryKey({ columns: [table.person, table.item] })],
);

/** What people did in quizzes. An attempt is whole: its questions are as they were when it began. */
export const quizAttempts = pgTable(
  'quiz_attempts',
  {
    id: text().primaryKey(),
    person: person(),
    /** An item's id; kept like an enrolment. */
    activity: text().notNull(),
    /** Counted from 1. */
    number: integer().notNull(),
    asked: jsonb().$type<readonly Asked[]>().notNull(),
    /** An answer a question. */
    answers: jsonb().$type<readonly Answer[]>().notNull(),
    passMark: doublePrecision('pass_mark').notNull(),
    begun: timestamp({ withTimezone: true }).notNull(),
    /** Until when answers are taken; null for as long as somebody likes. */
    until: timestamp({ withTimezone: true }),
    /** Null while it is under way, like the score. */
    finished: timestamp({ withTimezone: true }),
    score: doublePrecision(),
  },
  (table) => [
    unique('quiz_attempts_number').on(table.person, table.activity, table.number),
    uniqueIndex('quiz_attempts_under_way')
      .on(table.person, table.activity)
      .where(sql`${table.finished} is null`),
    index('quiz_attempts_activity').on(table.activity),
  ],
);

/** What learners handed in: every version of it, with what a tutor said. */
export const handIns = pgTable(
  'hand_ins',
  {
    id: text().primaryKey(),
    person: person(),
    /** An item's id; kept like an enrolment. */
    activity: text().notNull(),
    /** Counted from 1. */
    version: integer().notNull(),
    text: text().notNull().default(''),
    at: timestamp({ withTimezone: true }).notNull(),
    state: text({ enum: [...HAND_IN_STATES] }).notNull(),
    /** A percentage, where a tutor gave one. */
    score: doublePrecision(),
    /** What the tutor said, by name and when; empty while it waits. */
    words: text().notNull().default(''),
    by: text().notNull().default(''),
    judged: timestamp({ withTimezone: true }),
  },
  (table) => [
    unique('hand_ins_version').on(table.person, table.activity, table.version),
    uniqueIndex('hand_ins_waiting').on(table.person, table.activity).where(sql`${table.state} = 'waiting'`),
    index('hand_ins_activity').on(table.activity),
  ],
);

/** The files of what was handed in: the learner's and their tutors', and no items of the site. */
export const handInFiles = pgTable(
  'hand_in_files',
  {
    id: text().primaryKey(),
    handIn: text('hand_in')
      .notNull()
      .references(() => handIns.id, { onDelete: 'cascade' }),
    rank: integer().notNull(),
    name: text().notNull(),
    mediaType: text('media_type').notNull(),
    size: integer().notNull(),
    bytes: bytea().notNull(),
  },
  (table) => [index('hand_in_files_hand_in').on(table.handIn)],
);

/** What of videos was played, so that skipping to the end is not watching. */
export const played = pgTable(
  'played',
  {
    person: person(),
    /** An activity's id; kept like an enrolment. */
    activity: text().notNull(),
    /** From when to when, in seconds. */
    ranges: jsonb().$type<Ranges>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.person, table.activity] })],
);

/** Every change of people and of the names that describe them: who made it, what it was, and how it was before. */
export const peopleChanges = pgTable('people_changes', {
  id: text().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  by: text().notNull(),
  summary: text().notNull(),
  /** In the words of whoever made it; empty when they gave no reason. */
  why: text().notNull().default(''),
  people: jsonb().$type<readonly PeopleChange[]>().notNull(),
  names: jsonb().$type<{ readonly before: KeptNames; readonly after: KeptNames } | null>(),
  /** The hashes of those who were taken away, so that undoing gives them back: passwords by person, passphrases by id. */
  hashes: jsonb().$type<Hashes>().notNull().default({ people: {}, passphrases: {} }),
  undone: boolean().notNull().default(false),
});

/** What was done to areas, with both sides of everything it touched, so that it can be taken back. */
export const areaSteps = pgTable('area_steps', {
  id: text().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull(),
  by: text().notNull(),
  summary: text().notNull(),
  step: jsonb().$type<AreaStep>().notNull(),
  undone: boolean().notNull().default(false),
});

/** What was taken in from elsewhere in one step, so that it can be taken back in one. */
export const takings = pgTable('takings', {
  id: text().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull(),
  by: text().notNull(),
  summary: text().notNull(),
  /** Everything that came, by id. */
  items: jsonb().$type<readonly string[]>().notNull(),
  /** The addresses of before that came with it. */
  formerly: jsonb().$type<readonly string[]>().notNull(),
  /** What was there and was written over, before and after. */
  first: jsonb().$type<readonly TakenOver[]>().notNull(),
  undone: boolean().notNull().default(false),
});

/** The last day on which somebody whose area it is opened anything of it; not who. */
export const areaVisits = pgTable('area_visits', {
  /** The page at its top: an item's id. */
  page: text().primaryKey(),
  on: date({ mode: 'string' }).notNull(),
});

/** Items with their content. Columns that a kind does not have are null. */
export const items = pgTable('items', {
  id: text().primaryKey(),
  kind: text({ enum: [...ITEM_KINDS] }).notNull(),
  parent: text(),
  rank: integer().notNull(),
  title: text().notNull(),
  published: boolean().notNull().default(true),
  address: text().unique(),
  place: text({ enum: [...MENU_PLACES] }),
  target: jsonb().$type<LinkTarget>(),
  /** Of a section that many pages share: at which spot, and on what. */
  shared: jsonb().$type<Shared>(),
  facts: jsonb().$type<ItemFacts>(),
  /** Of sections. */
  type: text({ enum: [...SECTION_TYPES] }),
  /** Of activities: what one does in it. */
  activity: text({ enum: [...ACTIVITY_TYPES] }),
  /** Of files: the last part of the address, the type by content, and the length in bytes. */
  name: text(),
  mediaType: text('media_type'),
  size: integer(),
  summary: text().notNull().default(''),
  /** Markdown. */
  body: text().notNull().default(''),
  section: jsonb().$type<SectionContent>(),
  /** Of courses. */
  enrolling: jsonb().$type<NonNullable<Content['enrolling']>>(),
  /** Of activities: whether it is done once it was opened. */
  doneWhen: text('done_when', { enum: [...DONE_WHENS] }),
  /** Of activities in which something is handed in. */
  task: jsonb().$type<NonNullable<Content['task']>>(),
  /** Of activities that are quizzes. */
  quiz: jsonb().$type<NonNullable<Content['quiz']>>(),
  picture: jsonb().$type<NonNullable<Content['picture']>>(),
  /** Goes up with every change of what the item says or where it stands; a change names the version it was based on. */
  version: integer().notNull().default(1),
  /** When somebody last changed it; null for what is as the site was loaded. */
  changedAt: timestamp('changed_at', { withTimezone: true }),
});

const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
const regconfig = customType<{ data: string }>({ dataType: () => 'regconfig' });

/** What files hold. A file that is taken away keeps its bytes, so that this can be taken back. */
export const fileBytes = pgTable('file_bytes', {
  item: text().primaryKey(),
  /** Kept uncompressed, so that a part is read as a part. */
  bytes: bytea().notNull(),
  /** SHA-256 of the bytes. */
  digest: bytea().generatedAlwaysAs(sql`sha256(bytes)`),
});

/** Addresses that items had before. */
export const oldAddresses = pgTable('old_addresses', {
  address: text().primaryKey(),
  item: text()
    .notNull()
    .references(() => items.id, { onDelete: 'cascade' }),
});

/** Texts that are being written and are not on the site yet. */
export const itemDrafts = pgTable('item_drafts', {
  item: text()
    .primaryKey()
    .references(() => items.id, { onDelete: 'cascade' }),
  /** Goes up with every save; a save names the version it was based on. */
  version: integer().notNull().default(1),
  document: jsonb().$type<DraftDocument>().notNull(),
  by: text().notNull(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
});

/** Items that were taken away, with everything in and below them. */
export const removals = pgTable('removals', {
  id: text().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  by: text().notNull(),
  summary: text().notNull(),
  removed: jsonb().$type<RemovedItems>().notNull(),
  undone: boolean().notNull().default(false),
});

/**
 * The searchable texts of the site, each as small as what can be withheld by itself: a title, a summary, a piece of a
 * section. Whether a visitor may read one is decided in memory, and only then is a match told.
 */
export const searchTexts = pgTable(
  'search_texts',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    item: text()
      .notNull()
      .references(() => items.id, { onDelete: 'cascade' }),
    kind: text({ enum: ['title', 'summary', 'text'] }).notNull(),
    /** Where in its text the piece stands. */
    path: text().notNull().default(''),
    text: text().notNull(),
    /** How its words are read: PostgreSQL's name for the language of the site. */
    config: regconfig().notNull().default('english'),
    words: tsvector()
      .notNull()
      .generatedAlwaysAs((): ReturnType<typeof sql> => sql`to_tsvector(config, text)`),
  },
  (table) => [index('search_words').using('gin', table.words), index('search_item').on(table.item)],
);

/** Codes sent by mail: to sign up, or for a new password. */
export const codes = pgTable('codes', {
  /** SHA-256 of the token that the form carries. */
  tokenHash: text('token_hash').primaryKey(),
  purpose: text({ enum: ['sign up', 'reset'] }).notNull(),
  email: text().notNull(),
  /** For signing up. */
  name: text().notNull().default(''),
  passwordHash: text('password_hash'),
  /** What was filled in for signing up, by field. */
  profile: jsonb().$type<Readonly<Record<string, FieldValue>>>().notNull().default({}),
  /** SHA-256 of the six digits together with the token. */
  codeHash: text('code_hash').notNull(),
  /** Wrong attempts so far. */
  attempts: integer().notNull().default(0),
  /** Mails sent so far. */
  sent: integer().notNull().default(1),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
});

/** Invitations that were not answered yet: the latest of each person. */
export const invitations = pgTable('invitations', {
  person: text()
    .primaryKey()
    .references(() => people.id, { onDelete: 'cascade' }),
  /** Where it was sent: whoever has another mail address meanwhile is not whom it is for. */
  email: text().notNull(),
  tokenHash: text('token_hash').notNull().unique(),
  at: timestamp({ withTimezone: true }).notNull(),
  until: timestamp({ withTimezone: true }).notNull(),
});

/** Letters: what is to be sent, what was, and what would have been where no mail is set up. */
export const outbox = pgTable(
  'outbox',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    to: text('to_address').notNull(),
    /** Who is answered, where that is not the site. */
    replyTo: text('reply_to'),
    subject: text().notNull(),
    text: text().notNull(),
    /** After this it is of no use to whoever it is for; null for what stays true. */
    goodUntil: timestamp('good_until', { withTimezone: true }),
    state: text({ enum: LETTER_STATES }).notNull().default('waiting'),
    tries: integer().notNull().default(0),
    /** When a letter that waits is tried next. */
    nextTry: timestamp('next_try', { withTimezone: true }).notNull().defaultNow(),
    sentAt: timestamp('sent_at', { withTimezone: true }),
    /** What the mail server said to the last try, or why there will be no more. */
    problem: text().notNull().default(''),
  },
  (table) => [index('outbox_waiting').on(table.nextTry).where(sql`${table.state} = 'waiting'`)],
);

/** Keys that a member made for apps and for a feed of their own. */
export const keys = pgTable(
  'keys',
  {
    id: text().primaryKey(),
    person: text()
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    use: text({ enum: ['api', 'feed'] }).notNull(),
    name: text().notNull(),
    /** SHA-256 of the key. */
    hash: text().notNull().unique(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index('keys_person').on(table.person)],
);

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
  /** What it did, in more words; null for revisions from before that was kept. */
  effect: jsonb().$type<RevisionEffect | null>(),
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
  /** Null for a guest who typed a passphrase. */
  person: text().references(() => people.id, { onDelete: 'cascade' }),
  /** The ids of the passphrases typed in this session. */
  passphrases: jsonb().$type<readonly string[]>().notNull().default([]),
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

/** Findings that somebody set aside, with what they were about then: while that is the same they stay so. */
export const setAsides = pgTable('set_asides', {
  finding: text().primaryKey(),
  about: jsonb().$type<readonly unknown[]>().notNull(),
  reason: text().notNull(),
  by: text().notNull(),
  at: timestamp({ withTimezone: true }).notNull(),
});

/** Stand-ins that belong together, under a name that every administrator can put on their board. */
export const boardSets = pgTable('board_sets', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  standIns: jsonb('stand_ins').$type<readonly StandInRef[]>().notNull(),
  by: text().notNull(),
});

/** Walks under way. One belongs to the session that started it and ends with it. */
export const walks = pgTable('walks', {
  tokenHash: text('token_hash').primaryKey(),
  session: text()
    .notNull()
    .references(() => sessions.tokenHash, { onDelete: 'cascade' }),
  standIn: jsonb('stand_in').$type<StandInRef>().notNull(),
  side: text({ enum: ['draft', 'live'] }).notNull(),
  /** When it is on this walk, and what the request brings. */
  scene: jsonb().$type<WalkScene>().notNull().default({}),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
});

/** How often visitors were turned away, by day, and what they did next. Nobody can be told from it. */
export const journalCounts = pgTable(
  'journal_counts',
  {
    day: date({ mode: 'string' }).notNull(),
    item: text().notNull(),
    /** Empty where something was not published. */
    gate: text().notNull(),
    given: text().notNull(),
    visitor: text({ enum: ['guest', 'member'] }).notNull(),
    count: integer().notNull().default(0),
    left: integer().notNull().default(0),
    signedIn: integer('signed_in').notNull().default(0),
    signedUp: integer('signed_up').notNull().default(0),
    gotIn: integer('got_in').notNull().default(0),
  },
  (table) => [primaryKey({ columns: [table.day, table.item, table.gate, table.given, table.visitor] })],
);

/** Members who were turned away, where the site has set that they are named. */
export const journalNames = pgTable(
  'journal_names',
  {
    day: date({ mode: 'string' }).notNull(),
    item: text().notNull(),
    gate: text().notNull(),
    person: person(),
    count: integer().notNull().default(0),
  },
  (table) => [primaryKey({ columns: [table.day, table.item, table.gate, table.person] })],
);

/**
 * The log of changes: what of a site is not as it was. Written by triggers, in the transaction of the change, whoever makes
 * it; a part with an id is that one alone.
 */
export const changes = pgTable('changes', {
  number: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
  part: text({
    enum: ['people', 'items', 'addresses', 'names', 'shop', 'settings', 'policies', 'sessions', 'keys'],
  }).notNull(),
  id: text(),
});

/**
 * Everybody as memory keeps them, written down from time to time: whoever begins reads that, and what the log tells of since.
 * What is older than the latest whole one is nobody's any more.
 */
export const snapshots = pgTable('snapshots', {
  id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
  /** How lines are made of tables: what was made in another way is not read. */
  way: text().notNull(),
  /** Up to which number of the log it is right; null while it is not all there. */
  number: bigint({ mode: 'number' }),
  /** How many texts of lines are in it. */
  size: integer().notNull(),
  made: timestamp({ withTimezone: true }).notNull().defaultNow(),
});

/** Texts of a snapshot that follow one another, some at a time. */
export const snapshotTexts = pgTable(
  'snapshot_texts',
  {
    snapshot: bigint({ mode: 'number' })
      .notNull()
      .references(() => snapshots.id, { onDelete: 'cascade' }),
    place: integer().notNull(),
    texts: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.snapshot, table.place] })],
);
