/** What somebody bought, as they see it, and their receipts. */
import type { Frame, OwnPurchase, OwnPurchases, ReceiptView } from '@/services';
import { type Delivery, Shell } from './shell';

interface PurchasesViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Null on a walk: what somebody paid is their own. */
  readonly purchases: OwnPurchases | null;
  readonly problem: string | null;
}

export function PurchasesView({ frame, delivery, purchases, problem }: PurchasesViewProps) {
  const none = purchases !== null && purchases.orders.length === 0 && purchases.given.length === 0;
  return (
    <Shell frame={frame} delivery={delivery} title="What you have">
      <h1>What you have</h1>
      {problem && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      {purchases === null && <p>What somebody bought is their own: a walk doesn’t show it.</p>}
      {none && <p>You have not bought anything yet.</p>}
      {purchases && !none && (
        <ul className="purchases">
          {purchases.orders.map((purchase) => (
            <Purchase key={purchase.id} purchase={purchase} />
          ))}
          {purchases.given.map(({ name, standing }) => (
            <li key={`${name} ${standing}`}>
              <h2>{name}</h2>
              <p>{standing}</p>
            </li>
          ))}
        </ul>
      )}
      <p className="more">
        <a href="/shop">What else there is</a>
      </p>
    </Shell>
  );
}

function Purchase({ purchase }: { readonly purchase: OwnPurchase }) {
  const { id, name, gives, standing, state, receipts, canStop, canLeaveCard, plans } = purchase;
  const action = (step: string) => `/me/purchases/${encodeURIComponent(id)}/${step}`;
  return (
    <li data-state={state}>
      <h2>{name}</h2>
      <p className="standing">{standing}</p>
      {gives !== '' && state !== 'ended' && <p className="gives">Brings you {gives}.</p>}
      {(canLeaveCard || canStop) && (
        <div className="steps">
          {canLeaveCard && (
            <form method="post" action={action('card')}>
              <button className={state === 'late' ? 'button' : 'button button-outline'} type="submit">
                Leave another card
              </button>
            </form>
          )}
          {canStop && (
            <form method="post" action={action('stop')}>
              <button className="button button-outline" type="submit">
                Stop it
              </button>
            </form>
          )}
        </div>
      )}
      {plans.length > 0 && (
        <details>
          <summary>Change for another plan</summary>
          <ul className="plans">
            {plans.map((plan) => (
              <li key={`${plan.product} ${plan.price}`}>
                <form method="post" action={action('plan')}>
                  <input type="hidden" name="product" value={plan.product} />
                  <input type="hidden" name="price" value={plan.price} />
                  <input type="hidden" name="sum" value={plan.sum} />
                  <p>
                    <strong>{plan.name}</strong>, {plan.words}
                  </p>
                  <p>{plan.sum}</p>
                  <button className="button" type="submit">
                    Change to {plan.name}
                  </button>
                </form>
              </li>
            ))}
          </ul>
        </details>
      )}
      {receipts.length > 0 && (
        <details>
          <summary>Receipts</summary>
          <ul>
            {receipts.map((receipt) => (
              <li key={receipt.address}>
                <a href={receipt.address}>
                  {receipt.on}, {receipt.sum}
                </a>
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}

interface ReceiptPageProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly receipt: ReceiptView;
}

/** A receipt, fit to be printed. */
export const ReceiptPage = ({ frame, delivery, receipt }: ReceiptPageProps) => (
  <Shell frame={frame} delivery={delivery} title={`Receipt ${receipt.number}`}>
    <article className="receipt">
      <h1>Receipt {receipt.number}</h1>
      <dl className="facts">
        <dt>From</dt>
        <dd>{receipt.seller}</dd>
        <dt>For</dt>
        <dd>
          {receipt.name}, {receipt.email}
        </dd>
        <dt>Paid on</dt>
        <dd>{receipt.on}</dd>
        <dt>What</dt>
        <dd>{receipt.what}</dd>
        {receipt.period !== '' && (
          <>
            <dt>Time</dt>
            <dd>{receipt.period}</dd>
          </>
        )}
        <dt>Sum</dt>
        <dd>{receipt.sum}</dd>
        {receipt.refunded !== null && (
          <>
            <dt>Given back since</dt>
            <dd>{receipt.refunded}</dd>
          </>
        )}
      </dl>
    </article>
    <p className="more">
      <a href="/me/purchases">Everything that you have</a>
    </p>
  </Shell>
);
