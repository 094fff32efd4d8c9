/** The API for apps: the same answers as pages, as JSON. Cookies are not looked at; a bearer token is, or a guest asks. */
import {
  asId,
  guest,
  type ItemId,
  isOpenable,
  KINDS,
  listed,
  OPENABLE_KINDS,
  type Openable,
  pathOf,
} from '@/core';
import {
  courseOutline,
  environment,
  type Given,
  givenAt,
  givenNowhere,
  pageFacts,
  readiness,
  type SectionView,
  sectionViews,
  summaryOf,
  teaserOf,
  textsReady,
  theTime,
  type ViewContext,
} from '@/services';
import type { Answer } from '../../_http/answer';
import { metricsFor, OPEN_METRICS } from '../../_http/metrics';
import { PRIVATE } from '../../_http/response';
import { bearerIn } from '../bearer';
import type { Door } from '../door';
import { missing } from '../page';
import { openApi } from './openapi';
import type { Course, Entry, Item, List, Problem, Section } from './shapes';

export const api: Door = {
  GET: async (ask) => {
    const [what, id, ...more] = ask.rest;
    if (ask.delivery.walk) return missing(ask);
    if (what === 'health' && id === undefined) return json({ ok: true });
    if (what === 'ready' && id === undefined) {
      const told = await readiness(ask.trivet, theTime());
      return json(told, told.ready ? 200 : 503);
    }
    if (what === 'metrics' && id === undefined) {
      const text = await metricsFor(ask.request.headers.get('authorization'), environment().metricsToken);
      if (text === null) return nothing();
      return { status: 200, headers: { 'Content-Type': OPEN_METRICS, 'Cache-Control': PRIVATE }, body: text };
    }
    if (what === 'openapi.json' && id === undefined) return json(openApi(ask.delivery.origin));
    if ((what !== 'items' && what !== 'courses') || more.length > 0) return nothing();
    if (what === 'courses' && id === undefined) return nothing();
    const context = await bearerIn(ask, guest);
    if (context === null) {
      const headers = { 'WWW-Authenticate': 'Bearer error="invalid_token"' };
      return refuse(
        { title: 'That key is good for nothing. Make another on your account page.', status: 401 },
        headers,
      );
    }
    if (id === undefined) return list(context, ask.url.searchParams);
    return what === 'courses' ? course(context, id) : one(context, id);
  },
};

const AT_ONCE = 20;
const MOST_AT_ONCE = 100;

function list(context: ViewContext, parameters: URLSearchParams): Answer {
  const kind = parameters.get('kind');
  const limit = Number(parameters.get('limit') ?? AT_ONCE);
  if (kind !== null && !(OPENABLE_KINDS as readonly string[]).includes(kind))
    return refuse({
      title: `There are ${listed(OPENABLE_KINDS.map((one) => KINDS[one].many))}. Write ${listed(
        OPENABLE_KINDS.map((one) => `kind=${one}`),
        'or',
      )}.`,
      status: 400,
    });
  if (!Number.isInteger(limit) || limit < 1 || limit > MOST_AT_ONCE)
    return refuse({ title: `A limit is a whole number from 1 to ${MOST_AT_ONCE}.`, status: 400 });
  const wanted = { category: parameters.get('category'), tag: parameters.get('tag') };
  const all = told(context).filter(
    (item) =>
      (kind === null || item.kind === kind) &&
      (wanted.category === null || item.facts?.category === wanted.category) &&
      (wanted.tag === null || item.facts?.tags?.includes(wanted.tag)),
  );
  const after = parameters.get('after');
  const from = after === null ? 0 : all.findIndex(({ id }) => id === after) + 1;
  if (after !== null && from === 0 && !all.some(({ id }) => id === after))
    return refuse({
      title: 'There is no item with that id to go on after. Begin again without it.',
      status: 400,
    });
  const items: Entry[] = [];
  let last: Openable | null = null;
  let rest = false;
  for (const item of all.slice(from)) {
    const entry = entryIn(context, item);
    if (entry === null) continue;
    if (items.length === limit) {
      rest = true;
      break;
    }
    items.push(entry);
    last = item;
  }
  const query = new URLSearchParams(parameters);
  if (last) query.set('after', last.id);
  return json({ items, next: rest ? `/api/items?${query}` : null } satisfies List);
}

/** Everything that may be told of to whoever asks: posts, the latest first, then pages, then files. */
function told(context: ViewContext): readonly Openable[] {
  const { outline, posts } = context.state;
  const rest = [...outline.items.values()].filter(isOpenable);
  const all = [
    ...posts,
    ...OPENABLE_KINDS.filter((kind) => kind !== 'post').flatMap((kind) =>
      rest.filter((item) => item.kind === kind),
    ),
  ];
  return all.filter(({ id }) => {
    const { kind } = givenAt(context, id);
    return kind === 'open' || kind === 'teaser';
  });
}

