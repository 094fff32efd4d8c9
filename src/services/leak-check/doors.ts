/** Every door of a site, as the requests that a visitor with too much time would make. */
import { type ItemId, isAddressed, OPENABLE_KINDS, type Outline, pathOf } from '@/core';
import type { StoredTerms } from '@/store';
import { slugOf } from '../view';
import type { Tester } from './copy';
import { pathOfHandIn, pathsOfWork } from './handed-in';
import { COMMON, type Planted } from './marks';
import { pathsOfOrders } from './sold';

/** One request. */
export interface Try {
  /** What kind of door it is, for the report. */
  readonly door: string;
  readonly path: string;
  readonly method: 'GET' | 'POST';
  readonly headers: Readonly<Record<string, string>>;
  /** What is sent with it; nothing, unless it is said. */
  readonly form?: string;
}

/** What is asked of a quiz, and what is told of it once it was handed in without an answer. */
export const QUIZ = 'quiz';
export const QUIZ_HANDED_IN = 'quiz that was handed in';

const ask = (door: string, path: string, headers: Record<string, string> = {}): Try => ({
  door,
  path,
  method: 'GET',
  headers,
});

/** What client navigation of the framework would ask with. */
const NAVIGATION = { rsc: '1', 'next-router-prefetch': '1', 'next-url': '/', accept: 'text/x-component' };

/** The requests of one visitor. */
export function* triesOf(
  outline: Outline,
  tester: Tester,
  cookieName: string,
  { work, terms, orders }: Pick<Planted, 'work' | 'terms' | 'orders'>,
): Generator<Try> {
  const cookie = (token: string | null): Record<string, string> =>
    token === null ? {} : { cookie: `${cookieName}=${token}` };
  // Nothing is opened by it: what is done once it was opened stays as it is.
  const own = { ...cookie(tester.session), 'sec-purpose': 'prefetch' };
  for (const path of pathsOf(outline)) {
    yield ask('page', path, own);
    yield ask('page data of client navigation', `${path}${path.includes('?') ? '&' : '?'}_rsc=1`, {
      ...own,
      ...NAVIGATION,
    });
  }
  for (const item of outline.items.values()) {
    const path = pathOf(item);
    if (isAddressed(item) && path !== null && path !== '/') {
      yield ask('page', `${encodeURI(path).toUpperCase()}/`, own);
      yield ask('page', `//${encodeURI(path).slice(1)}//`, own);
    }
    if (item.kind === 'file' && path !== null)
      yield ask('file', encodeURI(path), { ...own, range: 'bytes=0-' });
    yield ask('API', `/api/items/${encodeURIComponent(item.id)}`, bearer(tester.apiKey));
    if (item.kind === 'course')
      yield ask('API', `/api/courses/${encodeURIComponent(item.id)}`, bearer(tester.apiKey));
    if (item.kind === 'activity' && item.activity === 'quiz') yield* quizTries(item.id, own);
    if (item.kind === 'activity' && item.activity === 'hand-in')
      yield ask('hand-in', pathOfHandIn(item.id), own);
    if (item.kind === 'section')
      yield {
        door: 'form',
        path: `/forms/${encodeURIComponent(item.id)}`,
        method: 'POST',
        headers: { ...own, 'content-type': 'application/x-www-form-urlencoded' },
      };
  }
  for (const path of pathsOfWork(work)) yield ask('what was handed in', path, own);
  for (const path of pathsOfShop(terms)) yield ask('shop', path, own);
  for (const path of pathsOfOrders(orders)) yield ask('what was bought', path, own);
  for (const kind of ['', ...OPENABLE_KINDS.map((one) => `&kind=${one}`)])
    yield ask('API', `/api/items?limit=100${kind}`, bearer(tester.apiKey));
  yield ask('API', '/api/openapi.json', bearer(tester.apiKey));
  for (const feed of ['/feed.xml', '/feed.json']) {
    yield ask('feed', feed, own);
    for (const category of categoriesOf(outline))
      yield ask('feed', `${feed}?category=${encodeURIComponent(slugOf(category))}`, own);
    if (tester.feedKey !== null) yield ask('private feed', `${feed}?key=${tester.feedKey}`);
  }
  yield ask('sitemap', '/sitemap.xml', own);
  yield ask('robots', '/robots.txt', own);
  yield ask('search', `/search?q=${COMMON}`, own);
  if (tester.walk) {
    const walking = cookie(tester.walk.session);
    for (const path of pathsOf(outline)) yield ask('walk', `/walk/${tester.walk.token}${path}`, walking);
    for (const item of outline.items.values())
      if (item.kind === 'activity')
        for (const door of ['quiz', 'hand-in'])
          yield ask('walk', `/walk/${tester.walk.token}/me/${door}/${encodeURIComponent(item.id)}`, walking);
    for (const path of [...pathsOfWork(work), ...pathsOfShop(terms), ...pathsOfOrders(orders)])
      yield ask('walk', `/walk/${tester.walk.token}${path}`, walking);
    yield ask('walk', `/walk/${tester.walk.token}/search?q=${COMMON}`, walking);
    // A walk's address is good for nothing without the session it belongs to.
    yield ask('walk of somebody else', `/walk/${tester.walk.token}/`, own);
  }
}

/** Begins an attempt, looks at it, hands it in as it is, and looks at what is told. */
function* quizTries(activity: ItemId, own: Readonly<Record<string, string>>): Generator<Try> {
  const path = `/me/quiz/${encodeURIComponent(activity)}`;
  const send = (door: string, to: string, form: string): Try => ({
    door,
    path: to,
    method: 'POST',
    headers: { ...own, 'content-type': 'application/x-www-form-urlencoded' },
    form,
  });
  yield ask(QUIZ, path, own);
  yield send(QUIZ, `${path}/begin`, '');
  yield ask(QUIZ, path, own);
  yield send(QUIZ, path, 'attempt=1&do=keep&q0=0&q1=0&q2=x');
  yield send(QUIZ, path, 'attempt=1&do=hand+in');
  yield ask(QUIZ, path, own);
  yield send(QUIZ_HANDED_IN, path, 'attempt=1&do=hand+in+as+it+is');
  yield ask(QUIZ_HANDED_IN, path, own);
}

const bearer = (key: string | null): Record<string, string> =>
  key === null ? {} : { authorization: `Bearer ${key}` };

/** The paths of everything that has one, the lists, and Trivet's own pages. */
function* pathsOf(outline: Outline): Generator<string> {
  for (const item of outline.items.values()) {
    const path = pathOf(item);
    if (path !== null) yield encodeURI(path);
  }
  for (const category of categoriesOf(outline)) yield encodeURI(`/category/${slugOf(category)}`);
  for (const tag of tagsOf(outline)) yield encodeURI(`/tag/${slugOf(tag)}`);
  yield* ['/sign-in', '/sign-up', '/reset', '/passphrase', '/search', '/me', '/me/keys', '/never-there'];
  yield* ['/sign-up/confirm?token=x', '/sign-up/invited/x', '/reset/confirm?token=x', '/reset/owner/x'];
}

/** The shop, every product in it, and what one has. */
const pathsOfShop = (terms: readonly StoredTerms[]): readonly string[] => [
  '/shop',
  ...terms.map(({ product }) => `/shop/${encodeURIComponent(product)}`),
  '/me/purchases',
];

const categoriesOf = ({ items }: Outline): ReadonlySet<string> =>
  new Set([...items.values()].flatMap(({ facts }) => facts?.category ?? []));
const tagsOf = ({ items }: Outline): ReadonlySet<string> =>
  new Set([...items.values()].flatMap(({ facts }) => facts?.tags ?? []));
