/** What somebody bought, as they see it, and their receipts. */
import type { Frame, OwnPurchase, OwnPurchases, ReceiptView } from '@/services';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface PurchasesViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Null on a walk: what somebody paid is their own. */
  readonly purchases: OwnPurchases | null;
  readonly problem: string | null;
}

export function PurchasesView({ frame, delivery, purchases, problem }: PurchasesViewProps) {
  const words = say().purchases;
  const none = purchases !== null && purchases.orders.length === 0 && purchases.given.length === 0;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{words.title}</h1>
      {problem && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      {purchases === null && <p>{words.onWalk}</p>}
      {none && <p>{words.none}</p>}
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
        <a href="/shop">{words.more}</a>
      </p>
    </Shell>
  );
}

function Purchase({ purchase }: { readonly purchase: OwnPurchase }) {
  const { id, name, gives, standing, state, receipts, canStop, canLeaveCard, plans } = purchase;
  const words = say().purchases;
  const action = (step: string) => `/me/purchases/${encodeURIComponent(id)}/${step}`;
  return (
    <li data-state={state}>
      <h2>{name}</h2>
      <p className="standing">{standing}</p>
      {gives !== '' && state !== 'ended' && <p className="gives">{say().shop.brings(gives)}</p>}
      {(canLeaveCard || canStop) && (
        <div className="steps">
          {canLeaveCard && (
            <form method="post" action={action('card')}>
              <button className={state === 'late' ? 'button' : 'button button-outline'} type="submit">
                {words.card}
              </button>
            </form>
          )}
          {canStop && (
            <form method="post" action={action('stop')}>
              <button className="button button-outline" type="submit">
                {words.stop}
              </button>
            </form>
          )}
        </div>
      )}
      {plans.length > 0 && (
        <details>
          <summary>{words.changePlan}</summary>
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
                    {words.changeTo(plan.name)}
                  </button>
                </form>
              </li>
            ))}
          </ul>
        </details>
      )}
      {receipts.length > 0 && (
        <details>
          <summary>{words.receipts}</summary>
          <ul>
            {receipts.map((receipt) => (
              <li key={receipt.address}>
                <a href={receipt.address}>
                  {say().day(receipt.on)}, {receipt.sum}
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
  <Shell frame={frame} delivery={delivery} title={say().purchases.receipt(receipt.number)}>
    <article className="receipt">
      <h1>{say().purchases.receipt(receipt.number)}</h1>
      <dl className="facts">
        <dt>{say().purchases.from}</dt>
        <dd>{receipt.seller}</dd>
        <dt>{say().purchases.for}</dt>
        <dd>
          {receipt.name}, {receipt.email}
        </dd>
        <dt>{say().purchases.paidOn}</dt>
        <dd>{receipt.on}</dd>
        <dt>{say().purchases.what}</dt>
        <dd>{receipt.what}</dd>
        {receipt.period !== '' && (
          <>
            <dt>{say().purchases.time}</dt>
            <dd>{receipt.period}</dd>
          </>
        )}
        <dt>{say().purchases.sum}</dt>
        <dd>{receipt.sum}</dd>
        {receipt.refunded !== null && (
          <>
            <dt>{say().purchases.givenBack}</dt>
            <dd>{receipt.refunded}</dd>
          </>
        )}
      </dl>
    </article>
    <p className="more">
      <a href="/me/purchases">{say().purchases.everything}</a>
    </p>
  </Shell>
);
