/** Following and leaving open groups: one button, and back to the page one was on. */
import { safeNext } from '@/core';
import { followGroup, signInAddress } from '@/services';
import { seeOther } from '../_http/response';
import type { SiteRequest } from '../_http/site-request';
import type { Door } from './door';
import { fieldsOf, shown } from './form-door';
import { missing } from './page';

export const groups: Door = {
  POST: async (ask) => {
    const [group, step, ...more] = ask.rest;
    const fields = await fieldsOf(ask);
    if (!group || more.length > 0 || fields === null || (step !== 'follow' && step !== 'leave'))
      return missing(ask);
    const back = safeNext(shown(fields, 'next') || pathOfReferrer(ask.request));
    const { person } = ask.visitor;
    if (!person) return seeOther(signInAddress(ask.context, back));
    const there = await followGroup(ask.trivet, person.id, group, step === 'follow', ask.now);
    return there ? seeOther(back) : missing(ask);
  },
};

/** The page that a form stood on, when its browser says so. */
function pathOfReferrer(request: SiteRequest): string {
  const referrer = request.headers.get('referer');
  if (!referrer || !URL.canParse(referrer)) return '/';
  const url = new URL(referrer);
  return url.host === request.headers.get('host') ? url.pathname + url.search : '/';
}
