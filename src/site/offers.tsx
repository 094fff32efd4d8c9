/** What is sold, with its prices: in a page's section and in the shop. */
import type { Offer } from '@/services';

export const Offers = ({ offers }: { readonly offers: readonly Offer[] }) =>
  offers.length === 0 ? null : (
    <ul className="offers">
      {offers.map((offer) => (
        <OfferOf key={offer.product} offer={offer} />
      ))}
    </ul>
  );

function OfferOf({ offer }: { readonly offer: Offer }) {
  return (
    <li>
      <h2>{offer.page ? <a href={offer.page}>{offer.name}</a> : offer.name}</h2>
      <Gives offer={offer} />
      {offer.has ? (
        <p className="has">You have this.</p>
      ) : offer.soldOut ? (
        <p className="has">Sold out.</p>
      ) : (
        <ul className="prices">
          {offer.prices.map((price) => (
            <li key={price.id}>
              <span className="price">{price.words}</span>
              {price.trialDays > 0 && <span className="hint">{price.trialDays} days free at first</span>}
              <a
                className="button to-the-right"
                href={price.address}
                aria-label={`Buy ${offer.name}, ${price.words}`}
              >
                Buy
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
    {gives !== '' && <p className="gives">Brings you {gives}.</p>}
  </>
);
