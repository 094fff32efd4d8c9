/** Writing at the desk, and what becomes of it on the site. */
import type { Page } from '@playwright/test';
import { alive, benchTitle, cell, dropDraft, openDesk, putLive, saved } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

// The last file: its stories are shared out, so that no worker waits for the other to end it alone.
test.describe.configure({ mode: 'parallel' });

const kept = (page: Page, text: string) => expect(page.getByTestId('kept')).toHaveText(text);
const preview = (page: Page) => page.frameLocator('iframe');

test('a page is written with a part for some, previewed as both, survives a reload and goes to the site', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk/site?item=contact');
  await kept(page, 'As it is on the site');
  await page.getByLabel('Add a section').selectOption({ label: 'text' });
  const text = page.getByLabel('Text of Text');
  await text.fill('For all.\n\n:::for signed on\nFor members.\n:::');
  await expect(page.getByText(/^Line 3: .*nothing is shown to anybody/)).toBeVisible();
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await expect(page.getByText('It can’t go to the site like this.')).toBeVisible();
  await text.fill('For all.\n\n:::for signed in\nFor members.\n:::');
  await kept(page, 'Kept, not on the site yet');
  await page.reload();
  await alive(page);
  await expect(page.getByLabel('Text of Text')).toHaveValue(/For members/);
  await expect(preview(page).getByText('For all.')).toBeVisible();
  await expect(preview(page).getByText('For members.')).toHaveCount(0);
  await page.getByLabel('To whom it is shown').selectOption({ label: 'Marek Dunmore' });
  await expect(preview(page).getByText('For members.')).toBeVisible();

  const marek = await browserOf(browser, 'marek');
  expect(await (await marek.request.get('/contact')).text()).not.toContain('For members.');
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await kept(page, 'As it is on the site');
  expect(await (await marek.request.get('/contact')).text()).toContain('For members.');
  expect(await (await browser.newContext()).request.get('/contact').then((one) => one.text())).not.toContain(
    'For members.',
  );
  await page.getByRole('button', { name: 'Take out text: Text' }).click();
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await kept(page, 'As it is on the site');
  await marek.context.close();
});

test('two editors: what the other wrote is not overwritten, and both versions are there', async ({
  page,
  context,
}) => {
  await openDesk(page, '/desk/site?item=visit');
  const other = await context.newPage();
  await other.goto('/desk/site?item=visit');
  await alive(other);
  await page.getByLabel('Title', { exact: true }).fill('Visit the hill');
  await kept(page, 'Kept, not on the site yet');
  await other.getByLabel('Title', { exact: true }).fill('Come up');
  await expect(other.getByText(/wrote here meanwhile. Theirs is called “Visit the hill”/)).toBeVisible();
  await other.getByRole('button', { name: 'Keep mine' }).click();
  await kept(other, 'Kept, not on the site yet');
  await page.reload();
  await alive(page);
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Come up');
  await page.getByRole('button', { name: 'Drop what I wrote' }).click();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Visit us');
  await other.close();
});

test('a new post is gated by its category from the start; taken away, it can be brought back', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk/site');
  await page.getByRole('button', { name: 'New post' }).click();
  await page.getByLabel('Title of the new post').fill('A night to come');
  await page.getByLabel('Category').fill('Night logs');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByLabel('Address')).toHaveValue('/night-logs/a-night-to-come');
  const post = new URL(page.url()).searchParams.get('item');
  await page.getByLabel(/^Published/).check();
  await page.getByLabel('Add a section').selectOption({ label: 'text' });
  await page.getByLabel('Text of Text').fill('Clear until two.');
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await kept(page, 'As it is on the site');
  const guest = await browser.newContext();
  expect(await (await guest.request.get('/night-logs/a-night-to-come')).text()).not.toContain(
    'Clear until two.',
  );
  const odile = await browserOf(browser, 'odile');
  expect(await (await odile.request.get('/night-logs/a-night-to-come')).text()).toContain('Clear until two.');
  await page.getByRole('button', { name: 'Take it away …' }).click();
  await expect(page.getByText('It can be brought back.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Take it away', exact: true }).click();
  await expect(page.getByText(/^Taken away: A night to come/)).toBeVisible();
  expect((await odile.request.get('/night-logs/a-night-to-come')).status()).toBe(404);
  await page.getByRole('button', { name: /^Bring back A night to come/ }).click();
  await expect.poll(async () => (await odile.request.get('/night-logs/a-night-to-come')).status()).toBe(200);
  const removed = await page.request.post('/desk/api/items', { data: { kind: 'remove', item: post } });
  expect(removed.status()).toBe(200);
  await odile.context.close();
});

