/** Checking without a second browser: the board's filters and made-up visitors, two walks, the loop of a change, a file. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { alive, benchTitle, cell, dropDraft, openDesk, putLive, saved, show } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

const count = (page: Page) => page.getByTestId('board-count');

async function addVisitor(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a visitor' }).click();
  await page.getByPlaceholder('Name or mail address').fill(name);
  await page.getByRole('option', { name: new RegExp(name) }).click();
}

async function takeOff(page: Page, name: string): Promise<void> {
  await page
    .getByRole('columnheader', { name: new RegExp(`^${name}`) })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
}

test('why can’t Wren open the Keepers’ evening, and what would change that?', async ({ page }) => {
  await openDesk(page);
  await addVisitor(page, 'Wren Halloran');
  await page.getByRole('searchbox', { name: /title or address/ }).fill('keepers');
  await expect(count(page)).toContainText('1 of');
  await cell(page, /^Keepers’ evening/, 3).click();
  const why = page.getByRole('complementary');
  await expect(why.getByText('is at exactly Keeper level · met: Observer')).toBeVisible();
  await expect(why.getByText('Reach Keeper level and have “hours logged” at least 100')).toBeVisible();
  await why.getByRole('button', { name: /^Try it/ }).click();
  await expect(benchTitle(page)).toHaveText('Wren Halloran, tried');
  await expect(cell(page, /^Keepers’ evening/, 4)).toHaveAttribute('data-outcome', 'open');
  await page.getByLabel('Level', { exact: true }).selectOption({ label: 'Observer' });
  await expect(cell(page, /^Keepers’ evening/, 4)).toHaveAttribute('data-outcome', 'redirect');
  // What was chosen is kept, though the page goes at once; it may come a moment before that.
  await expect(async () => {
    await page.reload();
    await alive(page);
    await expect(count(page)).toContainText('1 of');
    await expect(cell(page, /^Keepers’ evening/, 4)).toHaveAttribute('data-outcome', 'redirect', {
      timeout: 3000,
    });
  }).toPass();
  await takeOff(page, 'Wren Halloran, tried');
  await takeOff(page, 'Wren Halloran');
});

test('the board shows what one does not get, where two differ, and a set of visitors by name', async ({
  page,
}) => {
  await openDesk(page);
  await page.getByLabel('Which visitor').selectOption({ label: 'Marek Dunmore' });
  await expect(page.getByLabel('What they get')).toHaveValue('not open');
  await expect(page.getByRole('row', { name: /^Observers’ room/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Visit us/ })).toHaveCount(0);
  await page.getByLabel('What they get').selectOption({ label: 'not the same as' });
  await page.getByLabel('The other visitor').selectOption({ label: 'Tobin Aske' });
  await expect(page.getByRole('row', { name: /^Observers’ room/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Trustees/ })).toHaveCount(0);
  await expect(page).toHaveURL(/gets=unlike/);
  await page.getByRole('searchbox', { name: /title or address/ }).fill('no such row');
  await expect(page.getByText('No row is like that.')).toBeVisible();
  await page.getByRole('button', { name: 'Show every row' }).click();
  await expect(page.getByRole('row', { name: /^Visit us/ })).toBeVisible();

  await page.getByRole('button', { name: 'Sets of visitors' }).click();
  await page.getByLabel('Name of the set').fill('The first three');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('3 visitors: Guest, Marek Dunmore, Tobin Aske')).toBeVisible();
  await page.keyboard.press('Escape');
  await takeOff(page, 'Tobin Aske');
  await expect(count(page)).toContainText('2 visitors');
  await page.getByRole('button', { name: 'Sets of visitors' }).click();
  await page.getByRole('button', { name: /^The first three/ }).click();
  await expect(count(page)).toContainText('3 visitors');
  await page.getByRole('button', { name: 'Sets of visitors' }).click();
  await page.getByRole('button', { name: 'Drop the set The first three' }).click();
  await expect(page.getByText('None yet.')).toBeVisible();
});

test('the board goes out as a table and on paper', async ({ page }) => {
  await openDesk(page);
  await page.getByRole('searchbox', { name: /title or address/ }).fill('trustees');
  await page.getByRole('button', { name: 'Take out' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /CSV/ }).click();
  const csv = readFileSync(await (await download).path(), 'utf8');
  expect(csv).toContain('Kind,Title,Address,Guest,Marek Dunmore,Tobin Aske\r\n');
  expect(csv).toContain('page,Trustees,/trustees,message,message,message\r\n');
  await page.getByRole('button', { name: 'Take out' }).click();
  await page.getByRole('menuitem', { name: 'These rows on paper' }).click();
  await expect(page.getByRole('row', { name: /Trustees \/trustees message message message/ })).toBeVisible();
  await page.goBack();
  await expect(cell(page, /^Trustees/, 0)).toBeVisible();
});

test('two walks side by side show what Odile gets that Marek doesn’t', async ({ page }) => {
  await openDesk(page);
  await addVisitor(page, 'Odile Marsh');
  await cell(page, /^Home/, 3).click();
  await page.getByRole('button', { name: /^Walk there/ }).click();
  await page.getByLabel('Side by side with').selectOption({ label: 'Marek Dunmore' });
  const beside = page.getByRole('complementary', { name: 'What was withheld' });
  await expect(
    beside.getByRole('heading', { name: 'Odile Marsh gets, Marek Dunmore doesn’t' }),
  ).toBeVisible();
  await expect(beside.getByText('The Sky diary, for its followers')).toBeVisible();
  await expect(page.getByText(/^\d+ things only here$/)).toHaveCount(2);
  const [odile, marek] = ['Odile Marsh', 'Marek Dunmore'].map((name) =>
    page.frameLocator(`iframe[title="The site as ${name} sees it"]`),
  );
  if (!odile || !marek) throw new Error('no frames');
  // In frames as narrow as these the menus are folded away, and what differs in them is seen at their button.
  await expect(marek.getByRole('button', { name: 'Menu' })).toHaveAttribute('data-differs', '');
  // One goes, and both go; Back leads both back.
  await odile.getByRole('button', { name: 'Menu' }).click();
  await odile.getByRole('link', { name: 'Visit', exact: true }).first().click();
  await expect(marek.getByRole('heading', { level: 1 })).toHaveText(/visit/i);
  await expect(page).toHaveURL(/at=%2Fvisit/);
  await page.goBack();
  await expect(marek.getByRole('heading', { level: 1 })).toHaveText(/dark hill/);
  await expect(odile.getByRole('heading', { level: 1 })).toHaveText(/dark hill/);
  // An address with parameters, another moment, and alone again.
  await page.getByLabel('Address on the site, with parameters').fill('/observers?from=mail');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('walk-line').first()).toContainText(
    'Odile Marsh gets a teaser of Observers’ room',
  );
  await page.getByRole('button', { name: /any device/ }).click();
  await page.getByLabel('Host of the page with the link').fill('https://news.example/');
  await page.getByRole('button', { name: 'Walk like this' }).click();
  await expect(page.getByText('Write the host alone, like news.example.').first()).toBeVisible();
  await page.getByLabel('Host of the page with the link').fill('news.example');
  await page.getByLabel('Device', { exact: true }).selectOption('phone');
  await page.getByRole('button', { name: 'Walk like this' }).click();
  await expect(page.getByRole('button', { name: /on a phone · from news\.example/ })).toBeVisible();
  await page.getByRole('button', { name: 'Leave' }).last().click();
  await expect(page.locator('iframe')).toHaveCount(1);
  expect(await axe(page)).toEqual([]);
  await page.goto('/desk');
  await alive(page);
  await takeOff(page, 'Odile Marsh');
});

test('change, difference, effect, live, and back again without leaving the desk', async ({ page }) => {
  await openDesk(page);
  await page
    .getByRole('row', { name: /^Trustees/ })
    .getByRole('button', { name: /^Gate, own/ })
    .click();
  await page.getByRole('radio', { name: 'Everyone' }).click();
  await expect(page.getByTestId('effect-line')).toContainText(/\+\d+ of 72 members gain/);
  await expect(page.getByTestId('effect-line')).toContainText('guests gain 1 page');
  await page.getByTestId('effect-line').click();
  await expect(cell(page, /^Trustees/, 0)).toHaveAttribute('data-changes', 'true');
  await page.getByLabel('What they get').selectOption({ label: 'something new' });
  await expect(count(page)).toContainText('1 of');
  await expect(page.getByRole('heading', { name: 'By gate' })).toBeVisible();
  await saved(page);
  await page.getByLabel('Note for the record').fill('Open doors');
  await putLive(page);
  await page.getByRole('link', { name: 'History' }).click();
  const detail = page.getByRole('region', { name: 'What it was' });
  await expect(detail.getByText('“Open doors”')).toBeVisible();
  await expect(detail.getByText('Everyone', { exact: true })).toBeVisible();
  expect(await axe(page)).toEqual([]);
  const revisions = page.getByRole('region', { name: 'Revisions' }).getByRole('button');
  await revisions.nth(1).click();
  await page.getByRole('button', { name: 'Bring back into the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Before it is live' })).toBeVisible();
  await saved(page);
  await putLive(page);
  await show(page, 'Live');
  await expect(cell(page, /^Trustees/, 0)).toHaveAttribute('data-outcome', 'message');
});

test('a person’s page says what was changed, when and why', async ({ page }) => {
  await openDesk(page, '/desk/people/jonah');
  await page.getByLabel('valley').fill('Upper Sett');
  await page.getByLabel('Why, for the record').fill('Told us at the gate');
  await page.getByRole('button', { name: 'Save' }).click();
  const changes = page.getByRole('region', { name: 'What was changed' });
  await expect(changes.getByText('“Told us at the gate”')).toBeVisible();
  await expect(changes.getByText('Upper Sett')).toBeVisible();
  await changes.getByRole('button', { name: 'Take back' }).first().click();
  await expect(changes.getByText('taken back').first()).toBeVisible();
});

test('the journal counts who was turned away, and the settings say what it keeps', async ({
  page,
  request,
}) => {
  for (let at = 0; at < 3; at++)
    await request.get('/keepers', { maxRedirects: 0, headers: { 'user-agent': `reader ${at}` } });
  await openDesk(page, '/desk/journal');
  const row = page.getByRole('row', { name: /^Keepers’ evening .* guests/ });
  await expect(row).toContainText('redirect');
  await expect(page.getByRole('img', { name: /Where visitors were turned away/ })).toBeVisible();
  expect(await axe(page)).toEqual([]);
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByLabel('Days that the journal keeps').fill('0');
  await page.getByRole('button', { name: 'Keep these settings' }).click();
  await expect(page.getByText('The journal keeps at least a day.')).toBeVisible();
  await page.getByLabel('Days that the journal keeps').fill('60');
  await page.getByRole('button', { name: 'Keep these settings' }).click();
  await expect(page.getByText('The settings are kept.')).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByText('Kept for 60 days.')).toBeVisible();
});

test('the site as a file: out, looked at, refused with the place, taken in', async ({ page }) => {
  await openDesk(page, '/desk/settings');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the site to a file' }).click();
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8'));
  const choose = (name: string, content: unknown) =>
    page.locator('input[type=file]').setInputFiles({
      name,
      mimeType: 'application/json',
      buffer: Buffer.from(typeof content === 'string' ? content : JSON.stringify(content)),
    });
  await choose('broken.json', '{ "format": ');
  await expect(page.getByText(/broken\.json is not JSON/)).toBeVisible();
  await choose('later.json', { ...file, version: 9 });
  await expect(page.getByText(/of version 9, and this Trivet reads version 1/)).toBeVisible();
  const rename = (title: string) => ({
    ...file,
    items: file.items.map((item: { id: string }) => (item.id === 'visit' ? { ...item, title } : item)),
  });
  await choose('renamed.json', rename('Come up the hill'));
  await expect(page.getByText('renamed.json would do this')).toBeVisible();
  await expect(page.getByText('Come up the hill (page)')).toBeVisible();
  await page.getByRole('button', { name: 'Take it in, and put it live' }).click();
  await expect(page.getByText('The file is taken in, all of it.')).toBeVisible();
  await page.getByRole('link', { name: 'Board' }).click();
  await expect(page.getByRole('row', { name: /^Come up the hill/ })).toBeVisible();
  await page.getByRole('link', { name: 'Settings' }).click();
  await choose('back.json', file);
  await page.getByRole('button', { name: 'Take it in, and put it live' }).click();
  await page.getByRole('link', { name: 'Board' }).click();
  await expect(page.getByRole('row', { name: /^Visit us/ })).toBeVisible();
});

test('a reader looks at everything and changes nothing', async ({ page, browser }) => {
  await openDesk(page, '/desk/people/priya');
  await page.getByLabel('Right at the desk').selectOption('reader');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Priya Lundqvist is saved.')).toBeVisible();
  const priya = await browserOf(browser, 'priya');
  await priya.page.goto('/desk');
  await alive(priya.page);
  await expect(priya.page.getByRole('link', { name: 'Settings' })).toHaveCount(0);
  await cell(priya.page, /^Observers’ room/, 0).click();
  await expect(priya.page.getByText('As it is in the draft')).toBeVisible();
  await expect(priya.page.getByRole('button', { name: 'Put a gate on Visit us' })).toHaveCount(0);
  await priya.page.goto('/desk?gate=trustees');
  await alive(priya.page);
  await priya.page.getByRole('radio', { name: 'Everyone' }).click();
  await expect(priya.page.getByText(/Gates are changed by owners and gatekeepers/)).toBeVisible();
  expect((await priya.request.get('/desk/api/site-file')).status()).toBe(403);
  expect((await priya.request.get('/desk/api/outbox')).status()).toBe(403);
  await priya.context.close();
  await page.getByLabel('Right at the desk').selectOption('none');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Priya Lundqvist is saved.').first()).toBeVisible();
});

test('five thousand rows are drawn a screenful at a time, and all of them can be searched', async ({
  page,
}) => {
  await openDesk(page);
  // The board of a larger site, as the server would send it.
  await page.route('**/desk/api/site', async (route) => {
    const answer = await route.fetch();
    const data = await answer.json();
    const many = Array.from({ length: 5000 }, (_, at) => ({
      id: `many-${at}`,
      kind: 'page',
      parent: 'site',
      rank: 1000 + at,
      title: `Many ${at}`,
      published: true,
      address: `/many/${at}`,
    }));
    await route.fulfill({ response: answer, json: { ...data, items: [...data.items, ...many] } });
  });
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(count(page)).toContainText('50');
  await expect(count(page)).toContainText(/^50\d\d items/);
  expect(await page.locator('[data-cell]').count()).toBeLessThan(400);
  await cell(page, /^Home/, 0).focus();
  await page.getByRole('searchbox', { name: /title or address/ }).fill('many 49');
  await expect(count(page)).toContainText(/^1\d\d of/);
  await page.getByRole('searchbox', { name: /title or address/ }).fill('');
  await page.getByTestId('board-scroller').evaluate((board) => board.scrollTo(0, board.scrollHeight));
  await expect(page.getByRole('row', { name: /Rose, forty minutes|\.webp|frame/i }).last()).toBeVisible();
  await dropDraft(page);
});

