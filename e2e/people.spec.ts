/** People, names and audiences at the desk. */
import type { Page } from '@playwright/test';
import { alive, dropDraft, openDesk, saved } from './at-desk';
import { browserOf, signIn } from './people';
import { axe, expect, test } from './story';

const bench = (page: Page) => page.getByRole('complementary');
const count = (page: Page) => page.getByTestId('people-count');
const undo = async (page: Page) => {
  // They lie on one another until somebody points at them; the newest stands first. The Undo in the top line is for the draft.
  await page.locator('[data-sonner-toast][data-front=true]').hover();
  await page.locator('[data-sonner-toast]').getByRole('button', { name: 'Undo' }).first().click();
  await expect(page.getByText('Taken back.', { exact: true }).first()).toBeVisible();
};

test('people are found by name and by condition; the address keeps the question', async ({ page }) => {
  await openDesk(page, '/desk/people');
  await expect(count(page)).toHaveText('72 of 72');
  await page.getByLabel('Name or mail address').fill('hallo');
  await expect(count(page)).toHaveText('1 of 72');
  await page.getByRole('button', { name: 'Everybody' }).click();
  const condition = page.getByLabel('Who, as a condition');
  await condition.fill('in group "Dome crew" and not profile "dome certificate" is yes');
  await condition.press('Escape');
  await expect(count(page)).toHaveText('0 of 72');
  await condition.fill('in group "Dome crew" and profile "dome certificate" is not set');
  await condition.press('Escape');
  await expect(count(page)).toHaveText('2 of 72');
  await expect(page.getByRole('button', { name: 'Wren Halloran' })).toBeVisible();
  await condition.fill('in group "Dome crwe"');
  await condition.press('Escape');
  await expect(page.getByTestId('condition-error')).toContainText('Did you mean “Dome crew”?');
  await expect(count(page)).toHaveText('2 of 72');
  await condition.fill('in group "Dome crew"');
  await expect(count(page)).toHaveText('5 of 72');
  await page.reload();
  await alive(page);
  await expect(condition).toHaveValue('in group "Dome crew"');
  await expect(count(page)).toHaveText('5 of 72');
  await page.getByRole('button', { name: 'Ines Calloway' }).click();
  await expect(page).toHaveURL('/desk/people/ines');
  await page.goBack();
  await expect(count(page)).toHaveText('5 of 72');
});

test('many at once: shown first, done, seen on the site, taken back', async ({ page, browser }) => {
  const marek = await browserOf(browser, 'marek');
  expect((await marek.page.goto('/crew'))?.status()).toBe(404);
  await openDesk(page, '/desk/people?q=marek');
  await page.getByLabel('Choose Marek Dunmore').check();
  await expect(bench(page).getByRole('heading', { level: 2 })).toHaveText('1 person chosen');
  await expect(page.getByTestId('people-preview')).toContainText('1 person changes: Marek Dunmore');
  await expect(page.getByTestId('people-preview')).toContainText('+1 reach more of the live site');
  await page.getByRole('button', { name: 'Change 1 person' }).click();
  await expect(page.getByText('Into Dome crew: 1 person.')).toBeVisible();
  expect((await marek.page.goto('/crew'))?.status()).toBe(200);
  await undo(page);
  expect((await marek.page.goto('/crew'))?.status()).toBe(404);
  await page.getByLabel('Choose everybody found').check();
  await page.getByLabel('What to do').selectOption({ label: 'Set the level' });
  await page.getByLabel('Level', { exact: true }).selectOption({ label: 'no level' });
  await expect(page.getByTestId('people-preview')).toContainText('One is like that already');
  await expect(page.getByRole('button', { name: 'Change 0 people' })).toBeDisabled();
  await marek.context.close();
});

