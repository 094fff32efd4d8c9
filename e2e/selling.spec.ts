/**
 * Selling, from a teaser to the end of a subscription: as buyers, without scripts and on a phone, at the till that stands in;
 * and as whoever runs the shop. Comes last, because it moves the clock on.
 */
import type { Browser, Page } from '@playwright/test';
import { openDesk } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

const PHONE = { javaScriptEnabled: false, viewport: { width: 360, height: 740 } };
const FORECAST = 'The best of it is between one and three.';

/** A guest of their own, without scripts, on a phone. */
async function guest(browser: Browser): Promise<Page> {
  const context = await browser.newContext(PHONE);
  return context.newPage();
}

/** Chooses the Observer pass from the teaser on Tonight's sky, and goes on to the till. */
async function toTheTill(page: Page, name: string): Promise<void> {
  await page.goto('/tonight');
  await expect(page.getByText(FORECAST)).toHaveCount(0);
  await page.getByRole('link', { name: 'Buy Observer pass' }).click();
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Your mail address').fill(`${name.toLowerCase().replace(' ', '.')}@buyers.example`);
  await page.getByRole('button', { name: 'Go on to pay' }).click();
  await expect(page.getByText('Then 12.00 € a month, until you stop it.')).toBeVisible();
}

const isIn = (page: Page) => expect(page.getByText(FORECAST)).toBeVisible();
const wide = async (page: Page) =>
  expect(await page.evaluate('document.documentElement.scrollWidth <= innerWidth')).toBe(true);

test('a guest buys on a phone without scripts, and stands on the page they were on, unlocked', async ({
  browser,
}) => {
  const page = await guest(browser);
  await toTheTill(page, 'Nell Arden');
  await wide(page);
  await page.getByRole('button', { name: 'Pay 12.00 €' }).click();
  await expect(page).toHaveURL(/\/tonight$/);
  await isIn(page);
  await page.goBack();
  await page.goto('/shop/observer-pass');
  await expect(page.getByText('You have Observer pass already.')).toBeVisible();
  await page.goto('/me/purchases');
  await expect(page.getByText(/^Paid until .*, then 12\.00 € a month\.$/)).toBeVisible();
  await wide(page);
  await page.getByText('Receipts').click();
  await page.getByRole('link', { name: /12\.00 €$/ }).click();
  await expect(page.getByText('Nell Arden, nell.arden@buyers.example')).toBeVisible();
  await wide(page);
});

test('every page of the shop is in order for those who can’t see it, by day and at night', async ({
  browser,
}) => {
  const { page } = await browserOf(browser, 'marek');
  for (const path of ['/shop', '/shop/keeper-pass', '/join', '/me/purchases']) {
    await page.goto(path);
    expect([path, await axe(page)]).toEqual([path, []]);
    await wide(page);
  }
});

test('declined, they come back to everything that they typed; asked by their bank, they get through', async ({
  browser,
}) => {
  const page = await guest(browser);
  await toTheTill(page, 'Otto Brand');
  await page.getByRole('button', { name: 'Be declined' }).click();
  await expect(page.getByRole('heading', { name: 'It was not paid' })).toBeVisible();
  await page.getByRole('link', { name: 'Try again' }).click();
  await expect(page.getByLabel('Your name')).toHaveValue('Otto Brand');
  await expect(page.getByLabel('Your mail address')).toHaveValue('otto.brand@buyers.example');
  await page.getByRole('button', { name: 'Go on to pay' }).click();
  await page.getByRole('button', { name: 'Ask the bank first' }).click();
  await page.getByRole('button', { name: 'It is me' }).click();
  await isIn(page);
});

test('a till that never tells is asked, and whoever closed the window can go on', async ({ browser }) => {
  const page = await guest(browser);
  await toTheTill(page, 'Ursa Field');
  await page.getByRole('button', { name: 'Close the window' }).click();
  await expect(page.getByRole('heading', { name: 'Waiting for the till' })).toBeVisible();
  await page.getByRole('link', { name: /^Go on to pay/ }).click();
  await page.getByRole('button', { name: 'Pay, and never tell' }).click();
  // The page looks again by itself; the notice never comes.
  await isIn(page);
});

