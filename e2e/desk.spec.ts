/** The desk, as Greta works at it. */
import { alive, benchTitle, cell, dropDraft, openDesk, putLive, saved, show } from './at-desk';
import { browserOf, fillSignIn } from './people';
import { axe, expect, test } from './story';

test('the desk asks guests to sign in, refuses members and lets Greta in', async ({ page, browser }) => {
  await page.goto('/desk');
  await expect(page).toHaveURL('/sign-in?next=%2Fdesk');
  await fillSignIn(page, 'greta');
  await expect(page).toHaveURL('/desk');
  await expect(cell(page, /^Home/, 0)).toBeVisible();
  // What the desk begins with is compiled as it arrives.
  const begins = await (await page.request.get('/desk')).text();
  const scripts = [...begins.matchAll(/<script src="([^"]+)"(?![^>]*noModule)/gi)].map(
    ([, src]) => src ?? '',
  );
  expect(scripts.length).toBeGreaterThan(10);
  for (const script of scripts)
    expect((await (await page.request.get(script)).text()).split('\n')[0]).toBe(
      '//# allFunctionsCalledOnLoad',
    );
  const priya = await browserOf(browser, 'priya');
  expect((await priya.page.goto('/desk'))?.status()).toBe(403);
  await expect(priya.page.getByText('The desk is for administrators')).toBeVisible();
  expect((await priya.request.get('/desk/api/draft')).status()).toBe(403);
  expect((await priya.request.put('/desk/api/draft', { data: {} })).status()).toBe(403);
  await priya.context.close();
});

test('the board shows what a guest, Marek and Tobin get', async ({ page }) => {
  // To write numbers and compare by a language's rules a browser has to read these first.
  await page.addInitScript(() => {
    const asked: string[] = [];
    const noting = (name: string) => {
      if (performance.getEntriesByName('desk answers').length === 0) asked.push(name);
    };
    Object.assign(window, { asked });
    for (const name of ['NumberFormat', 'Collator'] as const) {
      const construct = (made: typeof Intl.Collator, given: never[]) => {
        noting(name);
        return Reflect.construct(made, given);
      };
      Object.assign(Intl, { [name]: new Proxy(Intl[name], { construct }) });
    }
    const { localeCompare } = String.prototype;
    String.prototype.localeCompare = function (this: string, other: string) {
      noting('localeCompare');
      return localeCompare.call(this, other);
    };
  });
  await openDesk(page);
  expect(await page.evaluate(() => (window as unknown as { asked: string[] }).asked)).toEqual([]);
  // What is in view is drawn first, the rest of the board after it.
  const gets = async (item: RegExp, ...outcomes: string[]) => {
    for (const [column, outcome] of outcomes.entries())
      await expect(cell(page, item, column)).toHaveAttribute('data-outcome', outcome);
  };
  await gets(/^Home/, 'open', 'open', 'open');
  await gets(/^Join us/, 'open', 'open', 'redirect');
  await gets(/^Observers’ room/, 'redirect', 'teaser', 'open');
  await gets(/^Rota/, 'missing', 'missing', 'missing');
  await gets(/^Trustees/, 'message', 'message', 'message');
  await gets(/^A sample chart/, 'open', 'open', 'open');
  await gets(/^Sign in/, 'open', 'leave out', 'leave out');
});

