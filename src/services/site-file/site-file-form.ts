/** A site as a file: its shape and its limits. What it names is checked when it is read. */
import { z } from 'zod';
import {
  ACTIVITY_TYPES,
  DONE_WHENS,
  FIELD_TYPES,
  type ItemKind,
  MENU_PLACES,
  PRODUCT_KINDS,
  PURCHASE_STATES,
  valuesOf,
} from '@/core';
import { JOURNAL_KEEPS } from '@/store';
import {
  conditionOrText,
  dayForm,
  newId as id,
  LARGEST_FILE,
  languageShape,
  lettersShape,
  lookShape,
  signUpShape,
  startsShape,
  termsShape,
  timeZone,
  words,
  wordsShape,
} from '../forms';
import { deskForm } from '../people';
import { policyInFile } from '../policy';
import {
  enrollingShape,
  MOST_SHARED,
  quizShape,
  sectionShape,
  standsShape,
  target,
  taskShape,
} from '../writing';

export const FORMAT = 'trivet site';
export const VERSION = 1;

/** In bytes. Files that a site holds are in it, so this is more than any page needs. */
export const LARGEST_SITE_FILE = 100_000_000;

/** The most days of grace that a site gives. */
export const MOST_GRACE_DAYS = 90;

const name = words(200, 'Give it a name.');
const named = z.strictObject({ id, name });

const day = dayForm;
const facts = z.strictObject({
  category: name.optional(),
  tags: z.array(name).max(50).optional(),
  author: name.optional(),
  owner: id.optional(),
  group: id.optional(),
  date: day.optional(),
  picture: id.optional(),
});
const itemBase = {
  id,
  parent: id.nullable(),
  title: name,
  published: z.boolean().default(true),
  facts: facts.optional(),
};

const addressed = {
  address: z.string().max(500),
  summary: z.string().max(2000).default(''),
  /** The text of a page that is one text, in place of sections. */
  body: z.string().max(200_000).default(''),
  sections: z.array(sectionShape).max(100).default([]),
  /** Addresses that it had before. */
  formerly: z.array(z.string().max(500)).max(50).default([]),
};

/** The most that checking a password may cost: MiB of memory in KiB, passes, lanes. */
const MOST_COST = { m: 65_536, t: 10, p: 4 } as const;

/** What is kept of a password: argon2id in PHC format, at a cost that this machine can be asked for at every sign-in. */
const passwordHash = z
  .string()
  .max(300)
  .refine((text) => {
    const [, m, t, p] =
      /^\$argon2id\$v=19\$m=(\d{1,6}),t=(\d{1,3}),p=(\d{1,2})\$[A-Za-z0-9+/]{11,86}\$[A-Za-z0-9+/]{22,86}$/.exec(
        text,
      ) ?? [];
    const within = (value: string | undefined, most: number) => Number(value) >= 1 && Number(value) <= most;
    return within(m, MOST_COST.m) && within(t, MOST_COST.t) && within(p, MOST_COST.p);
  }, `That is no argon2id hash in PHC format of at most m=${MOST_COST.m}, t=${MOST_COST.t}, p=${MOST_COST.p}.`);
const hex = (bytes: number) =>
  z.string().regex(new RegExp(`^[0-9a-f]{${bytes * 2}}$`), `That is not ${bytes} bytes in hex.`);

const score = z.number().nullable().default(null);
/** Of an activity, a unit or a course. */
const completion = z.strictObject({ item: id, on: day, score });
/** As it was written when only activities were completed. */
const formerCompletion = z
  .strictObject({ activity: id, on: day, score })
  .transform(({ activity: item, ...rest }) => ({ item, ...rest }));

/** Sections stand in their pages. */
const items = {
  /** The site's own text stands beside the sign-in form. */
  site: z.strictObject({ kind: z.literal('site'), ...itemBase, body: z.string().max(20_000).default('') }),
  page: z.strictObject({ kind: z.literal('page'), ...itemBase, ...addressed }),
  post: z.strictObject({ kind: z.literal('post'), ...itemBase, ...addressed }),
  course: z.strictObject({
    kind: z.literal('course'),
    ...itemBase,
    ...addressed,
    enrolling: enrollingShape.optional(),
  }),
  unit: z.strictObject({ kind: z.literal('unit'), ...itemBase }),
  activity: z.strictObject({
    kind: z.literal('activity'),
    ...itemBase,
    ...addressed,
    activity: z.enum(ACTIVITY_TYPES).default('reading'),
    doneWhen: z.enum(DONE_WHENS).optional(),
    /** Of a hand-in. */
    task: taskShape.optional(),
    /** Of a quiz. */
    quiz: quizShape.optional(),
  }),
  file: z.strictObject({
    kind: z.literal('file'),
    ...itemBase,
    /** With the extension; what it is, its content says. */
    name: z.string().max(200),
    /** In base64. */
    data: z.base64().max(Math.ceil(LARGEST_FILE / 3) * 4),
    /** What a picture shows, for those who can't see it. */
    alt: z.string().max(500).default(''),
  }),
  menu: z.strictObject({ kind: z.literal('menu'), ...itemBase, place: z.enum(MENU_PLACES) }),
  link: z.strictObject({ kind: z.literal('link'), ...itemBase, target }),
} satisfies Record<Exclude<ItemKind, 'section'>, z.ZodObject>;

