import { search } from '@/services';
import { renderSearch } from '@/site';
import { htmlAnswer } from '../_http/response';
import type { Door } from './door';
import { missing } from './page';

/** Searching: a plain form. */
export const searchDoor: Door = {
  GET: async (ask) => {
    if (ask.rest.length > 0) return missing(ask);
    const answer = await search(ask.context, ask.trivet.db, ask.url.searchParams.get('q') ?? '');
    const html = await renderSearch({ answer, delivery: ask.delivery });
    return htmlAnswer(html, { status: 200, walk: ask.delivery.walk });
  },
};
