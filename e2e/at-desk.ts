/** Working at the desk as Greta. */
import type { Page } from '@playwright/test';
import { becomes } from './people';
import { expect } from './story';

/** A row of the board, by how its title begins; by roles the browser would look at everything there is, each time. */
const row = (page: Page, item: RegExp) =>
  page
    .locator('tbody tr')
    .filter({ has: page.locator('th', { hasText: item }) })
    .first();
export const cell = (page: Page, item: RegExp, column: number) =>
  row(page, item).locator('[data-cell]').nth(column);
export const benchTitle = (page: Page) => page.getByRole('complementary').getByRole('heading', { level: 2 });
export const saved = (page: Page) => expect(page.getByTestId('save-state')).toContainText('Draft saved');
export const show = (page: Page, side: 'Live' | 'Draft' | 'Difference') =>
  page.getByLabel('Policy shown').getByText(side, { exact: true }).click();

/** Waits until the desk has come to life; before that, what one clicks is lost. */
export const alive = (page: Page) =>
  page.waitForFunction(() => performance.getEntriesByName('desk answers').length > 0);

/** Greta at the desk. */
export async function openDesk(page: Page, at = '/desk'): Promise<void> {
  await becomes(page.context(), 'greta');
  await page.goto(at);
  await alive(page);
}

/** Brings the draft back to what is live; the next story begins with that, so it is the server that is asked. */
export async function dropDraft(page: Page): Promise<void> {
  const put = page
    .getByRole('banner')
    .getByRole('button', { name: /^(?:Put \d+ changes?|Nothing to put) live$/ });
  await expect(put).toBeVisible();
  if (await put.isEnabled()) {
    await put.click();
    await page.getByRole('button', { name: 'Drop the draft' }).click();
    await saved(page);
  }
  await expect
    .poll(async () => {
      const { draft, live } = await (await page.request.get('/desk/api/draft')).json();
      return JSON.stringify(draft.policy) === JSON.stringify(live.policy);
    })
    .toBe(true);
}

/** Puts the draft live from the panel. */
export async function putLive(page: Page): Promise<void> {
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Put .* live$/ })
    .click();
  await expect(page.getByText(/Revision \d+ is live\./).last()).toBeVisible();
}