/** A site as a file. Items stand in rank order among their siblings. */
export const siteFile = z.strictObject({
  format: z.literal('trivet site'),
  version: z.literal(VERSION),
  timeZone: timeZone.default('UTC'),
  /** What the journal keeps of visitors who are turned away, and for how many days. */
  journal: z
    .strictObject({ keeps: z.enum(JOURNAL_KEEPS), days: z.int().min(1).max(3650) })
    .default({ keeps: 'counts', days: 90 }),
  /** Who may make an account. Left out where that stays as it is; of a new site it is anybody. */
  signUp: signUpShape.optional(),
  /** The language of the site (BCP 47). Left out where that stays as it is; of a new site it is English. */
  language: languageShape.optional(),
  /** Letters in the site’s own words, by kind. Left out where they stay as they are. */
  letters: lettersShape.optional(),
  /** How the site looks; left out where that stays as it is. Null is what every site looks like at first. */
  look: lookShape.nullable().optional(),
  /** What stands at the foot and where nothing is, in Markdown. Left out where that stays as it is. */
  words: wordsShape.optional(),
  /** What somebody has who makes an account by themselves. Left out where that stays as it is. */
  starts: startsShape.optional(),
  levels: z.array(named),
  roles: z.array(named),
  groups: z.array(
    z.strictObject({ id, name, private: z.boolean().default(false), open: z.boolean().default(false) }),
  ),
  products: z.array(z.strictObject({ id, name, kind: z.enum(PRODUCT_KINDS) })).default([]),
  fields: z
    .array(
      z.strictObject({
        id,
        name,
        type: z.enum(FIELD_TYPES),
        choices: z.array(name).max(100).default([]),
        private: z.boolean().default(false),
        editable: z.boolean().default(false),
      }),
    )
    .default([]),
  /** Of files from before courses and activities were items: they become some that are not published. */
  courses: z.array(named).default([]),
  activities: z.array(named).default([]),
  passphrases: z
    .array(
      z.strictObject({
        id,
        name,
        passphrase: z.string().min(6).max(200).optional(),
        /** What is kept of it, under the file's salt. */
        hash: hex(32).optional(),
      }),
    )
    .default([]),
  /** What the hashes of passphrases were made with. */
  passphraseSalt: hex(16).optional(),
  /** Left out where people are not part of it: then they stay as they are. */
  people: z
    .array(
      z.strictObject({
        id,
        email: z.email().max(254),
        name,
        password: z.string().min(8).max(1000).optional(),
        /** What is kept of it, where it stands in no text. */
        passwordHash: passwordHash.optional(),
        desk: deskForm.default(null),
        level: id.nullable().default(null),
        roles: z.array(id).default([]),
        groups: z.array(id).default([]),
        /** The day on which they came into a group, by group. */
        groupsSince: z.record(id, day).default({}),
        profile: z.record(id, z.union([z.string(), z.number(), z.boolean()])).default({}),
        joined: day.nullable().default(null),
        purchases: z
          .array(
            z.strictObject({
              product: id,
              on: day,
              until: day.nullable().default(null),
              state: z.enum(PURCHASE_STATES).default('paid'),
            }),
          )
          .default([]),
        enrolments: z
          .array(z.strictObject({ course: id, on: day, until: day.nullable().default(null) }))
          .default([]),
        completions: z.array(z.union([completion, formerCompletion])).default([]),
      }),
    )
    .optional(),
  items: z.array(z.discriminatedUnion('kind', valuesOf(items))),
  /** Sections that are written once and stand on many pages, in their order at each spot. */
  shared: z
    .array(z.strictObject({ ...standsShape.shape, section: sectionShape }))
    .max(MOST_SHARED, `A site shares at most ${MOST_SHARED} sections.`)
    .default([]),
  /** What products are sold for and give. Left out where that stays as it is. */
  shop: z
    .strictObject({
      /** For how many days a subscription stays open whose renewal does not come through. */
      graceDays: z.int().min(0).max(MOST_GRACE_DAYS).default(7),
      products: z
        .array(
          z.strictObject({
            product: id,
            ...termsShape(conditionOrText.default({ kind: 'all', of: [] })).shape,
          }),
        )
        .default([]),
    })
    .optional(),
  /** The live gates. Conditions in it may stand in the text form. */
  policy: policyInFile,
  /** The gates of the draft, where they differ. */
  draft: policyInFile.optional(),
  /** What the gates name though it is no longer there, like "group dome-crew": it is unknown of everybody. */
  gone: z.array(z.string().max(700)).max(5000).default([]),
  /** The people whom administrators find on the board beside a guest, until they choose others. */
  board: z.array(id).max(10).default([]),
});

/** A site file as somebody writes it; its policies are read as whatever they turn out to be. */
export type SiteFile = Omit<z.input<typeof siteFile>, 'policy' | 'draft'> & {
  readonly policy: unknown;
  readonly draft?: unknown;
};
export type ItemInFile = SiteFile['items'][number];
export type SiteFileRead = z.output<typeof siteFile>;