test('the whole story: change a gate, see the difference, put it live, and the guest’s page changes', async ({
  page,
  browser,
}) => {
  const guest = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  expect((await guest.goto('/trustees'))?.status()).toBe(403);

  await openDesk(page);
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Trustees/ })
    .click();
  await expect(benchTitle(page)).toHaveText('Trustees');
  await page.getByRole('radio', { name: 'Everyone', exact: true }).click();
  await expect(page.getByTestId('passing')).toContainText('72 of 72 members pass');
  await expect(page.getByTestId('passing')).toContainText('only in the draft');
  await saved(page);

  expect((await guest.goto('/trustees'))?.status()).toBe(403);
  await show(page, 'Difference');
  await expect(cell(page, /^Trustees/, 0)).toHaveAttribute('data-changes', 'true');
  await expect(cell(page, /^Trustees/, 0)).toHaveAccessibleName('A guest can open Trustees; now message');
  await expect(cell(page, /^Home/, 0)).not.toHaveAttribute('data-changes', 'true');

  await page.getByRole('button', { name: 'Put 1 change live' }).first().click();
  await expect(page.getByTestId('effect')).toContainText(/\+\d+ members gain/);
  await expect(page.getByTestId('effect')).toContainText('0 members lose');
  await expect(page.getByTestId('effect')).toContainText('message');
  await page.getByLabel('Note for the record').fill('The papers are for everyone now.');
  await putLive(page);
  expect((await guest.goto('/trustees'))?.status()).toBe(200);
  await expect(guest.getByText('For the next meeting.')).toBeVisible();

  await page.reload();
  await alive(page);
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Trustees/ })
    .click();
  await page.getByRole('radio', { name: 'With a role' }).click();
  await saved(page);
  await page.getByRole('banner').getByRole('button', { name: 'Put 1 change live' }).click();
  await expect(page.getByTestId('effect')).toContainText('0 members gain');
  await putLive(page);
  expect((await guest.goto('/trustees'))?.status()).toBe(403);
  await guest.context().close();
});

test('why: the gate that spoke, the test that failed, the value met, what would open it', async ({
  page,
}) => {
  await openDesk(page);
  await cell(page, /^Charts/, 1).click();
  const why = page.getByRole('complementary');
  await expect(benchTitle(page)).toHaveText('Marek Dunmore at Charts');
  await expect(why.getByText('Marek Dunmore gets a teaser of Charts.')).toBeVisible();
  await expect(why.getByText('turns away')).toBeVisible();
  await expect(why.getByText('is at Observer level or above · met: no level')).toBeVisible();
  await expect(why.getByText('Reach Observer level')).toBeVisible();
  await expect(why.getByText('This opens to Observers and above, on a further condition.')).toBeVisible();
});

test('the board by keyboard: arrows, Enter, G, L and W', async ({ page }) => {
  await openDesk(page);
  await cell(page, /^Home/, 0).focus();
  for (const key of ['ArrowRight', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'End', 'ArrowLeft'])
    await page.keyboard.press(key);
  await expect(cell(page, /^Join us/, 1)).toBeFocused();
  await expect(page.getByTestId('decision-line')).toHaveText('Marek Dunmore can open Join us.');
  await page.keyboard.press('Enter');
  await expect(benchTitle(page)).toHaveText('Marek Dunmore at Join us');
  await page.keyboard.press('g');
  await expect(benchTitle(page)).toHaveText('Join us');
  await page.keyboard.press('l');
  await expect(page.getByText('Missing: as if nothing were there')).toBeVisible();
  await page.keyboard.press('Escape');
  await cell(page, /^Join us/, 1).focus();
  await page.keyboard.press('w');
  await expect(page).toHaveURL(/\/desk\/walk\/.+at=%2Fjoin/);
});

