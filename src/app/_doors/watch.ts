/** What of a video was played. Its page's script tells it; nothing is to be seen here. */
import { notePlayed } from '@/services';
import type { Answer } from '../_http/answer';
import { PRIVATE } from '../_http/response';
import type { Ask } from './door';
import { fieldsOf } from './form-door';
import { missing } from './page';

export const watch = {
  GET: (ask: Ask): Promise<Answer> => missing(ask),
  POST: async (ask: Ask): Promise<Answer> => {
    const [activity, ...more] = ask.rest;
    const { trivet, visitor, context, now } = ask;
    if (activity === undefined || more.length > 0 || !visitor.person) return missing(ask);
    const fields = await fieldsOf(ask);
    const noted = fields && (await notePlayed(trivet, visitor, activity, fields, context.request, now));
    if (noted === 'closed') return missing(ask);
    const status = noted === 'done' ? 200 : noted === 'noted' ? 204 : 400;
    return { status, headers: { 'Cache-Control': PRIVATE }, body: null };
  },
};