test('a mailbox that has an account signs in first; two tabs come to one order', async ({ browser }) => {
  const page = await guest(browser);
  await page.goto('/shop/winter-atlas?next=%2Fvisit');
  await page.getByLabel('Your name').fill('Marek');
  await page.getByLabel('Your mail address').fill('marek@larkfell.example');
  await page.getByRole('button', { name: 'Go on to pay' }).click();
  await expect(page.getByRole('alert')).toContainText('Sign in first');
  const { page: one, context } = await browserOf(browser, 'marek', PHONE);
  const two = await context.newPage();
  for (const tab of [one, two]) {
    await tab.goto('/shop/winter-atlas?next=%2Fvisit');
    await tab.getByRole('button', { name: 'Go on to pay' }).click();
    await expect(tab.getByRole('button', { name: 'Pay 18.00 €' })).toBeVisible();
  }
  expect(one.url()).toBe(two.url());
  await one.getByRole('button', { name: 'Pay 18.00 €' }).click();
  await expect(one).toHaveURL(/\/visit$/);
  await two.getByRole('button', { name: 'Pay 18.00 €' }).click();
  await one.goto('/account');
  await expect(one.getByRole('link', { name: 'Winter atlas' })).toBeVisible();
});

test('the last seat is sold to one, and a voucher buys without a till', async ({ browser, page }) => {
  await openDesk(page, '/desk/shop?product=comet-night');
  const seats = page.getByLabel('Seats', { exact: true });
  const taken = await page.getByText(/of 40 seats taken/).textContent();
  const count = Number(/(\d+) of 40/.exec(taken ?? '')?.[1]) + 1;
  await seats.fill(String(count));
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(`of ${count} seats taken`)).toBeVisible();
  const { page: tobin } = await browserOf(browser, 'tobin', PHONE);
  const { page: jonah } = await browserOf(browser, 'jonah', PHONE);
  await tobin.goto('/shop/comet-night');
  await jonah.goto('/shop/comet-night');
  await tobin.getByRole('button', { name: 'Go on to pay' }).click();
  await jonah.getByRole('button', { name: 'Go on to pay' }).click();
  await expect(jonah.getByRole('alert')).toContainText('Every seat is taken');
  await tobin.getByRole('button', { name: 'Pay 9.00 €' }).click();
  await jonah.goto('/shop');
  await expect(jonah.getByText('Sold out.')).toBeVisible();
  await jonah.goto('/shop/astro-course?next=%2Fcourses%2Fastrophotography');
  await jonah.getByText('I have a voucher').click();
  await jonah.getByLabel('Voucher').fill('hollin-stars-27');
  await jonah.getByRole('button', { name: 'Go on to pay' }).click();
  await expect(jonah).toHaveURL(/\/courses\/astrophotography$/);
});

test('terms are changed with what that would do said first, and a gate offers what opens it', async ({
  page,
}) => {
  await openDesk(page, '/desk/shop?product=observer-pass');
  const bench = page.getByRole('complementary', { name: 'Workbench' });
  await bench.getByLabel('Amount').first().fill('12.345');
  await expect(bench.getByRole('alert')).toHaveText('EUR has 2 decimals. Type an amount like 12.00.');
  await bench.getByLabel('Amount').first().fill('12.00');
  const level = bench.getByLabel('Level', { exact: true });
  await level.scrollIntoViewIfNeeded();
  const before = await level.boundingBox();
  await level.selectOption({ label: 'none' });
  await bench.getByText(/^\d+ more, of which \d+ close$/).click();
  await expect(bench.getByText(/^Closes Observers’ room to /)).toBeVisible();
  // What is chosen stays where it is when what it would do comes in.
  expect(await level.boundingBox()).toEqual(before);
  expect(await axe(page)).toEqual([]);
  await level.selectOption({ label: 'Observer' });
  await expect(bench.getByRole('button', { name: 'Save' })).toBeDisabled();
});

test('Greta sees a subscription through: a month later the card fails, grace runs out, and it closes', async ({
  browser,
  page,
}) => {
  test.slow();
  const buyer = await guest(browser);
  await toTheTill(buyer, 'Ola Frend');
  await buyer.getByLabel('a card that will be refused next time').check();
  await buyer.getByRole('button', { name: 'Pay 12.00 €' }).click();
  await isIn(buyer);
  await openDesk(page, '/desk/sales');
  const moved = async (step: string) => {
    await page.getByRole('button', { name: step }).click();
    await expect(page.getByText('Moving the clock on …')).toBeVisible();
    await expect(page.getByText('Moving the clock on …')).toHaveCount(0);
  };
  const row = page.getByRole('row').filter({ hasText: 'Ola Frend' });
  await moved('a month later');
  await expect(row).toContainText('late');
  await buyer.goto('/tonight');
  await isIn(buyer);
  await buyer.goto('/me/purchases');
  await expect(buyer.getByText(/^A payment did not come through\./)).toBeVisible();
  await moved('a week later');
  await expect(row).toContainText('ended');
  await buyer.goto('/tonight');
  await expect(buyer.getByText(FORECAST)).toHaveCount(0);
  // Another card is no use to what has ended; it is bought anew.
  await expect(buyer.getByRole('link', { name: 'Buy Observer pass' })).toBeVisible();
});