test('a file is what its content says, and one that could run something is refused', async ({ page }) => {
  await openDesk(page, '/desk/site');
  const file = page.getByLabel('A file to put on the site');
  await file.setInputFiles({
    name: 'sky.png',
    mimeType: 'image/png',
    buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
  });
  await expect(page.getByText(/That is markup/)).toBeVisible();
  await file.setInputFiles({
    name: '../My  Notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('clouds'),
  });
  await expect(page.getByText(/\/files\/.*\/my-notes\.txt/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it away …' }).click();
  await page.getByRole('button', { name: 'Take it away', exact: true }).click();
});

test('a menu is put in order by dragging, and a link can’t go below itself', async ({ page, browser }) => {
  await openDesk(page, '/desk/site?item=top');
  const row = (name: string) =>
    page
      .getByRole('listitem')
      .filter({ has: page.getByRole('button', { name: `Move ${name}`, exact: true }) })
      .last();
  const drag = async (name: string, onto: string) => {
    const from = await page.getByRole('button', { name: `Move ${name}`, exact: true }).boundingBox();
    const to = await page.getByRole('button', { name: `Change ${onto}`, exact: true }).boundingBox();
    if (!from || !to) throw new Error('Nothing to drag.');
    await page.mouse.move(from.x + 5, from.y + 5);
    await page.mouse.down();
    await page.mouse.move(from.x + 30, from.y + 20, { steps: 4 });
    await page.mouse.move(to.x - 40, to.y + to.height / 2, { steps: 12 });
    await page.mouse.up();
  };
  await drag('Visit', 'Home');
  await expect(row('Visit')).toBeVisible();
  const guest = await (await browser.newContext()).newPage();
  await expect(async () => {
    await guest.goto('/');
    // It opens when one points at Home.
    expect(await guest.locator('[aria-label="Below Home"] a').allTextContents()).toEqual(['Visit']);
  }).toPass();
  // Back to where it was, by the same door.
  const moved = await page.request.post('/desk/api/items', {
    data: { kind: 'move', moves: [{ item: 'link-visit', parent: 'top', before: 'link-field-notes' }] },
  });
  expect(moved.status()).toBe(200);
  const wrong = await page.request.post('/desk/api/items', {
    data: { kind: 'move', moves: [{ item: 'link-observers', parent: 'link-charts', before: null }] },
  });
  expect(wrong.status()).toBe(422);
});

test('the whole site behind sign-in: one switch, a page kept open, and undone as easily', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk?rules=all');
  await page.getByRole('switch').check();
  await page.getByLabel('Keep a page open').selectOption({ label: 'Visit us  /visit' });
  await saved(page);
  await expect(cell(page, /^Contact/, 0)).toHaveAttribute('data-outcome', 'redirect');
  await expect(cell(page, /^Visit us/, 0)).toHaveAttribute('data-outcome', 'open');
  await page
    .getByRole('banner')
    .getByRole('button', { name: /^Put .* live$/ })
    .click();
  await putLive(page);
  const guest = await browser.newContext();
  const status = async (path: string) => (await guest.request.get(path, { maxRedirects: 0 })).status();
  expect([
    await status('/contact'),
    await status('/visit'),
    await status('/sign-in'),
    await status('/sign-up'),
  ]).toEqual([303, 200, 200, 200]);
  await page.goto('/desk?rules=all');
  await alive(page);
  await page.getByRole('switch').uncheck();
  await saved(page);
  await page
    .getByRole('banner')
    .getByRole('button', { name: /^Put .* live$/ })
    .click();
  await putLive(page);
  expect(await status('/contact')).toBe(200);
});

test('a gate describes what it covers, gives a lock, and shows each kind of item what it gets', async ({
  page,
}) => {
  await openDesk(page, '/desk?gate=night-logs');
  await expect(benchTitle(page)).toHaveText('Posts in Night logs');
  const where = page.getByLabel('Which items, in the text form');
  await where.fill('item kind is "post" and signed in');
  await expect(page.getByText(/is no fact of an item/)).toBeVisible();
  await where.fill('item kind is one of "post", "section" and item category is not "Field notes"');
  await expect(page.getByText(/^Covers \d+ section/)).toBeVisible();
  // What is left out can be described as well.
  await page.getByRole('button', { name: 'Leave some out' }).click();
  const left = page.getByRole('list', { name: 'Left out' });
  await left.getByLabel('Which items, in the text form').fill('item tag is "winter"');
  await expect(left).toContainText('tagged winter');
  await left.getByRole('button', { name: /^Take out/ }).click();
  await expect(left).toHaveCount(0);
  await page
    .getByLabel('A turn-away with a name, or one of its own')
    .last()
    .selectOption({ label: 'one of its own' });
  await page.getByRole('region', { name: 'Everyone else' }).getByRole('radio', { name: 'a lock' }).click();
  await expect(page.getByText('Posts: the nearest that fits')).toBeVisible();
  await saved(page);
  await dropDraft(page);
});

test('the leak check finds nothing at Larkfell, from the desk', async ({ page }) => {
  test.setTimeout(120_000);
  await openDesk(page, '/desk?rules=all');
  await page.getByRole('button', { name: /^Check as the board’s/ }).click();
  await expect(page.getByText('Nothing came through.')).toBeVisible({ timeout: 90_000 });
});

test.describe('looking', () => {
  for (const scheme of ['light', 'dark'] as const) {
    test(`axe finds nothing on the screens of writing (${scheme})`, async ({ page }) => {
      test.slow();
      await page.emulateMedia({ colorScheme: scheme });
      await openDesk(page);
      const screens = ['/desk/site?item=first-light', '/desk/site?item=top', '/desk?rules=all'];
      const more = [
        '/desk/site?item=home',
        '/desk/site?item=frame-ines-1',
        '/desk/outbox',
        '/desk?gate=kit-reviews',
      ];
      for (const at of scheme === 'light' ? [...screens, ...more] : screens) {
        await page.goto(at);
        await alive(page);
        await page.waitForLoadState('networkidle');
        expect([at, await axe(page, scheme)]).toEqual([at, []]);
      }
    });
  }
});
