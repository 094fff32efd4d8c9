/** The letters that Trivet writes: when each goes out, and what can be named in it. */
import { keysOf } from '../keys';
import type { Messages } from '../messages/english';

export type LetterKind = keyof Messages['letters'];

/** A letter with {names} to be filled in, in plain text. */
export type LetterTemplate = Messages['letters'][LetterKind];

/** What a name in a letter stands for, said to whoever writes it, with an example. */
interface LetterName {
  readonly about: string;
  /** A path for an address on the site. */
  readonly example: string;
  /** Whether it is there in some letters of the kind and not in others. */
  readonly sometimes?: true;
}

interface Letter {
  readonly name: string;
  /** When it goes out, behind "Goes to". */
  readonly to: string;
  readonly of: LetterGroup;
  readonly names: Readonly<Record<string, LetterName>>;
  /** Without these it is of no use to whoever gets it. */
  readonly needs: readonly string[];
}

export const LETTER_GROUPS = ['Accounts', 'Buying', 'Courses'] as const;
export type LetterGroup = (typeof LETTER_GROUPS)[number];

const code = { code: { about: 'the six digits', example: '123 456' } };
const product = { product: { about: 'what was bought', example: 'A year of membership' } };
const own = {
  link: { about: 'where they see what they have', example: '/me/purchases' },
};
const until = { until: { about: 'the last day on which it is theirs', example: '30 November 2027' } };
const sum = { sum: { about: 'how much it is', example: '24.00 €' } };
const now = {
  next: { about: 'when it is paid again', example: '1 December 2027', sometimes: true },
  price: { about: 'what it is then', example: '24.00 € a year', sometimes: true },
  password: {
    about: 'where they choose a password, if buying made their account',
    example: '/reset',
    sometimes: true,
  },
} as const;
const sometimes = { until: { ...until.until, sometimes: true } } as const;
const judged = {
  title: { about: 'what it was handed in to', example: 'Your first night' },
  words: { about: 'what their tutor wrote', example: 'The horizon is well observed.', sometimes: true },
  link: { about: 'where they see it', example: '/me/hand-in/first-night' },
} as const;