test('an order shows its notices; giving it back says first what closes, and closes that alone', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk/sales');
  await page.getByRole('button', { name: /^Nell Arden/ }).click();
  const bench = page.getByRole('complementary', { name: 'Workbench' });
  await expect(bench.getByRole('listitem').first()).toContainText('paid');
  await bench.getByRole('button', { name: 'Give money back …' }).click();
  await expect(bench.getByTestId('if-ended')).toContainText('They lose level Observer. ');
  await expect(bench.getByTestId('if-ended')).toContainText('Observers’ room');
  expect(await axe(page)).toEqual([]);
  await bench.getByLabel('How much to give back').fill('1000');
  await bench.getByRole('button', { name: /^Give back/ }).click();
  await expect(bench.getByRole('alert')).toContainText('At most');
  await bench.getByLabel('How much to give back').fill('24.00');
  await bench.getByRole('button', { name: /^Give back/ }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Nell Arden' })).toContainText('given back');
  await page.getByRole('button', { name: 'Their page' }).click();
  await expect(page.getByText('Observer pass, 12.00 € a month')).toBeVisible();
  const { page: tobin } = await browserOf(browser, 'tobin');
  await tobin.goto('/tonight');
  await isIn(tobin);
});

test('what is paid in cash is sold at the desk: it opens what was said, and ending it closes that', async ({
  page,
  browser,
}) => {
  const { page: marek } = await browserOf(browser, 'marek');
  await marek.goto('/tonight');
  await expect(marek.getByText(FORECAST)).toHaveCount(0);
  await openDesk(page, '/desk/sales');
  const bench = page.getByRole('complementary', { name: 'Workbench' });
  await page.getByRole('button', { name: 'Sell or give by hand …' }).click();
  await bench.getByRole('button', { name: 'Choose a member' }).click();
  await page.keyboard.type('Marek');
  await page.keyboard.press('Enter');
  await bench.getByLabel('What', { exact: true }).selectOption({ label: 'Observer pass' });
  await expect(bench.getByTestId('if-given')).toContainText('Observers’ room');
  await bench.getByLabel('What was paid').fill('twelve');
  await expect(bench.getByRole('alert')).toContainText('Type an amount like');
  await bench.getByLabel('What was paid').fill('');
  await bench.getByRole('button', { name: /^As in the shop: 12\.00 €/ }).click();
  await expect(bench.getByLabel('Its last day')).not.toHaveValue('');
  expect(await axe(page)).toEqual([]);
  await bench.getByRole('button', { name: 'Sell Observer pass to Marek Dunmore for 12.00 €' }).click();
  await expect(bench.getByText('noted by Greta Holm, without the till')).toBeVisible();
  await marek.goto('/tonight');
  await isIn(marek);
  await marek.goto('/me/purchases');
  await expect(marek.getByText('Observer pass').first()).toBeVisible();
  await wide(marek);
  await bench.getByRole('button', { name: 'End it …' }).click();
  await bench.getByRole('button', { name: 'End it now' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Marek Dunmore' }).first()).toContainText('ended');
  await marek.goto('/tonight');
  await expect(marek.getByText(FORECAST)).toHaveCount(0);
});

test('whoever stands at the door has the list of the seats', async ({ page }) => {
  await openDesk(page, '/desk/sales');
  await page.getByLabel('Orders of').selectOption({ label: 'Comet night' });
  await page.getByText(/^Who has a seat: \d+ people$/).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'The seats as a table (CSV)' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('seats.csv');
  await page
    .getByRole('button', { name: /^Orla Thirlby orla/ })
    .first()
    .click();
  await expect(page.getByRole('complementary').getByText(/Orla Thirlby.*Ordered on/)).toBeVisible();
});

test('the card’s owner asks the bank for their money: it closes at once, and opens when the bank says no', async ({
  page,
  browser,
}) => {
  const buyer = await guest(browser);
  await toTheTill(buyer, 'Vera Lund');
  await buyer.getByRole('button', { name: 'Pay 12.00 €' }).click();
  await isIn(buyer);
  await openDesk(page, '/desk/sales');
  const row = page.getByRole('row').filter({ hasText: 'Vera Lund' });
  await row.getByRole('button').click();
  const [till] = await Promise.all([
    page.context().waitForEvent('page'),
    page.getByRole('link', { name: 'At the till' }).click(),
  ]);
  await till.getByRole('button', { name: 'Tell the bank that it was not me' }).click();
  await expect(till.getByText('The bank looks into it.')).toBeVisible();
  await buyer.reload();
  await expect(buyer.getByText(FORECAST)).toHaveCount(0);
  await page.reload();
  await expect(row).toContainText('disputed');
  await till.getByRole('button', { name: 'Let the bank decide for the seller' }).click();
  await expect(till.getByText('The bank decided for the seller')).toBeVisible();
  await buyer.reload();
  await isIn(buyer);
});