function entryIn(context: ViewContext, item: Openable, given = givenAt(context, item.id)): Entry | null {
  const { kind: _, ...facts } = pageFacts(item);
  const base = {
    id: item.id,
    kind: item.kind,
    ...facts,
    tags: [...facts.tags],
    address: encodeURI(pathOf(item) ?? ''),
  };
  if (given.kind === 'open')
    return {
      ...base,
      access: 'open',
      summary: summaryOf(context.state, context.compiled, item.id),
      reason: null,
    };
  if (given.kind !== 'teaser') return null;
  const { text, reason } = teaserOf(context, item.id, given.decision, base.address);
  return { ...base, access: 'teaser', summary: text, reason };
}

async function one(context: ViewContext, id: string): Promise<Answer> {
  const item = context.state.outline.items.get(asId<ItemId>(id));
  const there = isOpenable(item) ? item : null;
  const given = there && givenAt(context, there.id);
  if (!there || !given || given.kind === 'missing') return neverThere(context);
  if (given.kind === 'open' && there.kind !== 'file') await textsReady(context, there.id);
  return given.kind === 'open' || given.kind === 'teaser' ? whole(context, there, given) : refusedBy(given);
}

/** The outline of a course, as whoever asks gets it, with what they have done. */
function course(context: ViewContext, id: string): Answer {
  const item = context.state.outline.items.get(asId<ItemId>(id));
  const there = item?.kind === 'course' ? item : null;
  const given = there && givenAt(context, there.id);
  if (!there || !given || given.kind === 'missing') return neverThere(context);
  return given.kind === 'open' ? outlineOf(context, there) : refusedBy(given);
}

function outlineOf(context: ViewContext, item: Extract<Openable, { kind: 'course' }>): Answer {
  const { units, progress } = courseOutline(context, item.id, item.address);
  return json({
    id: item.id,
    title: item.title,
    address: encodeURI(item.address),
    progress,
    units: units.map((unit) => ({
      id: unit.id,
      title: unit.title,
      ...openOr(unit.closed),
      activities: unit.activities.map(({ id: own, title, type, address, done, closed }) => ({
        id: own,
        title,
        type,
        address,
        done,
        ...openOr(closed),
      })),
    })),
  } satisfies Course);
}

const openOr = (closed: { readonly reason: string | null } | null) => ({
  open: closed === null,
  reason: closed?.reason ?? null,
});

/** An id that was never there says nothing of where it would be found. */
function neverThere(context: ViewContext): Answer {
  const nowhere = givenNowhere(context, '/');
  return nowhere.kind === 'missing' ? nothing() : refusedBy(nowhere);
}

/** What is not open, with where to go if there is a place; ways back are a browser's. */
const refusedBy = (given: Given): Answer =>
  refuse({
    title: 'This is not open to you.',
    status: 403,
    ...(given.kind === 'message' && given.reason !== null && { detail: given.reason }),
    ...(given.kind === 'redirect' && { location: given.to.replace(/\?next=[^&]*$/, '') }),
  });

function whole(context: ViewContext, item: Openable, given: Given): Answer {
  const entry = entryIn(context, item, given);
  if (!entry) return nothing();
  const open = given.kind === 'open';
  return json({
    ...entry,
    sections:
      open && item.kind !== 'file' ? sectionViews(context, item.id, item.address).flatMap(sectionIn) : [],
    ...(open && item.kind === 'file' && { mediaType: item.mediaType, size: item.size }),
  } satisfies Item);
}

function sectionIn(view: SectionView): Section[] {
  const { id, kind } = view;
  switch (view.kind) {
    case 'text':
    case 'swap':
    case 'form':
    case 'follow':
    case 'prices':
      return [{ id, kind, html: view.html }];
    case 'picture':
      return [{ id, kind, address: view.picture.address, text: view.picture.alt, caption: view.caption }];
    case 'video':
      return [{ id, kind, address: view.address, caption: view.caption }];
    case 'call':
      return [{ id, kind, html: view.html, title: view.label, address: view.address }];
    case 'posts':
      return [{ id, kind, entries: view.entries.map((entry) => entry.id) }];
    case 'outline':
      return [
        {
          id,
          kind,
          title: view.title,
          address: view.address,
          entries: view.course.units.flatMap(({ activities }) => activities.map((one) => one.id)),
        },
      ];
    case 'files':
      return [{ id, kind, entries: view.files.map((file) => file.id) }];
    case 'teaser':
      return [{ id, kind, title: view.title, text: view.text, reason: view.reason }];
    case 'locked':
      return [{ id, kind, title: view.title, reason: view.reason }];
    case 'message':
      return [{ id, kind, reason: view.reason }];
    case 'account':
    case 'space':
      return [];
    default:
      return view satisfies never;
  }
}

const json = (value: object, status = 200): Answer => ({
  status,
  headers: {
    'Content-Type': 'application/json',
    'Cache-Control': PRIVATE,
    'X-Content-Type-Options': 'nosniff',
  },
  body: JSON.stringify(value),
});

const refuse = (problem: Problem, headers: Readonly<Record<string, string>> = {}): Answer => ({
  status: problem.status,
  headers: { 'Content-Type': 'application/problem+json', 'Cache-Control': PRIVATE, ...headers },
  body: JSON.stringify(problem),
});

const nothing = (): Answer => refuse({ title: 'There is nothing here.', status: 404 });
