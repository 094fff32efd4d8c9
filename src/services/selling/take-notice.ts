/**
 * Taking a notice of the till: it is kept as it came, what has become of the order is worked out of all of them, and
 * everything that follows is written in the same transaction. What is left to ask of the till is written down with it
 * (`due`), so that it is asked whatever happens meanwhile.
 */
import { createHash, randomUUID } from 'node:crypto';
import {
  asId,
  type Day,
  isHeldOn,
  misfitOf,
  type Notice,
  type OrderId,
  type OrderState,
  orderStateOf,
  type PersonId,
  purchaseOf,
  same,
} from '@/core';
import {
  type Database,
  type DueStep,
  findCredentials,
  freePlaces,
  holdPlace,
  insertChange,
  insertNotice,
  keepPlace,
  lockOrder,
  type Order,
  readBought,
  readCounted,
  updateOrder,
  writePeople,
} from '@/store';
import { newcomer } from '../people';
import type { SiteState, Trivet } from '../running';
import { messagesOf, momentAt } from '../running';
import { noticeForm, type Till } from '../till';
import { type Letter, sendLetter } from './letters';

export type Taken =
  | { readonly kind: 'taken' | 'seen' | 'kept' }
  | { readonly kind: 'refused'; readonly problem: string };

const MOST_SAID = 20_000;

