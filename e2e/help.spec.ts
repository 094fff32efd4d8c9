/** The handbook at the desk: opened at the page of the screen that one is on. */
import { openDesk } from './at-desk';
import { becomes } from './people';
import { axe, expect, test } from './story';

test('help opens at the page of the screen, and leads on', async ({ page }) => {
  await openDesk(page, '/desk/audiences');
  await page.getByRole('button', { name: 'Help' }).click();
  await expect(page).toHaveURL(/\/desk\/help\/people$/);
  const handbook = page.getByRole('region', { name: 'The page' });
  await expect(handbook.getByRole('heading', { level: 1 })).toHaveText('People');
  const picture = handbook.getByRole('img').first();
  await expect
    .poll(() => picture.evaluate((image) => (image as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(100);
  expect(await axe(page)).toEqual([]);
  await handbook.getByText('Next:').getByRole('link').click();
  await expect(handbook.getByRole('heading', { level: 1 })).toHaveText('Areas');
  await page.goBack();
  await expect(handbook.getByRole('heading', { level: 1 })).toHaveText('People');
  await page.goBack();
  await expect(page).toHaveURL(/\/desk\/audiences$/);
});

test('pictures of the handbook are for those who may look around the desk, and nothing else is one', async ({
  page,
}) => {
  await becomes(page.context(), 'greta');
  expect((await page.request.get('/desk/api/help/people.png')).status()).toBe(404);
  expect((await page.request.get('/desk/api/help/person.png')).headers()['content-type']).toBe('image/png');
  expect((await page.request.get('/desk/api/help/..%2F..%2Fpackage.json')).status()).toBe(404);
  await becomes(page.context(), 'edda');
  expect((await page.request.get('/desk/api/help/person.png')).status()).toBe(403);
});