test('what is certain of a gate is said where it stands, mended there, and told before it is live', async ({
  page,
}) => {
  await openDesk(page);
  const { draft } = await (await page.request.get('/desk/api/draft')).json();
  const room = draft.policy.gates.find((gate: { id: string }) => gate.id === 'observers-room');
  const test = (fact: string, value?: string) => ({
    kind: 'test',
    fact,
    op: value ? 'includes' : 'is',
    ...(value && { value }),
  });
  const guests = { kind: 'not', of: test('signed in') };
  const gate = {
    ...room,
    id: 'only-suspended',
    who: test('group', 'suspended'),
    otherwise: {
      cases: [
        { when: guests, give: room.otherwise.last },
        { when: guests, give: room.otherwise.last },
      ],
      last: room.otherwise.last,
    },
  };
  const policy = { ...draft.policy, gates: [gate, ...draft.policy.gates] };
  await page.request.put('/desk/api/draft', { data: { version: draft.version, policy } });
  await page.reload();
  await alive(page);
  const bench = page.getByRole('complementary');
  // Said of both.
  await expect(bench.getByText(/^Nobody can pass this gate and the one that says/)).toHaveCount(2);
  await bench
    .getByRole('button', { name: /People in Suspended/ })
    .first()
    .click();
  const found = bench.getByRole('list', { name: 'Found' });
  await expect(found).toContainText('Nobody ever comes to case 2 of what the rest get');
  expect(await axe(page)).toEqual([]);
  await found.getByRole('button', { name: 'Take the case out' }).click();
  await expect(found).not.toContainText('case 2');
  await found.getByRole('button', { name: 'Show the other gate' }).click();
  await expect(bench.getByRole('list', { name: 'Found' })).toContainText('people in Suspended');
  await saved(page);
  await page.getByRole('button', { name: /^Put \d+ changes? live$/ }).click();
  await expect(bench.getByRole('region', { name: 'Found in the draft' })).toContainText(
    'can be opened by nobody',
  );
  await bench.getByRole('button', { name: 'Drop the draft' }).click();
  await saved(page);
  await expect(bench.getByText(/^Nobody can pass this gate/)).toHaveCount(0);
});
