import { guest } from '@/core';
import { landingFor, signOut } from '@/services';
import { fromThisSite } from '../_http/request';
import { seeOther } from '../_http/response';
import { sessionCookie } from '../_http/session-cookie';
import type { Door } from './door';

export const signOutDoor: Door = {
  /** Somebody who comes here by address has not asked for anything yet. */
  GET: ({ context }) => seeOther(`${context.base}/`),
  POST: async ({ trivet, request, visitor, now }) => {
    if (!fromThisSite(request)) return seeOther('/');
    await signOut(trivet, visitor);
    // Whoever has signed out is a guest, and rules are asked as of one.
    const next = landingFor(trivet.state, 'sign out', guest, '/', now);
    return seeOther(next, { 'Set-Cookie': sessionCookie('', 0) });
  },
};
