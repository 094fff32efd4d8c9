/** What the site asks the till by itself: about orders of which nothing was told, and whatever an order left to be asked. */
import { addDays, type Day, type EndedBy, isGoodOn, lastDayOf, type ProductId } from '@/core';
import {
  type DueStep,
  freePlaces,
  lockOrder,
  noteLetter,
  type Order,
  readDueOrders,
  readEndingOrders,
  readOrder,
  readPaidOrders,
  readPaidUnasked,
  readWaitingOrders,
  updateOrder,
} from '@/store';
import type { Trivet } from '../running';
import { momentAt } from '../running';
import { type Till, TillTrouble } from '../till';
import { MINUTE } from '../visiting';
import { type Letter, sendLetter } from './letters';
import { takeNotices } from './take-notice';

/** How long an order waits before the till is asked about it. */
const PATIENCE_MS = 2 * MINUTE;
const DAY_MS = 24 * 60 * MINUTE;
/** How many are asked about in one go. */
const MOST_AT_ONCE = 50;

/** Asks the till what has become of an order. Answers false where it does not say. */
export async function askAbout(trivet: Trivet, till: Till, order: Order, now: Date): Promise<boolean> {
  if (order.reference === null) return false;
  await updateOrder(trivet.db, order.id, { askedAt: now });
  try {
    const told = await till.notices(order.reference, now);
    await takeNotices(
      trivet,
      told.filter((notice) => notice.order === order.id),
      now,
    );
    return true;
  } catch (error) {
    if (error instanceof TillTrouble) return false;
    throw error;
  }
}

/** Does everything that is to be done by itself. Harmless however often it is done, and wherever it is broken off. */
export async function tendOrders(trivet: Trivet, till: Till | null, now: Date): Promise<void> {
  if (till !== null) {
    const since = new Date(now.getTime() - PATIENCE_MS);
    // A till that does not answer about one is left alone for now.
    for (const order of await readWaitingOrders(trivet.db, since, MOST_AT_ONCE))
      if (order.reference !== null && !(await askAbout(trivet, till, order, now))) break;
    for (const order of await readDueOrders(trivet.db, MOST_AT_ONCE)) await doDue(trivet, till, order, now);
    // What was told of paid orders and got lost, a renewal or a refund, is found within a day.
    const yesterday = new Date(now.getTime() - DAY_MS);
    for (const order of await readPaidUnasked(trivet.db, yesterday, MOST_AT_ONCE))
      if (!(await askAbout(trivet, till, order, now))) break;
  }
  await closeForgotten(trivet, now);
  await writeReminders(trivet, now);
}

/** Orders that nobody can pay any more, and of which no till knows, keep nothing from anybody. */
async function closeForgotten(trivet: Trivet, now: Date): Promise<void> {
  const since = new Date(now.getTime() - PATIENCE_MS);
  for (const { id, reference, payUntil } of await readWaitingOrders(trivet.db, since, MOST_AT_ONCE)) {
    if (reference !== null || payUntil > now) continue;
    await trivet.db.transaction(async (tx) => {
      const order = await lockOrder(tx, id);
      if (!order?.open) return;
      await updateOrder(tx, id, { open: false, state: { ...order.state, outcome: 'expired' } });
      await freePlaces(tx, id, 'held');
    });
  }
}

/** Asks the till for what an order left to be asked, step by step; what the till does not do now is left for another time. */
export async function doDue(trivet: Trivet, till: Till, order: Order, now: Date): Promise<void> {
  for (const step of order.due) {
    try {
      await doStep(trivet, till, order, step, now);
    } catch (error) {
      if (error instanceof TillTrouble) return;
      throw error;
    }
    // What came of it is known before the step is struck off: until then nobody has what was given back.
    await askAbout(trivet, till, order, now);
    // Until then nobody had it; from then on it is theirs as what was given back.
    await trivet.change(() =>
      trivet.db.transaction(async (tx) => {
        const current = await lockOrder(tx, order.id);
        if (current) await updateOrder(tx, order.id, { due: current.due.slice(1) });
      }),
    );
  }
}

