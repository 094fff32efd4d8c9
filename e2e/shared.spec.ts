/** Sections that stand on many pages, and texts that know their reader: from writing them to those who get them. */
import type { Page } from '@playwright/test';
import { alive, cell, dropDraft, openDesk, putLive, saved } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

const kept = (page: Page, text: string) => expect(page.getByTestId('kept')).toHaveText(text);
const preview = (page: Page) => page.frameLocator('iframe');
/** The section in what the site holds. */
const inContents = (page: Page) =>
  page.getByRole('region', { name: 'On many pages' }).getByRole('button', { name: /^Ladder check/ });

/** Who passes the gate that is open. */
const passes = async (page: Page, condition: string) => {
  const who = page.getByRole('region', { name: 'Who' });
  await who.getByRole('radio', { name: 'Text' }).click();
  await who.getByLabel('The condition as text').fill(condition);
  await page.keyboard.press('Escape');
  await saved(page);
};
const send = async (page: Page) => {
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await kept(page, 'As it is on the site');
};

test('a banner over all posts of a category for one role: written, seen as two visitors, put live', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk/site');
  await page.getByRole('button', { name: 'New shared section' }).click();
  await page.getByLabel('Title of the new shared section').fill('Ladder check');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('It stands on nothing yet. Say what it is to stand on.')).toBeVisible();
  await page.getByLabel('Where on a page it stands').selectOption({ label: 'at the top, above everything' });
  await page.getByRole('button', { name: 'Describe some' }).click();
  const what = page.getByRole('list', { name: 'What it stands on' }).getByRole('textbox');
  await what.fill('item category is "Field notes"');
  await expect(page.getByText(/^Stands on \d+ posts\.$/)).toBeVisible();
  await page.getByLabel('Text of Ladder check').fill('Check the ladder, :own[nme].');
  await expect(page.getByText(/Line 1: .*Did you mean “name”\?/).first()).toBeVisible();
  await page.getByLabel('Text of Ladder check').fill('Check the ladder, :own[name].');
  await page.getByLabel('To whom it is shown').selectOption({ label: 'Marek Dunmore' });
  await expect(preview(page).getByText('Check the ladder, Marek Dunmore.')).toBeVisible();
  await page.getByLabel('On what it is shown').selectOption({ label: 'A ring around a winter moon' });
  await expect(preview(page).getByRole('heading', { name: 'A ring around a winter moon' })).toBeVisible();
  await send(page);

  // Nobody gets it yet: it is not published. Its gate goes live first.
  await page.getByRole('button', { name: 'Put a gate on Ladder check' }).click();
  await passes(page, 'role "Volunteer"');
  await page.getByRole('link', { name: 'Site' }).click();
  await inContents(page).click();
  await page.getByRole('checkbox', { name: /^Published/ }).check();
  await expect(page.getByText(/Its gate is in the draft alone/)).toBeVisible();
  await kept(page, 'Kept, not on the site yet');
  await page.getByRole('banner').getByRole('button', { name: 'Put 1 change live' }).click();
  await putLive(page);
  await page.goto('/desk/site');
  await alive(page);
  await inContents(page).click();
  await expect(page.getByText(/Its gate is in the draft alone/)).toHaveCount(0);
  await send(page);

  const [wren, marek] = [await browserOf(browser, 'wren'), await browserOf(browser, 'marek')];
  const seenBy = async (one: typeof wren, path: string) => (await one.request.get(path)).text();
  expect(await seenBy(wren, '/field-notes/halo')).toContain('Check the ladder, <bdi>Wren Halloran</bdi>.');
  expect(await seenBy(wren, '/visit')).not.toContain('Check the ladder');
  expect(await seenBy(marek, '/field-notes/halo')).not.toContain('Check the ladder');
  await wren.context.close();
  await marek.context.close();

  // On the board: a row of its own that folds out to its hosts, with why, and the way there.
  await page.goto('/desk');
  await alive(page);
  await expect(cell(page, /^Ladder check/, 1)).toHaveAttribute('data-outcome', 'leave out');
  await page.getByRole('button', { name: 'Fold out what is in Ladder check' }).click();
  await cell(page, /^on A ring around a winter moon/, 1).click();
  const panel = page.getByRole('complementary');
  await expect(
    panel.getByText(/Marek Dunmore is not shown the section Ladder check on A ring/),
  ).toBeVisible();

  // What a change of it would do is told with the number of its pages.
  await page
    .getByRole('button', { name: /^Gate, own: Ladder check/ })
    .first()
    .click();
  await passes(page, 'everyone');
  await page.getByRole('banner').getByRole('button', { name: 'Put 1 change live' }).click();
  await expect(page.getByTestId('effect').getByText(/Ladder check \(on \d+ pages\)/)).toBeVisible();
  await dropDraft(page);

  await page.goto('/desk/site');
  await alive(page);
  await inContents(page).click();
  await page.getByRole('button', { name: 'Take it away …' }).click();
  await page.getByRole('button', { name: 'Take it away', exact: true }).click();
  await expect(inContents(page)).toHaveCount(0);
});

test('an own word is completed as it is written, by keys alone', async ({ page }) => {
  await openDesk(page, '/desk/site?item=visit');
  const text = page.getByLabel('Text of Text');
  await text.fill('Welcome, ');
  await page.getByRole('button', { name: 'Show the reader’s own …' }).click();
  await expect(page.getByRole('option', { name: /^name\]/ })).toBeVisible();
  await page.keyboard.type('lev');
  await page.keyboard.press('Tab');
  await expect(text).toHaveValue('Welcome, :own[level]');
  await page.getByRole('button', { name: 'Drop what I wrote' }).click();
  await kept(page, 'As it is on the site');
});

test('what stands on many pages is in order for axe, and under the text on a narrow screen', async ({
  browser,
}) => {
  const wren = await browserOf(browser, 'wren');
  const page = await wren.context.newPage();
  await page.goto('/kit-reviews/three-eyepieces');
  await expect(page.getByRole('region', { name: 'Beside the text' })).toContainText('The lending shelf');
  expect(await axe(page)).toEqual([]);
  const tops = () =>
    page.evaluate(() =>
      ['main', '.shared-beside'].map((one) => document.querySelector(one)?.getBoundingClientRect().top ?? 0),
    );
  const [main = 0, beside = 0] = await tops();
  expect(Math.abs(main - beside)).toBeLessThan(5);
  await page.setViewportSize({ width: 360, height: 740 });
  const [mainNarrow = 0, besideNarrow = 0] = await tops();
  expect(besideNarrow).toBeGreaterThan(mainNarrow + 300);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await wren.context.close();
});
