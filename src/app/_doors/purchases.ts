/** What somebody bought: how it stands, receipts, stopping it, another card, another plan. */
import {
  changePlan,
  environment,
  frameFor,
  newCard,
  OWN_PURCHASES,
  ownPurchases,
  ownReceipt,
  runningTill,
  signInAddress,
  stopOwn,
} from '@/services';
import { renderPurchases, renderReceipt } from '@/site';
import type { Answer } from '../_http/answer';
import { htmlAnswer, seeOther } from '../_http/response';
import type { Ask } from './door';
import { fieldsOf, unreadable } from './form-door';
import { missing } from './page';

export const purchases = {
  GET: (ask: Ask): Answer | Promise<Answer> => {
    if (ask.rest.length > 0) return missing(ask);
    if (!ask.context.facts.signedIn) return seeOther(signInAddress(ask.context, OWN_PURCHASES));
    return drawn(ask, 200, null);
  },
  POST: async (ask: Ask): Promise<Answer> => {
    const [id, step, ...more] = ask.rest;
    const { trivet, visitor, context, now } = ask;
    if (id === undefined || more.length > 0) return missing(ask);
    if (!visitor.person) return seeOther(signInAddress(context, OWN_PURCHASES));
    const fields = await fieldsOf(ask);
    if (fields === null) return drawn(ask, 400, unreadable(ask));
    const till = runningTill();
    const answer =
      step === 'stop'
        ? await stopOwn(trivet, till, visitor, id, now)
        : step === 'card'
          ? await newCard(trivet, till, visitor, id, environment().publicUrl, now)
          : step === 'plan'
            ? await changePlan(trivet, till, { visitor, context }, id, fields, now)
            : { kind: 'missing' as const };
    if (answer.kind === 'missing') return missing(ask);
    return answer.kind === 'wrong' ? drawn(ask, 422, answer.problem) : seeOther(answer.to);
  },
};

async function drawn(ask: Ask, status: number, problem: string | null): Promise<Answer> {
  const { trivet, visitor, context, delivery, now } = ask;
  const theirs =
    visitor.person && !delivery.walk ? await ownPurchases(trivet, visitor.person, context, now) : null;
  const html = await renderPurchases({
    frame: frameFor(context, null),
    delivery,
    purchases: theirs,
    problem,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, formsTo: runningTill()?.origin ?? null });
}

export const receipt = {
  GET: async (ask: Ask): Promise<Answer> => {
    const [order, notice, ...more] = ask.rest;
    if (order === undefined || notice === undefined || more.length > 0) return missing(ask);
    const { context, delivery, trivet, visitor } = ask;
    if (!context.facts.signedIn) return seeOther(signInAddress(context, OWN_PURCHASES));
    const found = delivery.walk ? null : await ownReceipt(trivet, visitor, order, notice);
    if (found === null) return missing(ask);
    const html = await renderReceipt({ frame: frameFor(context, null), delivery, receipt: found });
    return htmlAnswer(html, { status: 200 });
  },
  POST: missing,
};
