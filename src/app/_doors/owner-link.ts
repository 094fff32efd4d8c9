/** The way back in, by a link that was made on the machine. Without one there is nothing here, like everywhere. */
import { frameFor, type OwnerLink, ownerLinkAt, signOut, takeOwnerLink } from '@/services';
import { renderOwnerLink } from '@/site';
import type { Answer } from '../_http/answer';
import { htmlAnswer, seeOther } from '../_http/response';
import { beginning } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { type Fields, fieldsOf, shown, unreadable } from './form-door';
import { missing } from './page';

export const ownerLink = {
  GET: (ask) => {
    const link = linkOf(ask);
    return link === null ? missing(ask) : drawn(ask, link, null, 200, {});
  },
  POST: async (ask) => {
    const link = linkOf(ask);
    if (link === null) return missing(ask);
    const fields = await fieldsOf(ask);
    if (fields === null) return drawn(ask, link, null, 400, { form: unreadable(ask) });
    const answer = await takeOwnerLink(ask.trivet, tokenOf(ask), fields, ask.now);
    switch (answer.kind) {
      case 'done':
        await signOut(ask.trivet, ask.visitor);
        return beginning(seeOther(answer.started.next), ask.request, answer.started);
      case 'wrong':
        return drawn(ask, link, fields, 422, answer.problems);
      case 'over':
        return missing(ask);
      default:
        return answer satisfies never;
    }
  },
} satisfies Door;

const tokenOf = ({ rest: [, token = ''] }: Ask): string => token;

const linkOf = (ask: Ask): OwnerLink | null =>
  ask.rest.length === 2 && !ask.delivery.walk ? ownerLinkAt(ask.trivet, tokenOf(ask), ask.now) : null;

async function drawn(
  ask: Ask,
  link: OwnerLink,
  fields: Fields | null,
  status: number,
  problems: Readonly<Partial<Record<'name' | 'password' | 'form', string>>>,
): Promise<Answer> {
  const html = await renderOwnerLink({
    frame: frameFor(ask.context, null),
    delivery: ask.delivery,
    action: `/reset/owner/${tokenOf(ask)}`,
    ...link,
    typed: shown(fields, 'name'),
    problems,
  });
  return htmlAnswer(html, { status });
}
