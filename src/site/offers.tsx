/** What is sold, with its prices: in a page's section and in the shop. */
import type { Offer } from '@/services';
import { say } from './wording';

export const Offers = ({ offers }: { readonly offers: readonly Offer[] }) =>
  offers.length === 0 ? null : (
    <ul className="offers">
      {offers.map((offer) => (
        <OfferOf key={offer.product} offer={offer} />
      ))}
    </ul>
  );

function OfferOf({ offer }: { readonly offer: Offer }) {
  const { shop, steps } = say();
  return (
    <li>
      <h2>{offer.page ? <a href={offer.page}>{offer.name}</a> : offer.name}</h2>
      <Gives offer={offer} />
      {offer.has ? (
        <p className="has">{shop.has}</p>
      ) : offer.soldOut ? (
        <p className="has">{shop.soldOut}</p>
      ) : (
        <ul className="prices">
          {offer.prices.map((price) => (
            <li key={price.id}>
              <span className="price">{price.words}</span>
              {price.trialDays > 0 && <span className="hint">{shop.freeAtFirst(price.trialDays)}</span>}
              <a
                className="button to-the-right"
                href={price.address}
                aria-label={steps.buy(offer.name, price.words)}
              >
                {shop.buy}
              </a>
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}

/** What one gets, in words. */
export const Gives = ({ offer: { about, gives } }: { readonly offer: Pick<Offer, 'about' | 'gives'> }) => (
  <>
    {about !== '' && <p>{about}</p>}
    {gives !== '' && <p className="gives">{say().shop.brings(gives)}</p>}
  </>
);
