/** The site as its visitors meet it, without scripts. */
import { browserOf, fillSignIn, signIn } from './people';
import { axe, expect, test } from './story';

test.use({ javaScriptEnabled: false });

const titles = (page: import('@playwright/test').Page) =>
  page.getByRole('navigation', { name: 'Top' }).locator('> ul > li > .menu-link').allTextContents();

test('a guest is sent to sign in and comes back to where they were', async ({ page }) => {
  await page.goto('/observers/charts');
  await expect(page).toHaveURL('/sign-in?next=%2Fobservers%2Fcharts');
  await fillSignIn(page, 'tobin');
  await expect(page).toHaveURL('/observers/charts');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Charts');
});

test('Tobin reads the Observers’ room and signs out again', async ({ page }) => {
  await signIn(page, 'tobin', '/observers');
  await expect(page.getByText('on the table this month', { exact: false })).toBeVisible();
  expect(await titles(page)).toEqual(['Home', 'Visit', 'Field notes', 'Observers', 'My account']);
  await page.getByRole('link', { name: 'My account' }).hover();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL('/');
  expect(await titles(page)).toEqual(['Home', 'Visit', 'Field notes', 'Join', 'Sign in']);
  await page.goto('/observers');
  await expect(page).toHaveURL(/sign-in/);
});