async function doStep(trivet: Trivet, till: Till, order: Order, step: DueStep, now: Date): Promise<void> {
  const { reference } = order;
  switch (step.kind) {
    case 'withdraw':
      if (reference !== null) await till.cancel(reference, 'now', now);
      return;
    case 'give back twice':
      if (reference !== null)
        await till.refund(reference, { key: `twice ${step.notice}`, amount: step.amount, ends: false }, now);
      return;
    case 'give back':
      if (reference === null) await takeBack(trivet, order, now);
      else if (step.amount === 0) await till.cancel(reference, 'now', now);
      else await till.refund(reference, { key: `back ${order.id}`, amount: step.amount, ends: true }, now);
      return;
    case 'end replaced': {
      const old = await readOrder(trivet.db, step.order);
      if (!old?.reference) return;
      await till.cancel(old.reference, step.when, now);
      await askAbout(trivet, till, old, now);
      return;
    }
    default:
      return step satisfies never;
  }
}

/** What cost nothing is taken back without a till. */
async function takeBack(trivet: Trivet, { id, agreed }: Order, now: Date): Promise<void> {
  const { today } = momentAt(trivet.state, now);
  const told = { id: `back ${id}`, order: id, at: now.getTime(), on: today };
  await takeNotices(
    trivet,
    [{ kind: 'refunded', ...told, amount: 0, currency: agreed.currency, ends: true }],
    now,
  );
}

/** How many days before a late subscription ends it is said once more. */
const LAST_CALLS = [3, 1];
/** For how many days a letter is still written that should have gone out. */
const LAST_WEEK = 7;

/** The letters that go out because a day has come: what is late ends soon, and what ended has. */
async function writeReminders(trivet: Trivet, now: Date): Promise<void> {
  const { state } = trivet;
  const { today } = momentAt(state, now);
  const { graceDays } = state.settings;
  const from = addDays(today, -graceDays - LAST_WEEK);
  for (const order of await readEndingOrders(trivet.db, from, today)) {
    const { state: became } = order;
    const last = lastDayOf(became, graceDays);
    const call = last === null ? null : callOn(became, last, today);
    if (call === null || last === null) continue;
    await trivet.db.transaction(async (tx) => {
      if (
        await noteLetter(tx, order.id, call.kind === 'reminder' ? `reminder ${call.left}` : call.kind, last)
      )
        await sendLetter(tx, state, order, became, call, now);
    });
  }
  const tomorrow = addDays(today, 1);
  for (const [product, { terms }] of state.shop)
    if (terms.day === tomorrow) await writeTomorrow(trivet, product, tomorrow, now);
}

/** Whoever has a ticket hears of it the day before. */
async function writeTomorrow(trivet: Trivet, product: ProductId, day: Day, now: Date): Promise<void> {
  const { state, db } = trivet;
  for (const order of await readPaidOrders(db, product)) {
    const until = lastDayOf(order.state, state.settings.graceDays);
    if (!isGoodOn({ until }, day) || order.due.some(({ kind }) => kind === 'give back')) continue;
    await db.transaction(async (tx) => {
      if (await noteLetter(tx, order.id, 'tomorrow', day))
        await sendLetter(tx, state, order, order.state, { kind: 'tomorrow', day }, now);
    });
  }
}

function callOn(
  {
    paidUntil,
    endedBy,
    ends,
  }: { readonly paidUntil: Day | null; readonly endedBy: EndedBy | null; readonly ends: Day | null },
  last: Day,
  today: Day,
): Letter | null {
  // Of what was given back or is disputed a letter has gone out.
  if (endedBy === 'refunded' || endedBy === 'disputed') return null;
  if (today > last) return { kind: 'ended' };
  if (ends !== null || paidUntil === null || today <= paidUntil) return null;
  const left = LAST_CALLS.find((days) => addDays(today, days) === last);
  return left === undefined ? null : { kind: 'reminder', left };
}
