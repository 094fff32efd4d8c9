/** What a server answers that has no site: the form with which one begins, to whoever has its address, and how to find it. */
import { english, LANGUAGES } from '@/core';
import {
  type BeginProblems,
  beginningAt,
  beginSite,
  LARGEST_SITE_FILE,
  READY_MADE,
  type Trivet,
} from '@/services';
import { renderBegin, renderNothingYet } from '@/site';
import type { Answer } from '../_http/answer';
import { readMultipart } from '../_http/multipart';
import { fromThisSite } from '../_http/request';
import { delivery, htmlAnswer, PRIVATE, seeOther } from '../_http/response';
import { beginning } from '../_http/session-cookie';
import { pathOf, type SiteRequest } from '../_http/site-request';
import { assetNamed } from './assets';
import { type Fields, shown } from './form-door';

/** What the addresses to begin at begin with. */
export const BEGINNING = '/begin/';

/** Where it can't be known whether there is a site. */
export const NOTHING_KNOWN = english.frame.cutOff;

/** What stands beside a site file in the form, in bytes. */
const LARGEST_FORM = 20_000;

/** The answer of a server without a site; null where there is one. Whoever has just begun, and goes back, is led to the desk. */
export async function beginAnswer(trivet: Trivet, request: SiteRequest, now: Date): Promise<Answer | null> {
  const path = pathOf(request);
  const token = path.startsWith(BEGINNING) ? path.slice(BEGINNING.length) : null;
  if (trivet.hasSite)
    return token !== null && beginningAt(trivet, token, now) === 'begun' ? seeOther('/desk') : null;
  if (path === '/api/health')
    return { status: 200, headers: { 'Content-Type': 'application/json' }, body: '{"ok":true}' };
  const asset = path.startsWith('/assets/') ? assetNamed(path.slice('/assets/'.length)) : null;
  if (asset) return asset;
  const found = token === null ? null : beginningAt(trivet, token, now);
  if (token === null || found !== 'open') return nothingYet(found === 'over');
  if (request.method === 'GET' || request.method === 'HEAD') return form(token, null, 200, {});
  if (request.method !== 'POST')
    return { status: 405, headers: { Allow: 'GET, HEAD, POST', 'Cache-Control': PRIVATE }, body: null };
  return begin(trivet, token, request, now);
}

async function begin(trivet: Trivet, token: string, request: SiteRequest, now: Date): Promise<Answer> {
  const sent = fromThisSite(request) ? await readMultipart(request, LARGEST_SITE_FILE + LARGEST_FORM) : null;
  if (sent === null) return form(token, null, 400, { form: [english.frame.unreadable] });
  if ('tooLarge' in sent)
    return form(token, sent.tooLarge, 413, {
      file: [`A site file has at most ${LARGEST_SITE_FILE / 1_000_000} MB.`],
    });
  const answer = await beginSite(trivet, token, sent.fields, sent.files[0]?.bytes ?? null, now);
  switch (answer.kind) {
    case 'begun':
      return beginning(seeOther(answer.started.next), request, answer.started);
    case 'wrong':
      return form(token, sent.fields, 422, answer.problems);
    case 'over':
      return trivet.hasSite ? seeOther('/desk') : nothingYet(true);
    default:
      return answer satisfies never;
  }
}

async function form(
  token: string,
  fields: Fields | null,
  status: number,
  problems: BeginProblems,
): Promise<Answer> {
  const zones = Intl.supportedValuesOf('timeZone');
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const html = await renderBegin({
    delivery: delivery(false, false),
    action: BEGINNING + token,
    timeZones: [...new Set(['UTC', here, ...zones])],
    languages: LANGUAGES.map(({ tag, name }) => ({ tag, name })),
    sites: Object.entries(READY_MADE).map(([id, { name, about }]) => ({ id, name, about })),
    typed: {
      title: shown(fields, 'title'),
      timeZone: shown(fields, 'timeZone') || here,
      language: shown(fields, 'language') || 'en',
      name: shown(fields, 'name'),
      email: shown(fields, 'email'),
      with: shown(fields, 'with') || 'empty',
    },
    problems,
  });
  return htmlAnswer(html, { status });
}

/** For a while: so that nobody who looks in now remembers it as gone. */
const nothingYet = async (over: boolean): Promise<Answer> =>
  htmlAnswer(await renderNothingYet({ delivery: delivery(false, false), over }), {
    status: 503,
    headers: { 'Retry-After': '120' },
  });
