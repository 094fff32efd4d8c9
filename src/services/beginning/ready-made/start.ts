/** What every site begins with: a home page, a way in, an account of one's own. */
import type { Day } from '@/core';
import { type ItemInFile, parts, type SiteFile } from '../../site-file';

/** What is asked for before a site is made. */
export interface Start {
  readonly title: string;
  /** IANA name. */
  readonly timeZone: string;
  readonly today: Day;
}

type Owner = Partial<NonNullable<SiteFile['people']>[number]>;

/** A site that somebody can begin with. */
export interface ReadyMade {
  readonly name: string;
  /** What it is for, in a sentence. */
  readonly about: string;
  readonly site: (start: Start) => SiteFile;
  /** What its owner has there, so that they see what they made. */
  readonly owner: Owner;
}

const { leaveOut, link, page, redirectToSignIn, to } = parts;

/** The site itself, with the words beside the sign-in form. */
export const root = (title: string, body = ''): ItemInFile => ({
  kind: 'site',
  id: 'site',
  parent: null,
  title,
  body,
});

export const accountPage = page('account', 'site', 'My account', '/account', 'What this site knows of you.', [
  { type: 'account', id: 'account-form', title: 'What we know of you' },
]);

/** The links of whoever has an account, in a menu. */
export const accountLinks = (menu: string): readonly ItemInFile[] => [
  link('link-account', menu, 'My account', to('account')),
  link('link-sign-out', 'link-account', 'Sign out', { kind: 'sign out' }),
];

/** The menu at the top: the home page and some others. */
export const menuOf = (links: readonly ItemInFile[]): readonly ItemInFile[] => [
  { kind: 'menu', id: 'top', parent: 'site', title: 'Top menu', place: 'top' },
  link('link-home', 'top', 'Home', to('home')),
  ...links,
];

/** The same with the account, and the way in and out. */
export const topMenu = (links: readonly ItemInFile[]): readonly ItemInFile[] =>
  menuOf([...links, ...accountLinks('top'), link('link-sign-in', 'top', 'Sign in', { kind: 'sign in' })]);

/** A link in the menu at the top to an item, named like it. */
export const linkTo = (item: string, title: string): ItemInFile =>
  link(`link-${item}`, 'top', title, to(item));

/** The gates of the account and of the way in. */
export const accountGates: readonly object[] = [
  parts.gate('account', parts.item('account'), 'signed in', redirectToSignIn),
  parts.gate('sign-in-link', parts.item('link-sign-in'), 'not signed in', leaveOut),
];

/** A post of a ready-made site. */
export const post = (
  id: string,
  title: string,
  category: string,
  date: Day,
  summary: string,
  body: string,
): ItemInFile => ({
  kind: 'post',
  id,
  parent: 'site',
  title,
  address: `/news/${id}`,
  summary,
  body,
  facts: { category, date },
});

/** A site file with nothing in it but what is given. */
export const siteOf = (
  { timeZone }: Start,
  { policy, ...rest }: Partial<SiteFile> & Pick<SiteFile, 'items'>,
): SiteFile => ({
  format: 'trivet site',
  version: 1,
  timeZone,
  levels: [],
  roles: [],
  groups: [],
  policy: { ...NO_GATES, ...(policy as object | undefined) },
  ...rest,
});

const NO_GATES = {
  gates: [],
  audiences: [],
  turnAways: [],
  landings: [],
  expectations: [],
};
