/** Where an invitation leads: a password is chosen, and one is in. Without one there is nothing here, like everywhere. */
import { answerInvitation, frameFor, type Invited, invitationAt, signOut } from '@/services';
import { renderInvitationOver, renderInvited } from '@/site';
import type { Answer } from '../_http/answer';
import { htmlAnswer, seeOther } from '../_http/response';
import { beginning } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { fieldsOf, unreadable } from './form-door';
import { missing } from './page';

export const invited = {
  GET: async (ask) => {
    const found = await invitationOf(ask);
    return found === null ? over(ask) : drawn(ask, found, 200, null);
  },
  POST: async (ask) => {
    const found = await invitationOf(ask);
    if (found === null) return over(ask);
    const fields = await fieldsOf(ask);
    if (fields === null) return drawn(ask, found, 400, unreadable(ask));
    const answer = await answerInvitation(
      ask.trivet,
      tokenOf(ask),
      fields,
      ask.visitor.facts.passphrases,
      ask.now,
    );
    switch (answer.kind) {
      case 'done':
        await signOut(ask.trivet, ask.visitor);
        return beginning(seeOther(answer.started.next), ask.request, answer.started);
      case 'wrong':
        return drawn(ask, found, 422, answer.problem);
      case 'over':
        return over(ask);
      default:
        return answer satisfies never;
    }
  },
} satisfies Door;

const tokenOf = ({ rest: [, token = ''] }: Ask): string => token.slice(0, 100);

const invitationOf = async (ask: Ask): Promise<Invited | null> =>
  ask.rest.length === 2 && !ask.delivery.walk ? invitationAt(ask.trivet, tokenOf(ask), ask.now) : null;

/** The same whatever is typed there; without anything, there is nothing here. */
async function over(ask: Ask): Promise<Answer> {
  const { context, delivery, rest } = ask;
  if (rest.length !== 2 || delivery.walk) return missing(ask);
  return htmlAnswer(await renderInvitationOver({ frame: frameFor(context, null), delivery }), {
    status: 404,
  });
}

async function drawn(
  ask: Ask,
  { name, email }: Invited,
  status: number,
  problem: string | null,
): Promise<Answer> {
  const html = await renderInvited({
    frame: frameFor(ask.context, null),
    delivery: ask.delivery,
    action: `/sign-up/invited/${tokenOf(ask)}`,
    name,
    email,
    problem,
  });
  return htmlAnswer(html, { status });
}
