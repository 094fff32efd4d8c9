/** A course from its first title to the learner who is done with it, and what somebody else sees of it. */
import { alive, dropDraft, openDesk, putLive } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

const COURSE = '/courses/dome-operator-induction';

test('a course is written, paced by a switch, put on the site, and done by a learner', async ({
  page,
  browser,
}) => {
  test.slow();
  await openDesk(page, '/desk/site');
  await page.getByRole('button', { name: 'New course' }).click();
  await page.getByLabel('Title of the new course').fill('Mirror making');
  await page.getByRole('button', { name: 'Make it' }).click();
  const parts = page.getByRole('region', { name: 'Units and activities' });
  await parts.getByLabel('Title of the new unit').fill('Grinding');
  await page.keyboard.press('Enter');
  const add = parts.getByLabel('Title of the new activity in Grinding');
  for (const title of ['Rough', 'Fine']) {
    await add.fill(title);
    await page.keyboard.press('Enter');
    await expect(parts.getByRole('button', { name: `${title} reading` })).toBeVisible();
    await expect(add).toHaveValue('');
  }
  await parts.getByLabel('Title of the new unit').fill('Silvering');
  await parts.getByRole('button', { name: 'New unit' }).click();
  await parts.getByLabel('Title of the new activity in Silvering').fill('Cold bath');
  await page.keyboard.press('Enter');
  await expect(parts.getByRole('button', { name: 'Cold bath reading' })).toBeVisible();
  // What a new activity is under shows at once.
  await parts.getByLabel('Grinding: one after the other').check();
  await expect(parts.getByTitle('1 gate from above').first()).toBeVisible();
  await parts.getByLabel(/^One unit a week after enrolling/).check();
  await page.getByRole('banner').getByRole('button', { name: 'Put 2 changes live' }).click();
  await putLive(page);

  await page.goto('/desk/site');
  await alive(page);
  const tree = page.getByRole('region', { name: 'Courses' });
  for (const title of ['Mirror making', 'Rough', 'Fine', 'Cold bath']) {
    await tree.getByRole('button', { name: new RegExp(`^${title}`) }).click();
    await page.getByRole('checkbox', { name: /^Published/ }).check();
    await page.getByRole('button', { name: 'Put it on the site' }).click();
    await expect(page.getByTestId('kept')).toHaveText('As it is on the site');
  }

  await page.goto('/desk/learners');
  await page.getByLabel('Course').selectOption({ label: 'Mirror making' });
  await page.getByRole('button', { name: 'Enrol …' }).click();
  await page.getByLabel('Mail addresses').fill('wren@larkfell.example\nmarek@larkfell.example');
  await page.getByRole('button', { name: 'See who that is' }).click();
  await page.getByRole('button', { name: 'Enrol 2 people' }).click();

  const wren = await browserOf(browser, 'wren');
  await wren.page.goto('/mirror-making');
  await expect(wren.page.getByText('0 of 2 done')).toBeVisible();
  await expect(wren.page.getByText('Fine', { exact: true })).not.toHaveRole('link');
  await wren.page.getByRole('link', { name: 'Begin: Rough' }).click();
  await wren.page.getByRole('button', { name: 'I have read this' }).click();
  await expect(wren.page.getByText('You are done with this.')).toBeVisible();
  await wren.page.getByRole('link', { name: /Next Fine/ }).click();
  await wren.page.getByRole('button', { name: 'I have read this' }).click();
  await wren.page.goto('/mirror-making');
  await expect(wren.page.getByText('2 of 2 done')).toBeVisible();
  await wren.context.close();

  // The other's row says why something is closed to them, today and on another day.
  const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  await page.getByRole('button', { name: /^Marek Dunmore 0 of 3/ }).click();
  const panel = page.getByRole('complementary');
  const line = (title: RegExp) => panel.getByRole('listitem').filter({ hasText: title });
  await expect(line(/^Fine/)).toContainText('completed the activity before it');
  await expect(line(/^Cold bath/)).toContainText(/enrolled in Mirror making .*7 days/);
  await page.getByLabel('The day for which it is worked out').fill(inDays(8));
  await expect(line(/^Cold bath/)).toContainText('Not begun');
  await expect(line(/^Fine/)).toContainText('completed the activity before it');
  await expect(page.getByRole('button', { name: /^Wren Halloran 2 of 3/ })).toBeVisible();

  // And so does a walk with his eyes, now and in eight days.
  await page.goto('/desk');
  await alive(page);
  await page
    .getByRole('row', { name: /^Mirror making/ })
    .locator('[data-cell]')
    .nth(1)
    .click();
  await page.getByRole('button', { name: /^Walk there/ }).click();
  const site = page.frameLocator('iframe');
  await expect(site.getByRole('heading', { name: 'Silvering' })).toBeVisible();
  await expect(site.getByText('Cold bath')).toHaveCount(0);
  await page.getByTitle('When, from where and on what device').click();
  await page.getByLabel('Moment').fill(`${inDays(8)}T12:00`);
  await page.getByRole('button', { name: 'Walk like this' }).click();
  await expect(site.getByRole('link', { name: 'Cold bath' })).toBeVisible();

  // Somebody else's board cell says why it is closed, and what would open it.
  await page.goto('/desk');
  await alive(page);
  await page.getByRole('row', { name: /^Fine/ }).locator('[data-cell]').nth(1).click();
  await expect(panel.getByText(/Marek Dunmore finds .*Fine.* locked/).first()).toBeVisible();
  await expect(panel.getByText(/Complete Rough/i).first()).toBeVisible();

  await page.goto('/desk/site');
  await alive(page);
  await tree.getByRole('button', { name: /^Mirror making/ }).click();
  await page.getByRole('button', { name: 'Take it away …' }).click();
  await page.getByRole('button', { name: 'Take it away', exact: true }).click();
  await expect(tree.getByRole('button', { name: /^Mirror making/ })).toHaveCount(0);
  await dropDraft(page);
});

test('a course page is in order for axe, on a phone and without scripts', async ({ browser }) => {
  const { context, page } = await browserOf(browser, 'wren', {
    viewport: { width: 360, height: 740 },
    javaScriptEnabled: false,
  });
  for (const path of [COURSE, `${COURSE}/opening-words`, `${COURSE}/night-drill`]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
  await page.goto(COURSE);
  await expect(page.getByRole('link', { name: 'Go on: The words of opening' })).toBeVisible();
  await context.close();
  const wide = await browserOf(browser, 'wren');
  for (const path of [COURSE, `${COURSE}/red-light`, `${COURSE}/clean-hands`]) {
    await wide.page.goto(path);
    expect([path, await axe(wide.page, 'light')]).toEqual([path, []]);
  }
  await wide.context.close();
});