/** In the order in which they are listed. Whatever is in a letter to somebody who has shown nothing yet is not theirs to choose. */
export const LETTERS: { readonly [Kind in LetterKind]: Letter } = {
  signUp: { name: 'Code to sign up', of: 'Accounts', to: 'whoever signs up', names: code, needs: ['code'] },
  signUpAgain: {
    name: 'Has an account already',
    of: 'Accounts',
    to: 'whoever signs up and has an account',
    names: {},
    needs: [],
  },
  signUpClosed: {
    name: 'May not sign up',
    of: 'Accounts',
    to: 'whoever signs up and may not',
    names: {},
    needs: [],
  },
  newPassword: {
    name: 'Code for a new password',
    of: 'Accounts',
    to: 'whoever asks for a new password',
    names: code,
    needs: ['code'],
  },
  noAccount: {
    name: 'Has no account',
    of: 'Accounts',
    to: 'whoever asks for one and has no account',
    names: {},
    needs: [],
  },
  invitation: {
    name: 'Invitation',
    of: 'Accounts',
    to: 'whoever is invited',
    names: {
      name: { about: 'who is invited', example: 'Robin' },
      by: { about: 'who invites', example: 'Ada' },
      link: { about: 'where they choose a password', example: '/sign-up/invited/…' },
      until: { about: 'the last day on which the link is good', example: '4 December 2026' },
    },
    needs: ['link'],
  },
  receipt: {
    name: 'Receipt',
    of: 'Buying',
    to: 'whoever paid',
    names: {
      ...product,
      ...sum,
      day: { about: 'when it was paid', example: '27 November 2026' },
      ...sometimes,
      ...now,
      ...own,
    },
    needs: ['product', 'sum', 'day'],
  },
  free: {
    name: 'Yours, for nothing',
    of: 'Buying',
    to: 'whoever has something and paid nothing',
    names: { ...product, ...sometimes, ...now, ...own },
    needs: ['product'],
  },
  trial: {
    name: 'Yours to try',
    of: 'Buying',
    to: 'whoever begins a trial',
    names: { ...product, ...until, ...now, ...own },
    needs: ['product', 'until'],
  },
  late: {
    name: 'A payment is late',
    of: 'Buying',
    to: 'those whose payment did not come through',
    names: { ...product, ...sum, ...sometimes, ...own },
    needs: ['product'],
  },
  reminder: {
    name: 'It ends soon',
    of: 'Buying',
    to: 'the same, before it ends',
    names: { ...product, ...sum, when: { about: 'in how many days it ends', example: 'in 3 days' }, ...own },
    needs: ['product'],
  },
  ended: {
    name: 'It has ended',
    of: 'Buying',
    to: 'whoever has it no longer',
    names: { ...product, ...own },
    needs: ['product'],
  },
  tomorrow: {
    name: 'It is tomorrow',
    of: 'Buying',
    to: 'whoever has a ticket, the day before',
    names: {
      ...product,
      name: { about: 'whose ticket it is', example: 'Robin' },
      day: { about: 'the day', example: '28 November 2026' },
      ...own,
    },
    needs: ['product'],
  },
  stopped: {
    name: 'It is stopped',
    of: 'Buying',
    to: 'whoever stopped a subscription',
    names: { ...product, ...sometimes, ...own },
    needs: ['product'],
  },
  moneyBack: {
    name: 'Some money back',
    of: 'Buying',
    to: 'whoever gets money back and keeps what it was for',
    names: { ...product, ...sum, ...own },
    needs: ['product', 'sum'],
  },
  moneyBackEnded: {
    name: 'Money back, and ended',
    of: 'Buying',
    to: 'whoever gets money back, which ends it',
    names: { ...product, ...sum, ...own },
    needs: ['product', 'sum'],
  },
  disputed: {
    name: 'A payment is disputed',
    of: 'Buying',
    to: 'those whose bank disputes a payment',
    names: { ...product, ...own },
    needs: ['product'],
  },
  notGiven: {
    name: 'It can’t be given',
    of: 'Buying',
    to: 'whoever paid for what can’t be given',
    names: {
      ...product,
      why: {
        about: 'why it can’t be given',
        example: 'The last seat went to somebody else while you paid.',
      },
      ...own,
    },
    needs: ['why'],
  },
  accepted: {
    name: 'Accepted',
    of: 'Courses',
    to: 'those whose hand-in is accepted',
    names: judged,
    needs: ['title'],
  },
  givenBack: {
    name: 'Given back',
    of: 'Courses',
    to: 'those who are to hand in again',
    names: judged,
    needs: ['title', 'link'],
  },
};

export const LETTER_KINDS = keysOf(LETTERS);

/** What can be named in every letter. */
const IN_EVERY_LETTER = { site: { about: 'what the site is called', example: '' } } as const;

/** What can be named in a letter of a kind. */
export const namesIn = (kind: LetterKind): Readonly<Record<string, LetterName>> => ({
  ...LETTERS[kind].names,
  ...IN_EVERY_LETTER,
});

interface Example {
  /** What the site is called, and where it is. */
  readonly site: string;
  readonly origin: string;
  /** Who looks at the example. */
  readonly by: string;
}

/** Something to fill a letter of a kind in with, to see how it looks. */
export const exampleOf = (
  kind: LetterKind,
  { site, origin, by }: Example,
): Readonly<Record<string, string>> => ({
  ...Object.fromEntries(
    Object.entries(namesIn(kind)).map(([name, { example }]) => [
      name,
      example.startsWith('/') ? origin + example : name === 'by' ? by : example,
    ]),
  ),
  site,
});