/** A notice as it came over HTTP: refused unless it is genuine and fresh. */
export async function takeSignedNotice(
  trivet: Trivet,
  till: Till,
  header: (name: string) => string | null,
  body: string,
  now: Date,
): Promise<Taken> {
  const genuine = till.check(header, body, now);
  if ('problem' in genuine) return { kind: 'refused', problem: genuine.problem };
  const said = jsonIn(body);
  const parsed = noticeForm.safeParse(said);
  // What is genuine and can't be read is kept for somebody to look at.
  if (!parsed.success) {
    const id = `unread ${createHash('sha256').update(body).digest('base64url')}`;
    const problem = parsed.error.issues[0]?.message ?? 'It can’t be read.';
    return keepAside(trivet, { id, order: '', said: said ?? body.slice(0, MOST_SAID), problem }, now);
  }
  if (parsed.data.id !== genuine.id)
    return { kind: 'refused', problem: 'It says another id than its headers.' };
  return takeNotices(trivet, [parsed.data], now);
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

async function keepAside(
  trivet: Trivet,
  {
    id,
    order,
    said,
    problem,
  }: { readonly id: string; readonly order: string; readonly said: unknown; readonly problem: string },
  now: Date,
): Promise<Taken> {
  const kept = await insertNotice(trivet.db, { id, order, came: now, said, problem });
  return { kind: kept ? 'kept' : 'seen' };
}

/** Takes notices about one order, from whatever source that can be trusted. */
export async function takeNotices(trivet: Trivet, notices: readonly Notice[], now: Date): Promise<Taken> {
  const [first] = notices;
  if (!first) return { kind: 'seen' };
  return trivet.change(async (state): Promise<Taken> => {
    const made = await trivet.db.transaction((tx) => noteIn(tx, state, first.order, notices, now));
    return { kind: made.news === 0 ? 'seen' : 'taken' };
  });
}

/** What notices came to: how many of them are new and count. */
interface Noted {
  readonly news: number;
  /** Why what was paid can't be given, and goes back. */
  readonly back?: string | null;
}

/** Keeps notices about an order and writes what follows from them. Belongs in a transaction, within a change of people. */
export async function noteIn(
  tx: Database,
  state: SiteState,
  id: OrderId,
  notices: readonly Notice[],
  now: Date,
): Promise<Noted> {
  const order = await lockOrder(tx, id);
  let news = 0;
  for (const notice of notices) {
    const problem =
      order === null || notice.order !== order.id
        ? 'There is no such order.'
        : (misfitOf(notice, order.agreed) ?? '');
    if (await insertNotice(tx, { id: notice.id, order: notice.order, came: now, said: notice, problem }))
      news += problem === '' ? 1 : 0;
  }
  return order !== null && news > 0 ? settle(tx, state, order, now) : { news };
}

/** Works out what has become of an order, and writes everything that follows from what is new. */
async function settle(tx: Database, state: SiteState, before: Order, now: Date): Promise<Noted> {
  const { today } = momentAt(state, now);
  const after = orderStateOf(before.agreed, await readCounted(tx, before.id));
  if (same(before.state, after)) return { news: 1 };
  let order = before;
  const letters: Letter[] = [];
  const due: DueStep[] = [];
  let back: string | null = null;
  const starts = before.state.began === null && after.began !== null;
  if (starts) {
    order = { ...order, ...(await ownerOf(tx, state, order, now)) };
    back = await whyNotTheirs(tx, state, order, after.began ?? today, now);
    if (back !== null) {
      due.push({ kind: 'give back', amount: paidIn(after), why: back });
      letters.push({ kind: 'given back', why: back });
    } else if (order.replaces !== null) due.push({ kind: 'end replaced', ...order.replaces });
  }
  letters.push(...lettersFor(before.state, after, order, due, today));
  for (const { twice, notice, amount } of after.payments)
    if (twice && !before.state.payments.some((one) => one.notice === notice))
      due.push({ kind: 'give back twice', notice, amount });
  const stopped = after.outcome === 'declined' || after.outcome === 'expired';
  if (stopped) await freePlaces(tx, order.id, 'held');
  // Who is out has no place any more, from today on or since the bank took the money back.
  if (after.ends !== null && after.ends < today) await freePlaces(tx, order.id, 'all');
  const { person, madeAccount } = order;
  await updateOrder(tx, order.id, {
    state: after,
    open: after.outcome === 'waiting',
    person,
    madeAccount,
    due: [...order.due, ...due],
  });
  for (const letter of letters) await sendLetter(tx, state, order, after, letter, now);
  return { news: 1, back };
}

const paidIn = ({ payments }: OrderState): number =>
  payments.filter(({ twice }) => !twice).reduce((sum, { amount }) => sum + amount, 0);

/** Whose an order is that was paid: their account, the one with that mail address, or a new one. */
async function ownerOf(
  tx: Database,
  state: SiteState,
  { person, email, name }: Order,
  now: Date,
): Promise<Pick<Order, 'person' | 'madeAccount'>> {
  if (person !== null && state.people.has(person)) return { person, madeAccount: false };
  const known = await findCredentials(tx, email);
  if (known) return { person: known.person, madeAccount: false };
  const record = newcomer(asId<PersonId>(randomUUID()), { email, name }, momentAt(state, now).today);
  await writePeople(tx, [{ before: null, after: record }]);
  await insertChange(
    tx,
    {
      id: randomUUID(),
      by: name,
      summary: `${name} has an account, by buying`,
      why: '',
      people: [{ before: null, after: record }],
      names: null,
      hashes: { people: {}, passphrases: {} },
      undone: false,
    },
    now,
  );
  return { person: record.id, madeAccount: true };
}

/** Why what was paid can't be given, and goes back; null where it can. */
async function whyNotTheirs(
  tx: Database,
  state: SiteState,
  order: Order,
  from: Day,
  now: Date,
): Promise<string | null> {
  const terms = state.shop.get(order.product)?.terms;
  if (terms?.seats != null) {
    const seat =
      (await keepPlace(tx, order.product, order.id)) ||
      ((await holdPlace(tx, order.product, terms.seats, order.id, now, now)) !== null &&
        (await keepPlace(tx, order.product, order.id)));
    if (!seat) return messagesOf(state).mail.lastSeat(order.productName);
  }
  if (order.voucher !== null) await keepPlace(tx, order.voucher, order.id);
  if (order.person === null) return null;
  const others = await readBought(tx, order.person);
  const has = others.some(
    (one) =>
      one.id !== order.id &&
      one.id !== order.replaces?.order &&
      one.product === order.product &&
      isGood(one, state, from),
  );
  return has ? messagesOf(state).mail.hadAlready(order.productName) : null;
}

function isGood(
  order: Awaited<ReturnType<typeof readBought>>[number],
  { settings }: SiteState,
  on: Day,
): boolean {
  const purchase = purchaseOf(order, order.state, settings.graceDays);
  return purchase !== null && isHeldOn(purchase, on);
}

function lettersFor(
  before: OrderState,
  after: OrderState,
  { madeAccount }: Order,
  due: readonly DueStep[],
  today: Day,
): readonly Letter[] {
  const letters: Letter[] = [];
  const starts = before.began === null && after.began !== null;
  if (starts && due.some(({ kind }) => kind === 'give back')) return letters;
  const known = new Set(before.payments.map(({ notice }) => notice));
  const news = after.payments.filter(({ notice, twice }) => !known.has(notice) && !twice);
  for (const payment of news) letters.push({ kind: 'receipt', payment, madeAccount: starts && madeAccount });
  if (starts && news.length === 0) letters.push({ kind: 'begun', madeAccount });
  if (before.failing === null && after.failing !== null) letters.push({ kind: 'late' });
  if (after.refunded > before.refunded)
    letters.push({
      kind: 'refunded',
      amount: after.refunded - before.refunded,
      ends: after.endedBy === 'refunded',
    });
  if (before.endedBy !== 'disputed' && after.endedBy === 'disputed') letters.push({ kind: 'disputed' });
  // That it has ended is a letter of its own, which goes out when its day is over.
  const stops = before.endedBy !== 'cancelled' && after.endedBy === 'cancelled';
  if (stops && after.ends !== null && after.ends >= today) letters.push({ kind: 'stopped' });
  return letters;
}
