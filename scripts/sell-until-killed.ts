/**
 * Sells over and over until it is killed, for the test that kills it. The till is a file beside the database, which outlives
 * it; on starting, it asks the till as the site does by itself, and then holds what people have against what they paid.
 */
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import { asId, levelAt } from '../src/core';
import {
  type Administrator,
  administratorOf,
  guestVisitor,
  importSite,
  plainRequest,
  refundOrder,
  type SiteFile,
  sellByHand,
  setOut,
  type Till,
  Trivet,
  takeNotices,
  tendOrders,
  type Visitor,
  viewOf,
} from '../src/services';
import {
  accountAt,
  change,
  emptyLedger,
  type Ledger,
  ledgerAt,
  opened,
  paid,
  refunded,
} from '../till/ledger';

const [folder = '', look = ''] = process.argv.slice(2);
const say = (line: string) => process.stdout.write(`${line}\n`);
const file = `${folder}-till.json`;
const SEATS = 3;
/** How many people pay at the desk. */
const CASH = 6;

/** A second is five minutes here, so that whatever is waited for comes before the next kill. */
const BEGAN = Date.parse('2026-11-01');
const clock = (): Date => new Date(BEGAN + (Date.now() - BEGAN) * 300);

const site: SiteFile = {
  format: 'trivet site',
  version: 1,
  levels: [
    { id: 'friend', name: 'Friend' },
    { id: 'observer', name: 'Observer' },
  ],
  roles: [],
  groups: [],
  products: [
    { id: 'pass', name: 'Pass', kind: 'subscription' },
    { id: 'seat', name: 'Seat', kind: 'ticket' },
  ],
  people: [
    { id: 'owner', name: 'Owner', email: 'owner@larkfell.example', desk: { right: 'owner', branch: null } },
    // What she was given by hand has to stay, whatever becomes of what she buys.
    { id: 'friend', name: 'Friend', email: 'friend@larkfell.example', level: 'friend' },
    ...Array.from({ length: CASH }, (_, at) => ({
      id: `cash-${at}`,
      name: `Cash ${at}`,
      email: `cash-${at}@larkfell.example`,
    })),
  ],
  items: [
    { kind: 'site', id: 'site', parent: null, title: 'Larkfell' },
    { kind: 'page', id: 'home', parent: 'site', title: 'Home', address: '/' },
  ],
  shop: {
    products: [
      {
        product: 'pass',
        grants: { level: 'observer' },
        prices: [{ id: 'month', amount: 1200, currency: 'EUR', months: 1 }],
      },
      { product: 'seat', prices: [{ id: 'one', amount: 900, currency: 'EUR' }], seats: SEATS },
    ],
  },
  policy: { gates: [], audiences: [] },
};

const read = (): Ledger => {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Ledger;
  } catch {
    return emptyLedger;
  }
};
const keep = (ledger: Ledger): void => {
  writeFileSync(`${file}.new`, JSON.stringify(ledger));
  renameSync(`${file}.new`, file);
};

/** What was sold at the desk, or is about to be, kept as somebody's own notes: they outlive the site. */
interface Cash {
  readonly person: string;
  readonly product: string;
  readonly key: string;
  readonly ends: boolean;
}
const cashFile = `${folder}-cash.json`;
const readCash = (): readonly Cash[] => {
  try {
    return JSON.parse(readFileSync(cashFile, 'utf8')) as readonly Cash[];
  } catch {
    return [];
  }
};
const keepCash = (cash: readonly Cash[]): void => {
  writeFileSync(`${cashFile}.new`, JSON.stringify(cash));
  renameSync(`${cashFile}.new`, cashFile);
};
const ORIGIN = 'https://till.example';
const till: Till = {
  standIn: true,
  origin: ORIGIN,
  check: () => ({ problem: 'Nothing is sent here.' }),
  meet: async () => undefined,
  async open(order) {
    const made = opened(read(), order);
    keep(made.ledger);
    return { reference: made.account.reference, payPage: `${ORIGIN}/pay/${made.account.reference}` };
  },
  async notices(reference, now) {
    keep(ledgerAt(read(), now.getTime()));
    return accountAt(read(), reference)?.notices ?? [];
  },
  async refund(reference, what, now) {
    keep(change(read(), reference, (one) => refunded(one, what, now.getTime())));
  },
  async cancel() {},
  card: async () => ORIGIN,
  async moveOn() {},
};