test('one person: what is known, what they reach and why; mistakes stand where they are', async ({
  page,
}) => {
  await openDesk(page, '/desk/people/wren');
  const reach = page.getByRole('complementary', { name: 'What they reach' });
  await expect(reach.getByText(/^Closed: \d+ of 57 pages, posts and activities/)).toBeVisible();
  await expect(
    reach.getByText('Would open: Reach Keeper level and have “hours logged” at least 100'),
  ).toBeVisible();
  await page.getByLabel('Mail address', { exact: true }).fill('ines@larkfell.example');
  await page.getByLabel('hours logged').fill('100');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Ines Calloway has this mail address already.')).toBeVisible();
  await expect(page.getByLabel('hours logged')).toHaveValue('100');
  await page.getByLabel('Mail address', { exact: true }).fill('wren@larkfell.example');
  await page.getByLabel('Level', { exact: true }).selectOption({ label: 'Keeper' });
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Wren Halloran is saved.')).toBeVisible();
  // What says so does not stand in the way of saving again.
  await page.getByLabel('valley').fill('Sett');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Wren Halloran is saved.')).toHaveCount(2);
  await undo(page);
  await expect(page.getByLabel('valley')).toHaveValue('');
  await undo(page);
  await expect(reach.getByText(/^Closed: \d+ of 57 pages, posts and activities/)).toBeVisible();
  await expect(page.getByLabel('hours logged')).toHaveValue('61');
  await reach.getByRole('button', { name: /Keepers’ evening/ }).click();
  await expect(bench(page).getByRole('heading', { level: 2 })).toHaveText(
    'Wren Halloran at Keepers’ evening',
  );
  await expect(bench(page).getByText('“hours logged” is at least 100 · met: 61')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Wren Halloran' })).toBeVisible();
});

test('a person changed in two places at once: nothing typed is lost, nothing is overwritten', async ({
  page,
  browser,
}) => {
  await openDesk(page, '/desk/people/jonah');
  await page.getByLabel('valley').fill('Upper Tarn');
  const other = await browserOf(browser, 'greta');
  await other.page.goto('/desk/people/jonah');
  await alive(other.page);
  await other.page.getByLabel('Level', { exact: true }).selectOption({ label: 'Observer' });
  await other.page.getByRole('button', { name: 'Save' }).click();
  await expect(other.page.getByText('Jonah Birk is saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(
    page.getByText('Jonah Birk was changed meanwhile. What you typed is kept here').first(),
  ).toBeVisible();
  await expect(page.getByLabel('valley')).toHaveValue('Upper Tarn');
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await page.getByRole('button', { name: 'Take theirs' }).click();
  await expect(page.getByLabel('Level', { exact: true })).toHaveValue('observer');
  await page.getByRole('link', { name: 'People', exact: true }).first().click();
  await page.getByRole('button', { name: 'Take back' }).first().click();
  await expect(page.getByText('Taken back.', { exact: true })).toBeVisible();
  await other.context.close();
});

test('somebody new is added, and taken away', async ({ page }) => {
  await openDesk(page, '/desk/people');
  await page.getByRole('button', { name: 'New person' }).click();
  await page.getByRole('button', { name: 'Add this person' }).isDisabled();
  await page.getByLabel('Name', { exact: true }).fill('Nils <b>Ask</b>');
  await page.getByRole('button', { name: 'Add this person' }).click();
  await expect(page.getByText('Write a mail address like')).toBeVisible();
  await page.getByLabel('Mail address', { exact: true }).fill('nils@larkfell.example');
  await page.getByRole('button', { name: 'Add this person' }).click();
  await expect(page).toHaveURL(/\/desk\/people\/[0-9a-f-]{36}$/);
  await expect(page.getByRole('heading', { name: 'Nils <b>Ask</b>' })).toBeVisible();
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page).toHaveURL('/desk/people');
  await expect(count(page)).toHaveText('72 of 72');
});

test('a file comes in after a dry run, all of it or nothing, and goes out', async ({ page }) => {
  await openDesk(page, '/desk/people');
  const give = (name: string, csv: string) =>
    page
      .getByLabel('A file of people')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await give('broken.csv', 'name,mail address,level\n"Nils,nils@larkfell.example,Friend');
  await expect(page.getByTestId('dry-run')).toContainText('Line 2');
  await expect(page.getByTestId('dry-run')).toContainText('The quotes that begin here do not end');
  await expect(page.getByRole('button', { name: 'Nothing to take in' })).toBeDisabled();
  await page.getByRole('button', { name: 'Leave this file' }).click();
  await give('people.csv', '\ufeffwho,mail address,level\nNils Ask,nils@larkfell.example,Friend\n');
  await expect(page.getByTestId('dry-run')).toContainText('Somebody new needs a name');
  await page.getByLabel('What who holds').selectOption({ label: 'name' });
  await expect(page.getByTestId('dry-run')).toContainText('1 new, 0 changed');
  await page.getByRole('button', { name: 'Take in 1 person' }).click();
  await expect(count(page)).toHaveText('73 of 73');
  await undo(page);
  await expect(count(page)).toHaveText('72 of 72');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'with a byte order mark' }).click();
  const stream = await (await download).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(chunk as Buffer);
  const csv = Buffer.concat(chunks).toString('utf8');
  expect(csv.startsWith('\ufeffname,mail address,level')).toBe(true);
  expect(csv.trim().split('\r\n')).toHaveLength(73);
});

