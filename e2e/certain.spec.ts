/** What is certain: expectations that stop what would break them, findings that are set aside, kinds, what is ahead, questions. */
import type { Page } from '@playwright/test';
import { alive, benchTitle, cell, dropDraft, openDesk, putLive, saved } from './at-desk';
import { axe, expect, test } from './story';

const bench = (page: Page) => page.getByRole('complementary');
const found = (page: Page) => page.getByRole('region', { name: 'What was found' });
const expected = (page: Page) => page.getByRole('region', { name: 'What must stay so' });

test('a gate that lets suspended members in breaks what is expected, names them, and is mended at a click', async ({
  page,
}) => {
  await openDesk(page, '/desk?gate=observers-room');
  await bench(page)
    .getByRole('radio', { name: 'Members' })
    .or(bench(page).getByRole('button', { name: 'Members', exact: true }))
    .first()
    .click();
  const broken = bench(page).getByRole('list', { name: 'What would be broken' });
  await expect(broken).toContainText('People in Suspended can’t open Observers’ room');
  await expect(broken).toContainText('A member in Suspended can open Observers’ room');
  await expect(broken).toContainText('Basil Thorne');
  await expect(page.getByRole('button', { name: 'What is broken at Observers’ room' })).toBeVisible();
  await saved(page);
  // Whom it concerns is told of it on their page.
  await page.goto('/desk/people/basil');
  await expect(page.getByRole('region', { name: 'What was found of them' })).toContainText(
    'They get something else than is expected: People in Suspended can’t open Observers’ room',
  );
  expect(await axe(page)).toEqual([]);
  await page.goto('/desk?gate=observers-room');
  await alive(page);
  await page
    .getByRole('banner')
    .getByRole('button', { name: /^Put 1 change live$/ })
    .click();
  await expect(bench(page).getByRole('region', { name: 'What would be broken' })).toContainText('Suspended');
  const put = bench(page).getByRole('button', { name: /^Put 1 change live$/ });
  await expect(put).toBeDisabled();
  expect(await axe(page)).toEqual([]);
  // Whoever goes round the desk is stopped as well.
  const { draft, live } = await (await page.request.get('/desk/api/site')).json();
  const answer = await page.request.post('/desk/api/live', {
    data: { version: draft.version, revision: live.revision, note: '' },
  });
  expect(answer.status()).toBe(409);
  expect((await answer.json()).broken[0].instead).toContain('in Suspended can open');
  await page.goto('/desk?gate=observers-room');
  await alive(page);
  await bench(page).getByRole('button', { name: 'Bring back the gates that are live' }).click();
  await expect(bench(page).getByRole('list', { name: 'What would be broken' })).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole('banner').getByRole('button', { name: 'Nothing to put live' })).toBeVisible();
});

test('guests never see the crew’s pages: pinned from the board, read as text, put live', async ({ page }) => {
  await openDesk(page);
  for (const name of ['Dome crew', 'Rota', 'Handover'])
    await page
      .getByRole('checkbox', { name: `Mark ${name}`, exact: true })
      .first()
      .check();
  await page.getByRole('button', { name: 'Keep it so …' }).click();
  await page
    .getByRole('listbox')
    .getByRole('option', { name: /^Guest/ })
    .click();
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  const text = bench(page).getByRole('textbox', { name: 'The expectation as text' });
  await expect(text).toHaveValue('not signed in never sees branch "Dome crew"');
  await expect(bench(page)).toContainText('Nothing is shown of Dome crew and everything below it to guests.');
  await expect(bench(page)).toContainText(/Proved at \d+ items, for every visitor there could be/);
  // What can't be read changes nothing, and says where and why.
  await text.fill('not signed in never sees branch "Dome crow"');
  await text.press('Escape');
  await expect(page.getByTestId('condition-error')).toContainText('Did you mean “Dome crew”?');
  await text.fill('not signed in never sees branch "Hollin School"');
  await expect(bench(page).getByRole('status').first()).toContainText('A guest gets a message');
  await text.fill('not signed in never sees branch "Dome crew"');
  await expect(bench(page)).toContainText(/Proved at \d+ items/);
  expect(await axe(page)).toEqual([]);
  await saved(page);
  await page
    .getByRole('banner')
    .getByRole('button', { name: /^Put 1 change live$/ })
    .click();
  await expect(bench(page)).toContainText('New expectation: Nothing is shown of Dome crew');
  await putLive(page);
  await page.goto('/desk/findings');
  await alive(page);
  await expect(expected(page)).toContainText('Nothing is shown of Dome crew');
  await expected(page)
    .getByRole('button', { name: /Nothing is shown of Dome crew/ })
    .click();
  await bench(page).getByRole('button', { name: 'Remove' }).click();
  await saved(page);
  await page
    .getByRole('banner')
    .getByRole('button', { name: /^Put 1 change live$/ })
    .click();
  await putLive(page);
});

