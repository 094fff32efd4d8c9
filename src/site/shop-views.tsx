/** The shop, buying something in it, and an order on its way. */
import type { BuyProblems, Frame, Offer, Waiting } from '@/services';
import { Gives, Offers } from './offers';
import { type Delivery, Shell } from './shell';
import { Linked, say } from './wording';

interface ShopViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly offers: readonly Offer[];
}

/** Everything that is sold to whoever looks. */
export const ShopView = ({ frame, delivery, offers }: ShopViewProps) => (
  <Shell frame={frame} delivery={delivery} title={say().shop.title}>
    <h1>{say().shop.title}</h1>
    {offers.length === 0 ? <p>{say().shop.nothing}</p> : <Offers offers={offers} />}
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
  const words = say().shop;
  const [only] = offer.prices;
  const chosen = offer.prices.find(({ id, value }) => typed.price === id || typed.price === value) ?? only;
  const stop = offer.has
    ? words.hasAlready(offer.name)
    : offer.soldOut
      ? words.isSoldOut
      : sells
        ? null
        : words.noTill;
  return (
    <Shell frame={frame} delivery={delivery} title={words.buyTitle(offer.name)}>
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
          {stop} <a href={back}>{words.goBack}</a>
        </p>
      ) : (
        <form method="post" action={action} className="form buy">
          <input type="hidden" name="next" value={back} />
          {offer.prices.length === 1 && only ? (
            <p>
              <span className="price">{only.words}</span>
              {only.trialDays > 0 && <span className="hint">{words.firstFree(only.trialDays)}</span>}
              <input type="hidden" name="price" value={only.value} />
            </p>
          ) : (
            <fieldset className="grid gap-1.5">
              <legend>{words.price}</legend>
              {offer.prices.map(({ id, words: price, value, trialDays }) => (
                <label key={id} className="choice">
                  <input type="radio" name="price" value={value} defaultChecked={id === chosen?.id} />
                  {price}
                  {trialDays > 0 && <span className="hint">{words.firstFree(trialDays)}</span>}
                </label>
              ))}
            </fieldset>
          )}
          <Problem of="price" problems={problems} />
          {signIn !== null && (
            <>
              <p className="hint">
                <Linked text={words.account} to={[signIn]} />
              </p>
              <Line
                name="name"
                label={words.name}
                autoComplete="name"
                value={typed.name}
                problems={problems}
                required
              />
              <Line
                name="email"
                label={words.email}
                type="email"
                autoComplete="email"
                value={typed.email}
                problems={problems}
                required
              />
            </>
          )}
          <details open={typed.voucher !== '' || problems.voucher !== undefined}>
            <summary>{words.haveVoucher}</summary>
            <Line name="voucher" label={words.voucher} value={typed.voucher} problems={problems} />
          </details>
          <button className="button justify-self-start" type="submit">
            {words.pay}
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
  const words = say().order;
  const title = words[kind];
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={title}
      head={kind === 'waiting' && <meta httpEquiv="refresh" content={String(AGAIN_SECONDS)} />}
    >
      <h1>{title}</h1>
      <p role="status">{textOf(kind, what)}</p>
      {kind === 'waiting' && order?.payPage && (
        <p className="more">
          <Linked text={words.notPaidYet(order.sum)} to={[order.payPage]} />
        </p>
      )}
      {(kind === 'declined' || kind === 'expired') && (
        <p>
          <a className="button" href={again}>
            {words.again}
          </a>
        </p>
      )}
      {kind === 'sign in' && (
        <p>
          <a className="button" href={signIn}>
            {say().signIn.button}
          </a>
        </p>
      )}
      {kind !== 'sign in' && order && (
        <p className="more">
          <a href={order.back}>{words.back}</a>
        </p>
      )}
    </Shell>
  );
}

/** After how many seconds a page that waits looks again. */
const AGAIN_SECONDS = 3;

function textOf(kind: OrderViewProps['kind'], what: string): string {
  const words = say().order;
  switch (kind) {
    case 'waiting':
      return words.waitingText(what);
    case 'declined':
      return words.declinedText;
    case 'expired':
      return words.expiredText(what);
    case 'given back':
      return words.givenBackText(what);
    case 'sign in':
      return words.signInText;
    default:
      return kind satisfies never;
  }
}