test('names: renamed in place, their loss shown first, closed when gone, brought back', async ({
  page,
  browser,
}) => {
  const wren = await browserOf(browser, 'wren');
  await openDesk(page, '/desk/names');
  const name = page.getByLabel('Name of the group Dome crew');
  await name.fill('Dome hands');
  await name.press('Enter');
  await expect(page.getByLabel('Name of the group Dome hands')).toBeVisible();
  expect((await wren.page.goto('/crew'))?.status()).toBe(200);
  await undo(page);
  await page.getByLabel('Take Dome crew away').click();
  await expect(page.getByTestId('consequences')).toContainText('5 lose what they have');
  await expect(page.getByTestId('consequences')).toContainText(
    'The gate over Dome crew and everything below it',
  );
  await page.getByRole('button', { name: 'Take Dome crew away' }).last().click();
  await expect(page.getByLabel('Name of the group Dome crew')).toHaveCount(0);
  expect((await wren.page.goto('/crew'))?.status()).toBe(404);
  await undo(page);
  await expect(page.getByLabel('Name of the group Dome crew')).toBeVisible();
  expect((await wren.page.goto('/crew'))?.status()).toBe(200);
  await page.getByLabel('Name of a new role').fill('trustee');
  await page.getByLabel('Add the role').click();
  await expect(page.getByText('There is a role called “trustee” already.')).toBeVisible();
  await page.getByLabel('Change the field hours logged').click();
  await page.getByLabel('Type', { exact: true }).selectOption({ label: 'text' });
  await page.getByRole('button', { name: 'See what that does' }).click();
  await expect(page.getByTestId('consequences')).toContainText('nothing is lost');
  await expect(page.getByTestId('consequences')).toContainText('The gate over Keepers’ evening');
  await page.getByRole('button', { name: 'Leave it', exact: true }).click();
  await wren.context.close();
});