test('a walk shows the site as the stand-in, stays inside, and does nothing', async ({
  page,
  context,
  browser,
}) => {
  await openDesk(page);
  await cell(page, /^Observers’ room/, 1).click();
  await page.getByRole('button', { name: /^Walk there/ }).click();
  const site = page.frameLocator('iframe');
  await expect(site.getByRole('heading', { level: 1 })).toHaveText('Observers’ room');
  await expect(site.getByText('This opens to Observers and above, on a further condition.')).toBeVisible();
  await expect(page.getByTestId('walk-line')).toContainText('Marek Dunmore gets a teaser of Observers’ room');
  await site.getByRole('main').getByRole('link', { name: 'Join us' }).click();
  await expect(page.getByTestId('walk-line')).toContainText('Marek Dunmore can open Join us');
  await site.getByRole('button', { name: 'Sign out', includeHidden: true }).dispatchEvent('click');
  await expect(site.getByText('On the site, this would sign Marek Dunmore out.')).toBeVisible();
  await page.getByLabel('Who walks').selectOption({ label: 'Guest' });
  await expect(page.getByTestId('walk-line')).toContainText('A guest can open Join us');
  await site.getByRole('link', { name: 'Sign in' }).click();
  await expect(page.getByTestId('walk-line')).toContainText('This page is open to everyone, always.');
  await expect(site.getByText('On a walk nothing is sent.')).toBeVisible();

  await page.getByRole('link', { name: 'Board' }).click();
  await alive(page);
  await expect(cell(page, /^Home/, 0)).toBeVisible();
  await cell(page, /^Charts/, 0).click();
  await page.getByRole('button', { name: /^Walk there/ }).click();
  await expect(page.getByTestId('walk-line')).toContainText(
    'A guest is sent to sign in on the way to Charts',
  );

  const address = new URL((await page.locator('iframe').getAttribute('src')) ?? '', page.url()).href;
  expect((await context.request.get(address)).status()).toBe(200);
  const root = address.replace(/(\/walk\/[^/]+).*/, '$1');
  expect((await context.request.get(`${root}/visit`)).status()).toBe(200);
  const stranger = await browserOf(browser, 'greta');
  expect((await stranger.request.get(address)).status()).toBe(404);
  await stranger.context.close();
  expect((await context.request.get(`${root}/crew`)).status()).toBe(404);
});

test('a new gate by pointing at a row, taken away again with undo', async ({ page }) => {
  await openDesk(page);
  await page.getByRole('row', { name: /^Visit us/ }).hover();
  await page.getByRole('button', { name: 'Put a gate on Visit us' }).click();
  await expect(benchTitle(page)).toHaveText('Visit us');
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'redirect');
  await page.getByRole('row', { name: /^Tonight’s sky/ }).hover();
  await page.getByRole('button', { name: 'Cover Tonight’s sky' }).click();
  await expect(benchTitle(page)).toHaveText('Visit us and Tonight’s sky');
  await expect(cell(page, /^Tonight’s sky/, 0)).toHaveAttribute('data-outcome', 'redirect');
  await page.getByRole('radio', { name: 'a message' }).click();
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'message');
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'open');
  await page.getByRole('banner').getByRole('button', { name: 'Undo' }).click();
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'message');
  await dropDraft(page);
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'open');
});

test('conditions of any shape, and an exact level is remarked on', async ({ page }) => {
  await openDesk(page);
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Dome crew/ })
    .click();
  await page.getByRole('button', { name: '+ a test' }).click();
  const who = page.getByRole('region', { name: 'Who' });
  await who.getByLabel('Fact').nth(1).selectOption({ label: 'Level' });
  await who.getByLabel('Level', { exact: true }).selectOption({ label: 'Observer' });
  await who.getByLabel('Comparison').selectOption({ label: 'only' });
  await expect(who.getByText('People in Dome crew who are at exactly Observer level')).toBeVisible();
  await expect(page.getByText('Exactly Observer: Keeper do not pass.')).toBeVisible();
  await who.getByRole('radio', { name: 'any of these' }).click();
  await who.getByRole('button', { name: 'not' }).first().click();
  await expect(who.getByText('are not in Dome crew', { exact: false }).first()).toBeVisible();
  await dropDraft(page);
});

test('taking the last test out of a gate closes it to all, and never opens it', async ({ page }) => {
  await openDesk(page);
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Dome crew/ })
    .click();
  await page.getByRole('button', { name: 'Take this test out' }).click();
  await expect(page.getByText('No tests: nobody passes.')).toBeVisible();
  await expect(page.getByText('Nobody passes: whatever this gate covers is closed to all.')).toBeVisible();
  await expect(cell(page, /^Rota/, 0)).toHaveAttribute('data-outcome', 'missing');
  await dropDraft(page);
});