test('a new expectation is written with what could stand there, and one that is broken says who breaks it', async ({
  page,
}) => {
  await openDesk(page, '/desk/findings');
  await page.getByRole('button', { name: 'New expectation' }).click();
  const text = bench(page).getByRole('textbox', { name: 'The expectation as text' });
  await text.pressSequentially('level at least "Friend" opens "Observ');
  await expect(page.getByRole('listbox', { name: 'What could stand here' })).toContainText('Observers’ room');
  await text.press('Tab');
  await bench(page).getByRole('button', { name: 'Expect this' }).click();
  await expect(bench(page).getByRole('status').first()).toContainText(
    'A member at Friend level gets a teaser of Observers’ room',
  );
  await expect(bench(page).getByRole('region', { name: 'Whom it concerns' })).toContainText(
    /of 7\d members get something else/,
  );
  await bench(page).getByRole('button', { name: 'Put such a visitor on the board' }).click();
  await expect(benchTitle(page)).toHaveText('Breaks what is expected');
  await expect(cell(page, /^Observers’ room/, 3)).toHaveAttribute('data-outcome', 'teaser');
  await page
    .getByRole('columnheader', { name: /^Breaks what/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
  await dropDraft(page);
});

test('what was found is mended, or set aside with a reason until it changes', async ({ page }) => {
  await openDesk(page, '/desk/findings');
  await found(page)
    .getByRole('button', { name: /^Nobody ever comes to case 1/ })
    .click();
  await expect(bench(page)).toContainText('Posts in Kit reviews');
  await bench(page).getByRole('textbox', { name: 'Why it can stay as it is' }).fill('It is being rewritten.');
  await bench(page).getByRole('button', { name: 'Set it aside' }).click();
  await expect(bench(page)).toContainText('set this aside: “It is being rewritten.”');
  await expect(page.getByText('1 finding set aside')).toBeVisible();
  expect(await axe(page)).toEqual([]);
  await page.reload();
  await alive(page);
  await expect(page.getByText('1 finding set aside')).toBeVisible();
  await bench(page).getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByText('1 finding set aside')).toHaveCount(0);
  await bench(page).getByRole('button', { name: 'Take the case out' }).click();
  await expect(bench(page)).toContainText('That is no longer so');
  await found(page).getByText('by place').click();
  await expect(found(page)).toContainText('Names, audiences and products');
  await dropDraft(page);
});

test('what can’t be told is no “nothing”: the list says what is missing of it', async ({ page }) => {
  await page.route('**/desk/api/findings/today', (route) =>
    route.fulfill({ status: 500, json: { title: 'Something went wrong here.' } }),
  );
  await openDesk(page, '/desk/findings');
  await expect(found(page).getByRole('alert')).toHaveText(
    'What is found with the members there are can’t be told: Something went wrong here.',
  );
  expect(await axe(page)).toEqual([]);
  await page.unroute('**/desk/api/findings/today');
  await page.reload();
  await alive(page);
  await expect(found(page)).toContainText('Nothing uses the audiences');
  await expect(found(page)).not.toContainText('Looking at the members');
  await expect(found(page).getByRole('alert')).toHaveCount(0);
});

test('kinds of visitor go on the board, and a person’s page says of which they are', async ({ page }) => {
  await openDesk(page, '/desk/people/tobin');
  await page.getByRole('button', { name: /of (one|their) kind of visitor/i }).click();
  await expect(page).toHaveURL(/\/desk\/kinds\?person=tobin/);
  await expect(page.getByRole('heading', { name: 'Kinds of visitor', exact: true })).toBeVisible();
  await expect(page.getByText(/members are of \d+ kinds; there could be more than 1,000/)).toBeVisible();
  const rows = page.getByRole('main').getByRole('listitem');
  await expect(rows.first()).toContainText('Guests who do not know the passphrase');
  await rows.first().getByRole('button', { expanded: false }).first().click();
  await expect(rows.first()).toContainText('Nearest to it:');
  await page.getByRole('checkbox', { name: 'Choose: Members who have no level', exact: true }).check();
  expect(await axe(page)).toEqual([]);
  await page.getByRole('button', { name: 'Put 1 kind on the board' }).click();
  await expect(page.getByRole('columnheader', { name: /^Members who have no level/ })).toBeVisible();
  await page
    .getByRole('columnheader', { name: /^Members who have no level/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
});

test('what changes by itself is seen ahead, for everybody and for one', async ({ page }) => {
  await openDesk(page, '/desk/ahead');
  await page.getByText('180 days').click();
  await expect(page.getByRole('img', { name: /gain and lose something/ })).toBeVisible();
  const main = page.getByRole('main');
  await expect(main).toContainText('Gains');
  await main.getByText('by person').click();
  await main.getByText('by item').click();
  await expect(main).toContainText(/opens on \d+ /);
  expect(await axe(page)).toEqual([]);
  await page.getByRole('button', { name: 'One person …' }).click();
  await page.getByPlaceholder('Name or mail address').fill('Tobin');
  await page.getByRole('option', { name: /Tobin Aske/ }).click();
  await expect(page).toHaveURL(/person=tobin/);
  await expect(main).not.toContainText('Alba Garrow');
  await page.getByRole('button', { name: 'Everybody' }).click();
  await expect(page).not.toHaveURL(/person=/);
});

test('the palette answers by names: what somebody gets and why, and what one gets and another doesn’t', async ({
  page,
}) => {
  await openDesk(page);
  const ask = async (text: string) => {
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder(/A page, a person/).fill(text);
  };
  await ask('wren dome crew');
  await page.getByRole('option', { name: /^Wren Halloran can open Dome crew/ }).click();
  await expect(benchTitle(page)).toHaveText('Wren Halloran at Dome crew');
  await ask('what would open Trustees for Tobin');
  await page.getByRole('option', { name: 'What would open Trustees for Tobin Aske?' }).click();
  await expect(bench(page)).toContainText('What would open it');
  await ask('what does Tobin get that Marek');
  await page.getByRole('option', { name: /^What does Tobin Aske get that Marek Dunmore doesn’t/ }).click();
  await expect(page.getByRole('row', { name: /^Observers’ room/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Visit us/ })).toHaveCount(0);
  await ask('who opens rota');
  await page.getByRole('option', { name: 'Who opens Rota?' }).click();
  await expect(page.getByTestId('board-count')).toContainText(/of/);
  await page
    .getByRole('columnheader', { name: /^Wren Halloran/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
});

test('a cell is made what it should be: by the change with the smallest effect', async ({ page }) => {
  await openDesk(page);
  await cell(page, /^Trustees/, 2).click();
  await bench(page).getByRole('button', { name: 'It should be open' }).click();
  const make = bench(page).getByRole('region', { name: 'Make it so' });
  await make.getByLabel('For whom').selectOption({ label: 'people at Observer level or above' });
  await expect(make.getByRole('listitem').first()).toContainText(/\+\d+ members gain/);
  await make.getByLabel('For whom').selectOption({ index: 0 });
  await expect(make.getByRole('listitem').first()).toContainText('+1 member gains: Tobin Aske');
  expect(await axe(page)).toEqual([]);
  await make.getByRole('listitem').first().getByRole('button', { name: 'Take it into the draft' }).click();
  await expect(cell(page, /^Trustees/, 2)).toHaveAttribute('data-outcome', 'open');
  await cell(page, /^Trustees/, 2).click();
  await bench(page).getByRole('button', { name: 'It should be closed' }).click();
  await make.getByRole('button', { name: 'Take it into the draft' }).first().click();
  await expect(cell(page, /^Trustees/, 2)).not.toHaveAttribute('data-outcome', 'open');
  await dropDraft(page);
});

test('several cells are made so at once: by the gates, with what that would break, or by the people', async ({
  page,
}) => {
  await openDesk(page);
  for (const name of ['Dome crew', 'Rota'])
    await page
      .getByRole('checkbox', { name: `Mark ${name}`, exact: true })
      .first()
      .check();
  await page.getByRole('button', { name: 'Make it so …' }).click();
  await page
    .getByRole('listbox')
    .getByRole('option', { name: /^Marek/ })
    .click();
  await expect(benchTitle(page)).toHaveText('2 rows together');
  await bench(page).getByLabel('Tobin Aske').check();
  await expect(bench(page).getByRole('status')).toHaveText('Open at 0 of 4 cells');
  await bench(page).getByRole('radio', { name: 'Open', exact: true }).click();
  const make = bench(page).getByRole('region', { name: 'Make it so' });
  const first = make.getByRole('listitem').first();
  await expect(first).toContainText('+2 members gain: Marek Dunmore and Tobin Aske');
  await expect(first).toContainText(
    'Breaks what is expected: nobody but people in Dome crew can open Dome crew',
  );
  await make.getByLabel('For whom').selectOption({ label: 'members' });
  await expect(make.getByRole('listitem').first()).toContainText(/\+6\d members gain/);
  expect(await axe(page)).toEqual([]);
  // In the address, so that it is there again.
  await page.reload();
  await alive(page);
  await expect(bench(page).getByRole('status')).toHaveText('Open at 0 of 4 cells');
  await bench(page).getByRole('radio', { name: 'Open', exact: true }).click();
  const people = bench(page).getByRole('region', { name: 'By a change of the people' });
  await expect(people.getByRole('listitem')).toContainText(/Into Dome crew.*they gain .* 4 posts/);
  await people.getByRole('button', { name: 'Do it: Into Dome crew' }).click();
  await expect(bench(page).getByRole('status')).toHaveText('Open at 4 of 4 cells');
  await expect(bench(page)).toContainText('It is so already.');
  for (const column of [1, 2])
    await expect(cell(page, /^Rota/, column)).toHaveAttribute('data-outcome', 'open');
  // With somebody who is not on the site only the gates are left.
  await bench(page).getByLabel('Guest').check();
  await bench(page).getByRole('radio', { name: 'Closed', exact: true }).click();
  await expect(make.getByRole('listitem').first()).toContainText('2 members lose');
  await expect(people).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(bench(page).getByRole('status')).toHaveText('Open at 0 of 6 cells');
});

test('what would open something is done at once, seen on the board, and undone', async ({ page }) => {
  await openDesk(page);
  await cell(page, /^Dome crew/, 2).click();
  await bench(page).getByRole('button', { name: 'Do it: Join Dome crew' }).click();
  await expect(cell(page, /^Dome crew/, 2)).toHaveAttribute('data-outcome', 'open');
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(cell(page, /^Dome crew/, 2)).toHaveAttribute('data-outcome', 'missing');
});
