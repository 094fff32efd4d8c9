/** The way in, as a visitor goes it: without scripts. */
import type { Page } from '@playwright/test';
import { browserOf, signIn } from './people';
import { expect, test } from './story';

test.use({ javaScriptEnabled: false });

/** The code in the newest mail to an address, as Greta reads it in the outbox. */
async function codeFor(greta: Page, to: string): Promise<string> {
  const { letters } = await (await greta.request.get('/desk/api/outbox')).json();
  const mail = letters.find((one: { to: string }) => one.to === to);
  return /\b(\d{6})\b/.exec(mail?.text ?? '')?.[1] ?? '';
}

test('a guest signs up from a teaser, types the code and is back where they were; a new password ends the old', async ({
  page,
  browser,
}) => {
  const greta = await browserOf(browser, 'greta');
  const email = `nell-${Date.now()}@larkfell.example`;
  await page.goto('/night-logs/first-light');
  await expect(page.getByText('Night logs are for members. An account costs nothing.')).toBeVisible();
  await page.getByRole('link', { name: 'Sign up' }).last().click();
  await page.getByLabel('Your name').fill('Nell Ashby');
  await page.getByLabel('Mail address').fill(email);
  await page.getByLabel(/^Password/).fill('short');
  await page.getByRole('button', { name: 'Send me a code' }).click();
  await expect(page.getByText('A password has at least 8 characters.')).toBeVisible();
  await expect(page.getByLabel('Your name')).toHaveValue('Nell Ashby');
  await page.getByLabel(/^Password/).fill('long enough');
  await page.getByRole('button', { name: 'Send me a code' }).click();
  await page.getByLabel('Six digits').fill('12');
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('You can try 4 times more.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Send it again' }).click();
  await page.getByLabel('Six digits').fill(await codeFor(greta.page, email));
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page).toHaveURL('/night-logs/first-light');
  await expect(page.getByText('This opens to Friends and above.')).toBeVisible();

  // The button stands in a menu that opens when pointed at.
  await page.locator('form[action="/sign-out"] button').dispatchEvent('click');
  await expect(page.getByRole('link', { name: 'Sign in' }).first()).toBeVisible();
  await page.goto('/sign-in');
  await page.getByRole('link', { name: 'I forgot my password' }).click();
  await page.getByLabel('Mail address').fill(email);
  await page.getByRole('button', { name: 'Send me a code' }).click();
  await page.getByLabel('Six digits').fill(await codeFor(greta.page, email));
  await page.getByLabel(/^New password/).fill('quite another');
  await page.getByRole('button', { name: 'Keep this password' }).click();
  await page.goto('/account');
  await expect(page.getByRole('heading', { name: 'Good evening, Nell Ashby' })).toBeVisible();
  const [nell] = await (await greta.request.get(`/desk/api/members?q=${email}`)).json();
  const gone = await greta.request.post('/desk/api/people/change', {
    data: { who: { ids: [nell.id] }, edit: { kind: 'remove' } },
  });
  expect(gone.status()).toBe(200);
  await greta.context.close();
});

test('Sunniva arrives at her school’s pages, with their menu beside them; Marek where he was', async ({
  browser,
}) => {
  const sunniva = await browserOf(browser, 'sunniva', { javaScriptEnabled: false });
  // Signing in is what leads there.
  await signIn(sunniva.page, 'sunniva');
  await expect(sunniva.page).toHaveURL('/partners/hollin-school');
  await expect(
    sunniva.page
      .getByRole('navigation', { name: 'Partners' })
      .getByRole('link', { name: 'Notes from the class' }),
  ).toBeVisible();
  await expect(sunniva.page.getByRole('link', { name: 'Tarn Survey' })).toHaveCount(0);
  await sunniva.context.close();
});

test('Marek follows the Sky diary with one button and the home page changes; he fills in his profile', async ({
  browser,
}) => {
  const { context, page } = await browserOf(browser, 'marek', { javaScriptEnabled: false });
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Sign up' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Follow Sky diary followers' }).click();
  await expect(page).toHaveURL('/');
  await expect(page.getByRole('heading', { name: 'This week’s Sky diary' })).toBeVisible();
  await page.goto('/sky-diary');
  await page.getByRole('button', { name: 'Leave Sky diary followers' }).click();
  await expect(page.getByText('Past weeks are for those who follow the diary.')).toBeVisible();

  await page.goto('/account');
  await page.getByLabel('valley').fill('Sett');
  await page.getByLabel('newsletter').selectOption('yes');
  await page.getByRole('button', { name: 'Keep these' }).click();
  await expect(page).toHaveURL('/account');
  await expect(page.getByLabel('valley')).toHaveValue('Sett');
  await page.getByLabel('valley').fill('');
  await page.getByLabel('newsletter').selectOption('Not filled in');
  await page.getByRole('button', { name: 'Keep these' }).click();

  await page.getByRole('link', { name: 'Your own feed, and keys for apps' }).click();
  await page.getByLabel('What it is for').fill('Reader');
  await page.getByRole('button', { name: 'Make a key' }).click();
  const address = (await page.locator('code.key').textContent()) ?? '';
  expect((await page.request.get(new URL(address).pathname + new URL(address).search)).status()).toBe(200);
  await page.goto('/me/keys');
  await page.getByRole('button', { name: 'Take back Reader' }).click();
  expect((await page.request.get(new URL(address).pathname + new URL(address).search)).status()).toBe(404);
  await context.close();
});

test('a letter to the secretary goes to the outbox', async ({ page, browser }) => {
  await page.goto('/contact');
  await page.getByLabel('Your name').fill('Nell');
  await page.getByLabel('Mail address').fill('nell@moor.example');
  await page.getByLabel('Your letter').fill('May we come on Thursday?');
  await page.getByRole('button', { name: 'Send the letter' }).click();
  await expect(page.getByText('Your letter is with the secretary.')).toBeVisible();
  const greta = await browserOf(browser, 'greta', { javaScriptEnabled: true });
  await greta.page.goto('/desk/outbox');
  await expect(greta.page.getByText('May we come on Thursday?', { exact: false }).first()).toBeVisible();
  await greta.context.close();
});

test('a private page about signing in keeps working on a walk, and does nothing', async ({ page }) => {
  await signIn(page, 'greta', '/');
  const { token } = await (
    await page.request.post('/desk/api/walks', { data: { standIn: 'guest', side: 'live' } })
  ).json();
  for (const path of ['/sign-up', '/reset', '/search?q=moon', '/category/field-notes']) {
    await page.goto(`/walk/${token}${path}`);
    await expect(page.locator('main')).toBeVisible();
    for (const link of await page.locator('a[href^="/"]').all())
      expect(await link.getAttribute('href')).toMatch(/^\/(walk|assets|files)\//);
  }
});