test('what is in view stays through reload and Back', async ({ page }) => {
  await openDesk(page);
  await cell(page, /^Charts/, 1).click();
  await expect(page).toHaveURL('/desk?why=charts&as=member%3Amarek');
  await page.reload();
  await alive(page);
  await expect(benchTitle(page)).toHaveText('Marek Dunmore at Charts');
  await page.getByRole('button', { name: /^Walk there/ }).click();
  await expect(page.getByTestId('walk-line')).toContainText('gets a teaser of Charts');
  await page.goBack();
  await expect(benchTitle(page)).toHaveText('Marek Dunmore at Charts');
  await page.goto('/desk?gate=no-such-gate');
  await expect(benchTitle(page)).toHaveText('Gates');
});

test('a member is put on the board by typing, and stays there', async ({ page }) => {
  await openDesk(page);
  await page.getByRole('button', { name: 'Add a visitor' }).click();
  await page.getByPlaceholder('Name or mail address').fill('halloran');
  await page.getByRole('option', { name: /Wren Halloran/ }).click();
  await expect(cell(page, /^Rota/, 3)).toHaveAttribute('data-outcome', 'open');
  await page.reload();
  await alive(page);
  await expect(page.getByRole('columnheader', { name: /Wren Halloran/ })).toBeVisible();
  await page
    .getByRole('columnheader', { name: /Wren Halloran/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
  await expect(page.getByRole('columnheader', { name: /Wren Halloran/ })).toHaveCount(0);
});

test('a draft saved from a second tab: both versions are shown and nothing is lost', async ({
  page,
  context,
}) => {
  await openDesk(page);
  const second = await context.newPage();
  await second.goto('/desk');
  await alive(second);
  await expect(cell(second, /^Home/, 0)).toBeVisible();

  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Trustees/ })
    .click();
  await page.getByRole('radio', { name: 'Everyone', exact: true }).click();
  await saved(page);

  await second
    .getByRole('complementary')
    .getByRole('button', { name: /^Dome crew/ })
    .click();
  await second.getByRole('radio', { name: 'Members', exact: true }).click();
  const dialog = second.getByRole('dialog', { name: 'The draft was changed while you were editing' });
  await expect(dialog).toContainText('Dome crew and everything below it · members');
  await expect(dialog).toContainText('Trustees · everyone');
  await dialog.getByRole('button', { name: 'Put my edits on top of theirs' }).click();
  await saved(second);
  await expect(second.getByRole('banner').getByRole('button', { name: 'Put 2 changes live' })).toBeVisible();
  await page.bringToFront();
  await page.reload();
  await alive(page);
  await expect(page.getByRole('banner').getByRole('button', { name: 'Put 2 changes live' })).toBeVisible();
  await dropDraft(page);
});

test('when the server can’t be reached, the edit is kept and saved later', async ({ page }) => {
  await openDesk(page);
  await page.route('**/desk/api/draft', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.fallback(),
  );
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Trustees/ })
    .click();
  await page.getByRole('radio', { name: 'Everyone', exact: true }).click();
  await expect(page.getByText('Not saved: The server can’t be reached.')).toBeVisible();
  await expect(cell(page, /^Trustees/, 0)).toHaveAttribute('data-outcome', 'open');
  await page.unroute('**/desk/api/draft');
  await saved(page);
  await dropDraft(page);
});

test('everything is found by typing', async ({ page }) => {
  await openDesk(page);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/A page, a person/).fill('nowhere at all');
  await expect(page.getByText('Nothing here by that name.')).toBeVisible();
  await page.getByPlaceholder(/A page, a person/).fill('exactly keeper');
  await page.keyboard.press('Enter');
  await expect(benchTitle(page)).toHaveText('Keepers’ evening');
});