const trivet = await Trivet.open(folder);
if (!trivet.hasSite) {
  const problems = await importSite(trivet, site, 'The test');
  if (problems.length > 0) throw new Error(problems.join('\n'));
}

// A site that starts looks after its orders; what it waits for before it asks has passed.
const start = clock();
for (let again = 0; again < 3; again++)
  await tendOrders(trivet, till, new Date(start.getTime() + 5 * 60_000));
// A till tells again what was not taken; that something was paid it may never tell.
for (const { notices } of read().accounts) {
  const again = notices.filter(({ kind }) => kind !== 'paid');
  if (again.length > 0) await takeNotices(trivet, again, start);
}
// Whoever sells at the desk presses again what was not answered.
for (const one of readCash()) await sellAtDesk(one, start);
const wrong = await whatIsWrong();
const sold = read().accounts.filter(({ state }) => state === 'paid').length;
say(wrong === null ? `whole after ${sold}` : `MIXED ${wrong}`);
if (look !== '') {
  await trivet.close();
  process.exit(wrong === null ? 0 : 1);
}

/** Sells for cash, and ends it where that is noted; answers whether it could be sold. */
async function sellAtDesk({ person, product, key, ends }: Cash, now: Date): Promise<boolean> {
  const sold = await sellByHand(
    trivet,
    greta(),
    { person, product, until: null, paid: product === 'seat' ? '9' : '12', currency: 'EUR', key },
    now,
  );
  if (sold.kind === 'wrong') return false;
  const back = { order: sold.order, amount: product === 'seat' ? '9' : '12', ends: true, key: `back ${key}` };
  if (ends) await refundOrder(trivet, till, greta(), back, now);
  return true;
}

function greta(): Administrator {
  const person = trivet.state.people.get(asId('owner'));
  const administrator = person && administratorOf({ person, facts: person.facts, session: 'the desk' });
  if (!administrator) throw new Error('Nobody is there to sell.');
  return administrator;
}

/** Everybody gives back what they had, so that there is somebody to sell to. */
async function clearDesk(now: Date): Promise<void> {
  keepCash(readCash().map((one) => ({ ...one, ends: true })));
  for (const one of readCash()) await sellAtDesk(one, now);
  keepCash([]);
}

