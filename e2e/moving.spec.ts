/** Several rows at once on the board, and pages moved in the tree. */
import type { Page } from '@playwright/test';
import { benchTitle, cell, dropDraft, openDesk } from './at-desk';
import { expect, test } from './story';

const box = (page: Page, title: string) =>
  page.getByRole('checkbox', { name: `Mark ${title}`, exact: true }).first();

test('several rows are marked with the keys and the pointer, and put under one gate', async ({ page }) => {
  await openDesk(page);
  await cell(page, /^Visit us/, 0).focus();
  await page.keyboard.press('m');
  await page.keyboard.press('Shift+ArrowDown');
  const bar = page.getByTestId('marked-bar');
  await expect(bar).toContainText('2 marked');
  await page
    .getByRole('checkbox', { name: 'Mark Tonight’s sky', exact: true })
    .click({ modifiers: ['Shift'] });
  await expect(bar).toContainText('5 marked');
  await box(page, 'Join us').click();
  await box(page, 'My account').click();
  await expect(bar).toContainText('3 marked');
  await bar.getByRole('button', { name: 'Put under a gate …' }).click();
  await page
    .getByRole('dialog')
    .getByRole('option', { name: /^Trustees/ })
    .first()
    .click();
  await expect(benchTitle(page)).toHaveText('Trustees, Visit us, Field notes and Tonight’s sky');
  await bar.getByRole('button', { name: 'Unmark' }).click();
  await expect(bar).toBeHidden();
  await dropDraft(page);
});

test('several rows are taken off the site, put back, and moved below a page, each undone in one step', async ({
  page,
  browser,
}) => {
  const guest = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  const status = async (path: string) => (await guest.goto(path))?.status();
  const undo = (what: string) =>
    page
      .getByRole('listitem')
      .filter({ hasText: what })
      .getByRole('button', { name: 'Undo', exact: true })
      .click();
  await openDesk(page);
  await box(page, 'Visit us').check();
  await box(page, 'Field notes').check();
  const bar = page.getByTestId('marked-bar');
  await bar.getByRole('button', { name: 'Unpublish' }).click();
  await expect(page.getByRole('row', { name: /^Visit us/ }).first()).toContainText('unpublished');
  expect(await status('/visit')).toBe(404);
  await undo('No longer published: 2 items');
  await expect(page.getByRole('row', { name: /^Visit us/ }).first()).not.toContainText('unpublished');
  expect(await status('/visit')).toBe(200);
  await bar.getByRole('button', { name: 'Move below …' }).click();
  await page.getByPlaceholder('Below what').fill('contact');
  await page.getByPlaceholder('Below what').press('Enter');
  await expect(page.getByText('Moved: 2 items')).toBeVisible();
  await expect(async () =>
    expect((await rowsAfter('Contact')).slice(0, 2)).toEqual(['Visit us', 'Field notes']),
  ).toPass();
  await undo('Moved: 2 items');
  await expect(async () =>
    expect((await rowsAfter('Home')).slice(0, 2)).toEqual(['Visit us', 'Field notes']),
  ).toPass();

  async function rowsAfter(title: string): Promise<readonly string[]> {
    const names = await page
      .getByRole('checkbox', { name: /^Mark / })
      .evaluateAll((boxes) => boxes.map((box) => box.getAttribute('aria-label')?.slice(5) ?? ''));
    return names.slice(names.indexOf(title) + 1);
  }
});

test('a page is dragged below another, and what would come out from under a gate is asked about', async ({
  page,
  browser,
}) => {
  const guest = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await openDesk(page, '/desk/site');
  const tree = page.getByRole('navigation', { name: 'What the site holds' });
  const handle = (title: string) => tree.getByRole('button', { name: `Move ${title}` });
  await handle('Tonight’s sky').hover();
  await page.mouse.down();
  const onto = await tree.getByRole('button', { name: 'Observers’ room', exact: true }).boundingBox();
  if (!onto) throw new Error('no row');
  await page.mouse.move(onto.x + 60, onto.y + onto.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText(/Now under the gate over Observers’ room/)).toBeVisible();
  await guest.goto('/tonight');
  await expect(guest).toHaveURL(/\/sign-in/);

  // The way out is the keys’; it leads out from under the gate.
  await handle('Tonight’s sky').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  const asked = page.getByText(
    'Moved there, Tonight’s sky would no longer be under the gate over Observers’ room',
  );
  await expect(asked).toBeVisible();
  await guest.goto('/tonight');
  await expect(guest).toHaveURL(/\/sign-in/);
  await page.getByRole('button', { name: 'Move it', exact: true }).click();
  await expect(async () => expect((await guest.goto('/tonight'))?.url()).toMatch(/\/tonight$/)).toPass();
  // Before Observers’ room, where it was.
  await handle('Tonight’s sky').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByText('Moved: Tonight’s sky', { exact: true }).last()).toBeVisible();
  await expect(handle('Tonight’s sky')).toBeFocused();
});

test('the Site screen begins with how the site stands, and leads to it', async ({ page }) => {
  await openDesk(page, '/desk/site');
  const stands = page.getByRole('region', { name: 'How the site stands' });
  await expect(stands).toContainText('Every link leads somewhere');
  const unled = stands.getByRole('region', { name: 'Nothing leads here' });
  await expect(unled.getByRole('button', { name: /Keepers’ evening\s*\/keepers/ })).toBeVisible();
  await expect(unled.getByRole('button', { name: /Visit us/ })).toHaveCount(0);
  const kept = await page.request.put('/desk/api/items/contact/draft', {
    data: { version: 0, document: { title: 'Contact us' } },
  });
  expect(kept.status()).toBe(200);
  await page.reload();
  await stands.getByRole('button', { name: /Contact\s*being written/ }).click();
  await expect(page).toHaveURL(/\/desk\/site\?item=contact/);
  await page.request.delete('/desk/api/items/contact/draft');
});
