/** Apps that ask as a member: with a key in the request (RFC 6750) instead of a cookie. */
import type { VisitorFacts } from '@/core';
import { personWithKey, type ViewContext } from '@/services';
import type { Ask } from './door';

/**
 * Who asks: the member whose key came with the request, or whoever it is without one; null for a key that is good for
 * nothing.
 */
export async function bearerIn(ask: Ask, otherwise: VisitorFacts): Promise<ViewContext | null> {
  const header = ask.request.headers.get('authorization');
  if (header === null)
    return otherwise === ask.context.facts ? ask.context : { ...ask.context, person: null, facts: otherwise };
  const key = /^bearer +([\w-]+)$/i.exec(header.trim())?.[1];
  const person = key === undefined ? null : await personWithKey(ask.trivet, key, 'api');
  return person && { ...ask.context, person, facts: person.facts };
}

/** What is answered to a key that is good for nothing. */
export const INVALID_TOKEN = { 'WWW-Authenticate': 'Bearer error="invalid_token"' } as const;