/** What there is that should not be, or is not and should; null for nothing. */
async function whatIsWrong(): Promise<string | null> {
  const { today } = plainRequest(trivet.state, start);
  const people = [...trivet.state.people.values()];
  const has = new Map<string, string[]>();
  for (const { email, facts } of people)
    for (const one of facts.purchases ?? [])
      if (one.state === 'paid' && (one.until === null || one.until >= today))
        has.set(email, [...(has.get(email) ?? []), one.product]);
  for (const { order, state, notices } of read().accounts) {
    const back = notices.some((one) => one.kind === 'refunded' && one.ends);
    const theirs = has.get(order.email) ?? [];
    const product = order.renewal === null ? 'seat' : 'pass';
    if (state === 'paid' && !back && !theirs.includes(product)) return `${order.email} paid and is not in`;
    const paidFor = read().accounts.some(
      (one) =>
        one.order.email === order.email &&
        one.state === 'paid' &&
        !one.notices.some((told) => told.kind === 'refunded' && told.ends) &&
        (one.order.renewal === null ? 'seat' : 'pass') === product,
    );
    if (theirs.includes(product) && !paidFor) return `${order.email} is in and did not pay`;
    if (theirs.filter((one) => one === product).length > 1) return `${order.email} has it twice`;
  }
  for (const { name, facts, level } of people)
    if (
      name === 'Friend' &&
      (level !== 'friend' || levelAt(facts, today, trivet.state.names.levels) === null)
    )
      return 'what was given by hand is lost';
  const rows = async (query: string) =>
    (await trivet.db.execute<{ count: number }>(query)).rows[0]?.count ?? 0;
  const kept = await rows('select count(*)::int from places where held_until is null');
  const holders = people.filter(({ email }) => has.get(email)?.includes('seat')).length;
  if (kept !== holders || kept > SEATS) return `${kept} seats are somebody's, and ${holders} people have one`;
  for (const { person, product, ends } of readCash()) {
    const theirs = has.get(`${person}@larkfell.example`) ?? [];
    if (theirs.filter((one) => one === product).length > 1) return `${person} has it twice`;
    if (theirs.includes(product) && ends) return `${person} has what was ended`;
  }
  const sales = await rows('select count(*)::int from orders where noted_by is not null');
  const noted = await rows(
    "select count(*)::int from notices where id like 'by hand %' and said ->> 'kind' = 'paid'",
  );
  if (sales !== noted) return `${sales} orders were noted at the desk, and ${noted} payments`;
  const told = read().accounts.reduce((sum, { notices }) => sum + notices.length, 0);
  const noticed = await rows("select count(*)::int from notices where id not like 'by hand %'");
  if (told !== noticed) return `${told} notices were told and ${noticed} are kept`;
  const receipts = await rows("select count(*)::int from outbox where subject like 'Receipt%'");
  const payments = await rows(
    "select coalesce(sum(jsonb_array_length(state -> 'payments')), 0)::int as count from orders where not due @> '[{\"kind\": \"give back\"}]'::jsonb and coalesce(state ->> 'endedBy', '') <> 'refunded'",
  );
  // Of what can't be given another letter goes out.
  if (receipts < payments) return `${payments} payments came in and ${receipts} receipts went out`;
  return null;
}

const buyer = (who: string | null): Visitor => {
  const person = who === null ? null : (trivet.state.people.get(asId(who)) ?? null);
  return person ? { person, facts: person.facts, session: null } : guestVisitor;
};

await clearDesk(start);
for (let turn = sold; ; turn++) {
  say('begins');
  const now = clock();
  const who = turn % 4 === 0 ? 'friend' : null;
  const visitor = buyer(who);
  const product = turn % 3 === 0 ? 'seat' : 'pass';
  const context = viewOf({
    state: trivet.state,
    compiled: trivet.state.live.compiled,
    facts: visitor.facts,
    person: visitor.person,
    request: plainRequest(trivet.state, now),
    base: '',
  });
  const fields = {
    price: product === 'seat' ? 'one' : 'month',
    name: `Buyer ${turn}`,
    email: `buyer-${turn}-${now.getTime()}@x.example`,
  };
  const from = `10.0.${turn % 250}.${now.getMilliseconds() % 250}`;
  const answer = await setOut(trivet, till, { visitor, context, from }, product, fields, now);
  const account = read().accounts.at(-1);
  if (answer.kind === 'on the way' && account) {
    keep(change(read(), account.reference, (one) => paid(one, 'good', now.getTime())));
    const notices = accountAt(read(), account.reference)?.notices ?? [];
    // Some notices are never told, and some twice.
    if (turn % 5 !== 0)
      for (let again = 0; again <= turn % 2; again++) await takeNotices(trivet, notices, now);
    if (turn % 4 === 0 || turn % 7 === 0) {
      await till.refund(
        account.reference,
        { key: `back ${turn}`, amount: account.order.first, ends: true },
        now,
      );
      await takeNotices(trivet, accountAt(read(), account.reference)?.notices ?? [], now);
    }
  }
  const before = readCash();
  const cash: Cash = {
    person: `cash-${turn % CASH}`,
    product,
    key: `cash turn ${turn} ${now.getTime()}`,
    ends: false,
  };
  keepCash([...before, cash]);
  if (await sellAtDesk(cash, now)) {
    if (turn % 2 === 0) await clearDesk(now);
  } else keepCash(before);
  await tendOrders(trivet, till, clock());
}
