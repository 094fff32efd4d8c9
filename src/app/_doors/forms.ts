/** Forms that stand on pages. */
import { frameFor, sendForm } from '@/services';
import { renderForm } from '@/site';
import { htmlAnswer } from '../_http/response';
import type { Door } from './door';
import { fieldsOf } from './form-door';
import { missing } from './page';

export const forms: Door = {
  POST: async (ask) => {
    const [id, ...more] = ask.rest;
    const fields = await fieldsOf(ask);
    if (!id || more.length > 0 || fields === null) return missing(ask);
    const answer = await sendForm(ask.trivet, ask.context, id, fields, ask.now);
    if (answer.kind === 'missing') return missing(ask);
    const html = await renderForm({
      frame: frameFor(ask.context, null),
      delivery: ask.delivery,
      answer,
      action: `/forms/${encodeURIComponent(id)}`,
    });
    return htmlAnswer(html, { status: answer.kind === 'sent' ? 200 : 422 });
  },
};