test('Marek gets the teaser with the way to join, and nothing of the page', async ({ page }) => {
  await signIn(page, 'marek', '/observers');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Observers’ room');
  await expect(page.getByText('This opens to Observers and above, on a further condition.')).toBeVisible();
  expect(await page.content()).not.toMatch(/finder charts|small dome's drive|Suspended/);
  await page.getByRole('main').getByRole('link', { name: 'Join us' }).click();
  await expect(page).toHaveURL('/join');
});

test('the crew’s pages are missing, byte for byte like an address that was never there', async ({
  browser,
}) => {
  const { context, request } = await browserOf(browser, 'marek', { javaScriptEnabled: false });
  const get = async (path: string) => {
    const response = await request.get(path);
    const { date: _, ...headers } = response.headers();
    return { status: response.status(), headers, body: await response.text() };
  };
  const never = await get('/never-there');
  expect(never.status).toBe(404);
  for (const path of [
    '/crew',
    '/crew/rota',
    '/Crew/Handover/',
    '/%63rew',
    '/observers/%2e%2e/crew',
    '/crew?a=b',
  ]) {
    expect(await get(path)).toEqual(never);
  }
  await context.close();
  const wren = await browserOf(browser, 'wren', { javaScriptEnabled: false });
  expect((await wren.request.get('/crew/rota')).status()).toBe(200);
  await wren.context.close();
});

test('a partner’s area gives others a message with the reason, and trustees the page', async ({
  browser,
}) => {
  const marek = await browserOf(browser, 'marek', { javaScriptEnabled: false });
  const refused = await marek.page.goto('/partners/hollin-school/notes');
  expect(refused?.status()).toBe(403);
  await expect(marek.page.getByText('This opens to Trustees or people in Hollin School.')).toBeVisible();
  const priya = await browserOf(browser, 'priya', { javaScriptEnabled: false });
  expect((await priya.page.goto('/partners/hollin-school/notes'))?.status()).toBe(200);
  await marek.context.close();
  await priya.context.close();
});

test('join is for those without a level; Keepers alone reach the Keepers’ evening', async ({ browser }) => {
  const tobin = await browserOf(browser, 'tobin', { javaScriptEnabled: false });
  await tobin.page.goto('/join');
  await expect(tobin.page).toHaveURL('/account');
  const response = await tobin.request.get('/keepers', { maxRedirects: 0 });
  expect([response.status(), response.headers().location]).toEqual([303, '/join']);
  const priya = await browserOf(browser, 'priya', { javaScriptEnabled: false });
  expect((await priya.request.get('/keepers')).status()).toBe(200);
  await tobin.context.close();
  await priya.context.close();
});

test('a sample chart is open in the middle of a gated branch', async ({ page }) => {
  await page.goto('/sample-chart');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('A sample chart');
  await expect(page.getByText('as our Observers use it at the eyepiece')).toBeVisible();
});

test('a wrong password keeps what was typed and where one was going, and says one thing for all', async ({
  page,
}) => {
  const said = [];
  for (const who of ['tobin', 'nobody-at-all']) {
    await page.goto('/sign-in?next=/observers');
    await fillSignIn(page, who, 'wrong');
    said.push(await page.getByRole('alert').textContent());
    await expect(page.getByLabel('Mail address')).toHaveValue(`${who}@larkfell.example`);
    await expect(page.getByLabel('Password')).toHaveValue('');
  }
  expect(said[0]).toBe(said[1]);
  await fillSignIn(page, 'tobin');
  await expect(page).toHaveURL('/observers');
});

test('next leads nowhere but to this site', async ({ page }) => {
  for (const next of [
    '//elsewhere.example',
    '\\\\elsewhere.example',
    '/\\elsewhere.example',
    'javascript:alert(1)',
  ]) {
    await signIn(page, 'odile', next);
    await expect(page).toHaveURL('/');
  }
});

test('a signed-in member sent to sign in learns that it is not for this account', async ({ page }) => {
  await signIn(page, 'marek', '/');
  await page.goto('/sign-in?next=/desk');
  await expect(
    page.getByText('You are signed in as Marek Dunmore, and what you asked for isn’t open'),
  ).toBeVisible();
});

test('the session cookie is out of reach, and other sites’ forms change nothing', async ({
  page,
  context,
}) => {
  await signIn(page, 'tobin');
  const cookie = (await context.cookies()).find(({ name }) => name === 'trivet_session');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax', path: '/' });
  await context.request.post('/sign-out', { headers: { 'Sec-Fetch-Site': 'cross-site' } });
  await page.goto('/observers');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Observers’ room');
  const crossSite = await context.request.post('/sign-in', {
    headers: { 'Sec-Fetch-Site': 'cross-site' },
    form: { email: 'greta@larkfell.example', password: 'larkfell-demo' },
  });
  expect(crossSite.status()).toBe(400);
});

test('forms that are not what was asked for get a sentence', async ({ request }) => {
  const post = async (data: string, type = 'application/x-www-form-urlencoded') => {
    const response = await request.post('/sign-in', { data, headers: { 'Content-Type': type } });
    return [response.status(), await response.text()] as const;
  };
  const [empty, emptyBody] = await post('');
  expect(empty).toBe(422);
  expect(emptyBody).toContain('Type one mail address.');
  const [twice, twiceBody] = await post('email=a&email=b&password=c');
  expect(twice).toBe(422);
  expect(twiceBody).toContain('Type one mail address.');
  const [large] = await post(`email=${'a'.repeat(30_000)}&password=b`);
  expect(large).toBe(400);
  const [json, jsonBody] = await post('{"email":"a"}', 'application/json');
  expect(json).toBe(400);
  expect(jsonBody).toContain('could not be read');
});

test('what depends on the visitor is never kept by a cache', async ({ request }) => {
  for (const path of ['/', '/crew', '/observers', '/trustees', '/sign-in', '/never-there']) {
    const response = await request.get(path, { maxRedirects: 0 });
    expect(response.headers()['cache-control']).toBe('private, no-store');
  }
});

test('no page of the site carries a script or any data beside its text', async ({ browser }) => {
  const { context, page } = await browserOf(browser, 'marek', { javaScriptEnabled: false });
  for (const path of ['/', '/visit', '/observers', '/trustees', '/crew', '/sign-in']) {
    await page.goto(path);
    expect(
      await page.locator('script:not([type="application/ld+json"]), template, iframe, object').count(),
    ).toBe(0);
  }
  await context.close();
});

test.describe('looking', () => {
  // axe needs scripts to look; the pages still bring none of their own.
  test.use({ javaScriptEnabled: true, bypassCSP: true });

  for (const path of [
    '/',
    '/visit',
    '/join',
    '/sign-in?next=/crew',
    '/never-there',
    '/trustees',
    '/sample-chart',
    '/tonight',
    '/sky-diary',
    '/contact',
    '/field-notes',
    '/field-notes/halo',
    '/night-logs/first-light',
    '/kit-reviews/three-eyepieces',
    '/category/night-logs',
    '/search?q=refractor',
    '/sign-up',
    '/sign-up/confirm?token=x',
    '/reset',
  ]) {
    test(`axe finds nothing at ${path}, and nothing sticks out on narrow screens`, async ({ page }) => {
      await page.goto(path);
      expect(await axe(page)).toEqual([]);
      for (const width of [768, 360]) {
        await page.setViewportSize({ width, height: 740 });
        const wider = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        expect(wider).toBeLessThanOrEqual(0);
      }
    });
  }
});