for (const colorScheme of ['light', 'dark'] as const) {
  test(`axe finds nothing at the desk (${colorScheme})`, async ({ browser }) => {
    // It looks at every mark of the board.
    test.slow();
    const { context, page } = await browserOf(browser, 'greta', { colorScheme });
    const violations = (within?: string) => axe(page, colorScheme, within);
    await page.goto('/desk');
    await alive(page);
    await expect(cell(page, /^Home/, 0)).toBeVisible();
    expect(await violations()).toEqual([]);
    await cell(page, /^Observers’ room/, 1).click();
    expect(await violations('aside')).toEqual([]);
    await page
      .getByRole('complementary')
      .getByRole('button', { name: /^Observers’ room/ })
      .click();
    await expect(page.getByTestId('passing')).toContainText('members pass');
    expect(await violations('aside')).toEqual([]);
    await page.getByRole('radio', { name: 'Everyone', exact: true }).click();
    await page
      .getByRole('banner')
      .getByRole('button', { name: /^Put 1 change live/ })
      .click();
    await expect(page.getByTestId('effect')).toBeVisible();
    expect(await violations('aside')).toEqual([]);
    await dropDraft(page);
    await context.close();
  });
}

test('the workbench’s edge is moved with keys and by dragging, and stays where it was left', async ({
  page,
}) => {
  await openDesk(page);
  const edge = page.getByRole('separator', { name: 'Width of the workbench' });
  const width = () =>
    page.getByRole('complementary', { name: 'Workbench' }).evaluate((one) => one.clientWidth);
  const before = await width();
  await edge.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(width).toBe(before + 24);
  const box = await edge.boundingBox();
  if (!box) throw new Error('no edge');
  await page.mouse.move(box.x + 4, 400);
  await page.mouse.down();
  await page.mouse.move(box.x - 96, 400, { steps: 4 });
  await page.mouse.up();
  await expect.poll(width).toBeGreaterThan(before + 100);
  const left = await width();
  // On another screen and back, and after a reload.
  await page.getByRole('link', { name: 'Names', exact: true }).click();
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await expect.poll(width).toBe(left);
  await page.reload();
  await expect.poll(width).toBe(left);
  await edge.dblclick();
  await expect.poll(width).toBe(before);
});

test('a name typed and Enter at once puts that member on the board, and nobody else', async ({ page }) => {
  await openDesk(page);
  // The answer comes only after Enter was pressed.
  let pressed = () => {};
  const enter = new Promise<void>((resolve) => {
    pressed = resolve;
  });
  await page.route('**/desk/api/members?q=Wren', async (route) => {
    await enter;
    await route.continue();
  });
  await page.getByRole('button', { name: 'Add a visitor' }).click();
  await page.getByPlaceholder('Name or mail address').pressSequentially('Wren');
  await page.keyboard.press('Enter');
  pressed();
  await expect(page.getByRole('columnheader', { name: /Wren Halloran/ })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: /^Guest/ })).toHaveCount(1);
  await page
    .getByRole('columnheader', { name: /Wren Halloran/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
  await expect(page.getByRole('columnheader', { name: /Wren Halloran/ })).toHaveCount(0);
});

test('a new gate for a level sends guests to sign in and tells members why', async ({ page }) => {
  await openDesk(page);
  await page.getByRole('row', { name: /^Visit us/ }).hover();
  await page.getByRole('button', { name: 'Put a gate on Visit us' }).first().click();
  await page.getByRole('radio', { name: 'A level or above' }).click();
  const otherwise = page.getByRole('region', { name: 'Otherwise' });
  await expect(otherwise.getByLabel('Who gets this')).toHaveValue('guests');
  await expect(
    otherwise.getByRole('region', { name: 'Everyone else' }).getByRole('radio', { name: 'a message' }),
  ).toBeChecked();
  await otherwise
    .getByRole('region', { name: 'Everyone else' })
    .getByRole('radio', { name: 'a redirect' })
    .click();
  await expect(page.getByTestId('passing')).toContainText('would be sent to sign in');
  await expect(page.getByTestId('effect-line')).toContainText('guests lose 1 page');
  await dropDraft(page);
});
