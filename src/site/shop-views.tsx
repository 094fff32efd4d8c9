/** The shop, buying something in it, and an order on its way. */
import type { BuyProblems, Frame, Offer, Waiting } from '@/services';
import { Gives, Offers } from './offers';
import { type Delivery, Shell } from './shell';

interface ShopViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly offers: readonly Offer[];
}

/** Everything that is sold to whoever looks. */
export const ShopView = ({ frame, delivery, offers }: ShopViewProps) => (
  <Shell frame={frame} delivery={delivery} title="Shop">
    <h1>Shop</h1>
    {offers.length === 0 ? <p>There is nothing to buy here just now.</p> : <Offers offers={offers} />}
  </Shell>
);

/** What was typed already, or is known. */
export interface Typed {
  readonly price: string;
  readonly voucher: string;
  readonly name: string;
  readonly email: string;
}

export interface BuyViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly offer: Offer;
  readonly action: string;
  /** Where it leads afterwards. */
  readonly back: string;
  /** Where guests sign in and come back; null for those who are signed in. */
  readonly signIn: string | null;
  /** Whether there is a till to pay at. */
  readonly sells: boolean;
  readonly typed: Typed;
  readonly problems: BuyProblems;
}

/** Buying one product. */
export function BuyView({
  frame,
  delivery,
  offer,
  action,
  back,
  signIn,
  sells,
  typed,
  problems,
}: BuyViewProps) {
  const [only] = offer.prices;
  const chosen = offer.prices.find(({ id, value }) => typed.price === id || typed.price === value) ?? only;
  const stop = offer.has
    ? `You have ${offer.name} already.`
    : offer.soldOut
      ? 'It is sold out.'
      : sells
        ? null
        : 'Nothing can be paid here just now. Come back later.';
  return (
    <Shell frame={frame} delivery={delivery} title={`Buy ${offer.name}`}>
      <h1>{offer.name}</h1>
      <div className="grid gap-2 mt-3">
        <Gives offer={offer} />
      </div>
      {problems.form && (
        <p className="problem" role="alert">
          {problems.form}
        </p>
      )}
      {stop !== null ? (
        <p className="closed">
          {stop} <a href={back}>Go back</a>
        </p>
      ) : (
        <form method="post" action={action} className="form buy">
          <input type="hidden" name="next" value={back} />
          {offer.prices.length === 1 && only ? (
            <p>
              <span className="price">{only.words}</span>
              {only.trialDays > 0 && <span className="hint">, the first {only.trialDays} days free</span>}
              <input type="hidden" name="price" value={only.value} />
            </p>
          ) : (
            <fieldset className="grid gap-1.5">
              <legend>Price</legend>
              {offer.prices.map(({ id, words, value, trialDays }) => (
                <label key={id} className="choice">
                  <input type="radio" name="price" value={value} defaultChecked={id === chosen?.id} />
                  {words}
                  {trialDays > 0 && <span className="hint">, the first {trialDays} days free</span>}
                </label>
              ))}
            </fieldset>
          )}
          <Problem of="price" problems={problems} />
          {signIn !== null && (
            <>
              <p className="hint">
                Have an account? <a href={signIn}>Sign in first</a>. Otherwise paying makes you one.
              </p>
              <Line
                name="name"
                label="Your name"
                autoComplete="name"
                value={typed.name}
                problems={problems}
                required
              />
              <Line
                name="email"
                label="Your mail address"
                type="email"
                autoComplete="email"
                value={typed.email}
                problems={problems}
                required
              />
            </>
          )}
          <details open={typed.voucher !== '' || problems.voucher !== undefined}>
            <summary>I have a voucher</summary>
            <Line name="voucher" label="Voucher" value={typed.voucher} problems={problems} />
          </details>
          <button className="button justify-self-start" type="submit">
            Go on to pay
          </button>
        </form>
      )}
    </Shell>
  );
}

interface LineProps {
  readonly name: 'name' | 'email' | 'voucher';
  readonly label: string;
  readonly type?: string;
  readonly autoComplete?: string;
  readonly value: string;
  readonly required?: boolean;
  readonly problems: BuyProblems;
}

function Line({ name, label, type = 'text', autoComplete = 'off', value, required, problems }: LineProps) {
  const wrong = problems[name] !== undefined;
  return (
    <p className="grid gap-1.5">
      <label htmlFor={name}>{label}</label>
      <input
        id={name}
        name={name}
        type={type}
        autoComplete={autoComplete}
        defaultValue={value}
        required={required}
        aria-invalid={wrong || undefined}
        aria-describedby={wrong ? `${name}-problem` : undefined}
      />
      <Problem of={name} problems={problems} />
    </p>
  );
}

const Problem = ({ of, problems }: { readonly of: keyof BuyProblems; readonly problems: BuyProblems }) =>
  problems[of] === undefined ? null : (
    <span className="problem" id={`${of}-problem`} role="alert">
      {problems[of]}
    </span>
  );

interface OrderViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly kind: 'waiting' | 'declined' | 'expired' | 'given back' | 'sign in';
  readonly order: Pick<Waiting, 'productName' | 'sum' | 'payPage' | 'back'> | null;
  /** Where it is bought again, with everything that was typed. */
  readonly again: string;
  readonly signIn: string;
}

/** An order that is on its way, or did not get there. While it waits the page looks again by itself. */
export function OrderView({ frame, delivery, kind, order, again, signIn }: OrderViewProps) {
  const what = order?.productName ?? '';
  const [title, text] = WORDS[kind];
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={title}
      head={kind === 'waiting' && <meta httpEquiv="refresh" content={String(AGAIN_SECONDS)} />}
    >
      <h1>{title}</h1>
      <p role="status">{text.replace('WHAT', what)}</p>
      {kind === 'waiting' && order?.payPage && (
        <p className="more">
          Not paid yet? <a href={order.payPage}>Go on to pay {order.sum}</a>
        </p>
      )}
      {(kind === 'declined' || kind === 'expired') && (
        <p>
          <a className="button" href={again}>
            Try again
          </a>
        </p>
      )}
      {kind === 'sign in' && (
        <p>
          <a className="button" href={signIn}>
            Sign in
          </a>
        </p>
      )}
      {kind !== 'sign in' && order && (
        <p className="more">
          <a href={order.back}>Back to where you were</a>
        </p>
      )}
    </Shell>
  );
}

/** After how many seconds a page that waits looks again. */
const AGAIN_SECONDS = 3;

const WORDS = {
  waiting: [
    'Waiting for the till',
    'The till has not told us yet that WHAT is paid. This page looks again by itself, and leads you back as soon as it has.',
  ],
  declined: [
    'It was not paid',
    'The payment did not come through, and nothing was taken. What you chose is kept.',
  ],
  expired: [
    'It was not paid in time',
    'WHAT was not paid in time, and nothing was taken. You can begin again.',
  ],
  'given back': [
    'Your money comes back',
    'WHAT could not be given to you after all. You get back everything that you paid; a letter says why.',
  ],
  'sign in': [
    'It is paid',
    'What you bought belongs to the account with your mail address. Sign in to it, and it is open to you.',
  ],
} as const satisfies Record<OrderViewProps['kind'], readonly [string, string]>;