test('audiences: overlaps, any intersection, uses, no cycles, no removal while used', async ({ page }) => {
  await openDesk(page, '/desk/audiences');
  await page.getByRole('button', { name: 'In both Crew ready for the dome and Optics ready: 2' }).click();
  await expect(page.getByTestId('intersection')).toContainText('2 members');
  await expect(page.getByTestId('intersection')).toContainText('Ines Calloway');
  await page.getByRole('button', { name: 'Busy hands: either' }).click();
  await page.getByRole('button', { name: 'Busy hands: in' }).click();
  await expect(page.getByTestId('intersection')).toContainText('are not in the audience Busy hands');

  await page.getByRole('button', { name: 'Crew ready for the dome, 3 people' }).click();
  await expect(bench(page).getByText('The audience Optics ready')).toBeVisible();
  await bench(page).getByRole('button', { name: 'Remove' }).click();
  await expect(bench(page).getByText('is used, so it can’t be removed')).toBeVisible();
  await bench(page).getByRole('radio', { name: 'Text' }).click();
  await bench(page).getByLabel('The condition as text').fill('audience "Optics ready"');
  await expect(
    bench(page).getByText(/made of itself: Crew ready for the dome → Optics ready → Crew ready for the dome/),
  ).toBeVisible();
  await page.getByRole('banner').getByRole('button', { name: 'Undo' }).click();
  await saved(page);

  const name = bench(page).getByLabel('Name', { exact: true });
  await name.fill('Partners');
  await expect(bench(page).getByText('There is an audience called “Partners” already.')).toBeVisible();
  await name.fill('Ready for the dome');
  await saved(page);
  await expect(page.getByRole('banner').getByRole('button', { name: 'Put 1 change live' })).toBeVisible();
  await bench(page).getByRole('button', { name: 'Show these people' }).click();
  await expect(page.getByLabel('Who, as a condition')).toHaveValue('audience "Ready for the dome"');
  await expect(count(page)).toHaveText('3 of 72');
  await dropDraft(page);
});

test('the new data routes are for administrators, and say what is wrong', async ({ page, browser }) => {
  const priya = await browserOf(browser, 'priya');
  for (const [method, path] of [
    ['get', 'site'],
    ['get', 'names'],
    ['get', 'people/ines'],
    ['get', 'people/csv'],
    ['post', 'people'],
    ['post', 'people/change'],
    ['post', 'people/csv'],
    ['post', 'people/undo'],
    ['post', 'audiences'],
    ['put', 'people/ines'],
  ] as const) {
    const answer = await priya.request[method](`/desk/api/${path}`, method === 'get' ? {} : { data: {} });
    expect([path, answer.status()]).toEqual([path, 403]);
    expect(await answer.text()).not.toContain('larkfell.example');
  }
  await priya.context.close();
  await signIn(page, 'greta', '/desk');
  const post = (path: string, data: unknown) => page.request.post(`/desk/api/${path}`, { data });
  expect((await post('people', { condition: 'x'.repeat(1_000_000) })).status()).toBe(422);
  expect((await post('people', { condition: '('.repeat(10_000) })).status()).toBe(422);
  expect((await post('people/change', { who: 'all' })).status()).toBe(422);
  expect((await post('names', { kind: 'explode' })).status()).toBe(422);
  expect((await page.request.get('/desk/api/people/nobody')).status()).toBe(404);
  expect((await page.request.get('/desk/nowhere')).status()).toBe(404);
});

for (const colorScheme of ['light', 'dark'] as const) {
  test(`axe finds nothing on the screens of people, names and audiences (${colorScheme})`, async ({
    browser,
  }) => {
    test.slow();
    const { context, page } = await browserOf(browser, 'greta', { colorScheme });
    const violations = (within?: string) => axe(page, colorScheme, within);
    const look = async (address: string, ready: () => Promise<void>) => {
      await page.goto(address);
      await alive(page);
      await ready();
      expect([address, await violations()]).toEqual([address, []]);
    };
    await look('/desk/people', () => expect(count(page)).toHaveText('72 of 72'));
    await look('/desk/people/ines', () =>
      expect(page.getByText(/^Closed: \d+ of 57 pages, posts and activities/)).toBeVisible(),
    );
    await look('/desk/names', () => expect(page.getByText('used 3×').first()).toBeVisible());
    await look('/desk/audiences?audience=ready-crew', () =>
      expect(page.getByTestId('passing')).toContainText('are in it'),
    );
    await page.getByRole('complementary').getByRole('radio', { name: 'Text' }).click();
    await page.getByLabel('The condition as text').fill('in grup ');
    expect(await violations('aside')).toEqual([]);
    await context.close();
  });
}
