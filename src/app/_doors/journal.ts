/** What the journal hears of: pages, posts and files that were asked for, and steps towards what was closed. */
import { asId, decideNowhere, type ItemId, normaliseAddress, noSuchItem } from '@/core';
import { decisionOn } from '@/services';
import type { Answer } from '../_http/answer';
import { addressOf } from '../_http/request';
import { SESSION_COOKIE } from '../_http/session-cookie';
import type { Asking } from './door';

/** Notes a request that was answered. Administrators look around for their work, so they are left out. */
export function noteInJournal(
  { trivet, request, visitor, context, path, now }: Asking,
  first: string,
  isDoor: boolean,
  answer: Answer,
): void {
  if (context.state.settings.journal === 'off' || visitor.person?.desk) return;
  const browser = `${addressOf(request)} ${request.headers.get('user-agent') ?? ''}`;
  const visit = { browser, person: visitor.person?.id ?? null, now };
  if (request.method === 'POST') {
    const began = String(answer.headers['Set-Cookie'] ?? '').startsWith(`${SESSION_COOKIE}=`);
    if (began && first === 'sign-in') trivet.journal.step(trivet, visit, 'signedIn');
    if (began && first === 'sign-up') trivet.journal.step(trivet, visit, 'signedUp');
    return;
  }
  if (request.method !== 'GET') return;
  if (isDoor && first !== 'files') return;
  const item = itemAsked(context, path, first);
  const kind = first === 'files' ? 'file' : 'page';
  const decision =
    item === null
      ? decideNowhere(context.compiled, kind, normaliseAddress(path), context.facts, context.request)
      : decisionOn(context, item);
  trivet.journal.note(trivet, visit, item, item === null && decision.kind === 'open' ? noSuchItem : decision);
}

function itemAsked({ state }: Asking['context'], path: string, first: string): ItemId | null {
  if (first === 'files') {
    const id = asId<ItemId>(path.split('/')[2] ?? '');
    return state.outline.items.get(id)?.kind === 'file' ? id : null;
  }
  const address = normaliseAddress(path);
  return (address && state.outline.addressed.get(address)?.id) || null;
}
