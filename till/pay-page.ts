/** The stand-in's pages: plain documents without scripts, that look like nobody's. */
import { dayInWords, moneyInWords, periodInWords } from '../src/core';
import { type Account, bankOn, type Outcome } from './ledger';

const written = (text: string): string => text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

const STYLE = `
:root { color-scheme: light dark; }
body { margin: 0; font: 17px/1.5 ui-rounded, "Nunito", system-ui, sans-serif; background: #e8efe6; color: #14261a; }
main { max-width: 25rem; margin: 6vh auto; padding: 0 1.25rem 3rem; }
.slip { background: #fffef6; border: 1px solid #b9c8b4; border-top: 0.6rem solid #2d6a45; padding: 1.4rem 1.4rem 1.1rem; }
h1 { font-size: 1.15rem; margin: 0; }
.sum { font-size: 2.2rem; font-weight: 700; margin: 0.4rem 0 0; font-variant-numeric: tabular-nums; }
.then, .note { margin: 0.2rem 0 0; color: #46604d; }
fieldset { border: 0; padding: 0; margin: 1.3rem 0 1rem; display: grid; gap: 0.35rem; }
legend { padding: 0; font-weight: 600; margin-bottom: 0.35rem; }
label { display: flex; gap: 0.55rem; align-items: center; }
.do { display: grid; gap: 0.5rem; }
button { font: inherit; padding: 0.6rem 0.9rem; border: 1px solid #2d6a45; background: transparent; color: inherit; border-radius: 0.3rem; cursor: pointer; text-align: left; }
button.first { background: #2d6a45; color: #fff; font-weight: 600; text-align: center; }
a { color: inherit; }
:focus-visible { outline: 3px solid #b3541e; outline-offset: 2px; }
.note { font-size: 0.9rem; margin-top: 1.2rem; }
@media (prefers-color-scheme: dark) {
  body { background: #101a13; color: #e4efe2; } .slip { background: #18241b; border-color: #35503c; border-top-color: #57a374; }
  .then, .note { color: #a9c2ae; } button { border-color: #57a374; } button.first { background: #57a374; color: #08130b; }
}`;

/** A whole document. */
export const document = (title: string, content: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${written(title)}</title><style>${STYLE}</style></head><body><main><div class="slip">${content}</div><p class="note">This till stands in for a real one: no money moves, and no card is asked for.</p></main></body></html>`;

const CARDS = `<fieldset><legend>With</legend>
<label><input type="radio" name="card" value="good" checked>a card that is good</label>
<label><input type="radio" name="card" value="refused next time">a card that will be refused next time</label></fieldset>`;

const button = (value: string, label: string, first = false): string =>
  `<button name="do" value="${value}"${first ? ' class="first"' : ''}>${label}</button>`;

/** Where an order is paid. */
export function payPage({ order, reference }: Account): string {
  const { currency, first, renewal, freeDays, what } = order;
  const sum = moneyInWords({ amount: first, currency });
  const later = renewal && moneyInWords({ amount: renewal.amount, currency });
  const then =
    renewal === null
      ? 'Paid once.'
      : `${freeDays > 0 ? `Nothing for ${freeDays} days, then` : 'Then'} ${later} ${periodInWords(renewal.months)}, until you stop it.`;
  return document(
    `Pay ${sum}`,
    `<h1>${written(what)}</h1><p class="sum">${sum}</p><p class="then">${then}</p>
<form method="post" action="/pay/${reference}">${CARDS}<div class="do">
${button('pay', first === 0 ? 'Agree' : `Pay ${sum}`, true)}
${button('bank', 'Ask the bank first')}
${button('slow', 'Pay, but be slow to tell')}
${button('lose', 'Pay, and never tell')}
${button('decline', 'Be declined')}
${button('close', 'Close the window')}
</div></form>`,
  );
}

/** Where the bank is asked. */
export const bankPage = ({ order, reference }: Account, card: string): string =>
  document(
    'The bank asks',
    `<h1>The bank asks whether this is you</h1><p class="sum">${moneyInWords({ amount: order.first, currency: order.currency })}</p><p class="then">${written(order.what)}</p>
<form method="post" action="/pay/${reference}"><input type="hidden" name="card" value="${written(card)}"><div class="do" style="margin-top:1.2rem">
${button('pay', 'It is me', true)}${button('decline', 'It is not me')}</div></form>`,
  );

/** Where another card is left. */
export const cardPage = ({ order, reference, subscription }: Account, returnTo: string): string =>
  document(
    'Another card',
    `<h1>Another card for ${written(order.what)}</h1><p class="then">${
      subscription && subscription.failed > 0
        ? 'What is owed is taken from it at once.'
        : `It is used from ${subscription?.next ? dayInWords(subscription.next) : 'now'} on.`
    }</p>
<form method="post" action="/card/${reference}"><input type="hidden" name="returnTo" value="${written(returnTo)}">${CARDS}<div class="do">${button('keep', 'Use this card', true)}${button('close', 'Go back')}</div></form>`,
  );

/** What is paid, or can't be any more; and the bank, which the card's owner may ask for their money. */
export const overPage = (account: Account): string => {
  const { order, state, reference } = account;
  const bank = bankOn(account);
  const form = (buttons: string) =>
    `<form method="post" action="/pay/${reference}"><div class="do" style="margin-top:1.2rem">${buttons}</div></form>`;
  const steps =
    state !== 'paid'
      ? ''
      : bank === null
        ? form(button('open', 'Tell the bank that it was not me'))
        : bank === 'open'
          ? form(
              `${button('won', 'Let the bank decide for the seller')}${button('lost', 'Let the bank decide for the card’s owner')}`,
            )
          : '';
  return document(
    'Nothing to pay',
    `<h1>${written(order.what)}</h1><p class="then">${SAID[bank ?? state] ?? 'This can’t be paid any more.'} <a href="${written(order.returnTo)}">Go back</a></p>${steps}`,
  );
};

const SAID: Readonly<Partial<Record<Outcome | Account['state'], string>>> = {
  paid: 'This is paid.',
  open: 'The card’s owner said that it was not them. The bank looks into it.',
  won: 'The bank decided for the seller: this is paid.',
  lost: 'The bank decided for the card’s owner, and took the money back.',
};
