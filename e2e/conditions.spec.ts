/** Writing conditions in the composer: by choices, by dragging, as text. */
import type { Page } from '@playwright/test';
import { alive, cell, dropDraft, openDesk, putLive, saved } from './at-desk';
import { expect, test } from './story';

const who = (page: Page) => page.getByRole('region', { name: 'Who' });
const asText = async (page: Page): Promise<string> => {
  await who(page).getByRole('radio', { name: 'Text' }).click();
  const text = await who(page).getByLabel('The condition as text').inputValue();
  await who(page).getByRole('radio', { name: 'Form' }).click();
  return text;
};
const fact = (page: Page, index: number, label: string) =>
  who(page).getByLabel('Fact').nth(index).selectOption({ label });

test('every condition of Larkfell’s gates can be made by choices alone', async ({ page }) => {
  await openDesk(page, '/desk?gate=trustees');
  const common = (name: string) => who(page).getByRole('radio', { name, exact: true }).click();
  const made = async (condition: string) => expect(await asText(page)).toBe(condition);

  // Join us
  await common('Guests');
  await who(page).getByRole('button', { name: 'Ask for more' }).click();
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 1, 'Level');
  await who(page).getByLabel('Comparison').selectOption({ label: 'no level' });
  await who(page).getByRole('radio', { name: 'any of these' }).click();
  await made('not signed in or level is not set');

  // Observers’ room
  await common('A level or above');
  await who(page).getByLabel('Level', { exact: true }).selectOption({ label: 'Observer' });
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await who(page).getByLabel('In group').selectOption({ label: 'Suspended' });
  await who(page).getByRole('button', { name: 'not', exact: true }).nth(1).click();
  await made('level at least "Observer" and not in group "Suspended"');

  // Partners
  await common('In a group');
  await who(page).getByLabel('In group').selectOption({ label: 'Hollin School' });
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 1, 'Role');
  await who(page).getByRole('radio', { name: 'any of these' }).click();
  await made('in group "Hollin School" or role "Trustee"');

  // Keepers’ evening
  await common('A level or above');
  await who(page).getByLabel('Level', { exact: true }).selectOption({ label: 'Keeper' });
  await who(page).getByLabel('Comparison').selectOption({ label: 'only' });
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 1, 'Hours logged');
  await who(page).getByLabel('Value').fill('100');
  await made('level exactly "Keeper" and profile "hours logged" at least 100');
  await expect(page.getByTestId('passing')).toContainText('4 of 72 members pass');

  // Comet night
  await common('Owners of …');
  await who(page).getByLabel('Which product').selectOption({ label: 'Comet night' });
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 1, 'Knows the passphrase');
  await who(page).getByRole('radio', { name: 'any of these' }).click();
  await made('owns "Comet night" or knows passphrase "Comet night by mail"');

  // Unattended opening, and the crew ready for the dome
  await common('In a group');
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 1, 'Dome certificate');
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 2, 'Certificate expires');
  await who(page).getByLabel('Comparison').nth(1).selectOption({ label: 'after' });
  await who(page).getByRole('button', { name: '+ a test' }).click();
  await fact(page, 3, 'Team');
  await made(
    'in group "Dome crew" and profile "dome certificate" is yes and profile "certificate expires" after today and profile team is "Optics"',
  );
  await dropDraft(page);
});

test('each type of fact has its own input', async ({ page }) => {
  await openDesk(page, '/desk?gate=trustees');
  const region = who(page);
  const made = async (condition: string) => expect(await asText(page)).toBe(condition);

  await fact(page, 0, 'Certificate expires');
  await region.getByLabel('Comparison').selectOption({ label: 'between' });
  await region.getByLabel('From: which day').selectOption({ label: 'the day' });
  await region.getByLabel('From', { exact: true }).fill('2026-12-01');
  await made('profile "certificate expires" between 2026-12-01 and today');

  await fact(page, 0, 'Team');
  await region.getByLabel('Comparison').selectOption({ label: 'is one of' });
  await region.getByRole('button', { name: 'Visits' }).click();
  await made('profile team is one of "Optics", "Visits"');

  await fact(page, 0, 'One person');
  await region.getByRole('button', { name: 'Choose a member' }).click();
  await page.getByPlaceholder('Name or mail address').fill('ines');
  await page.getByRole('option', { name: /Ines Calloway/ }).click();
  // The finder closes, and what is below it moves.
  await expect(page.getByPlaceholder('Name or mail address')).toHaveCount(0);
  await expect(region.getByRole('button', { name: 'Ines Calloway' }).first()).toBeVisible();
  await made('person is "ines@larkfell.example"');

  await fact(page, 0, 'Network address');
  await region.getByLabel('Add another').fill('10.0.0.0/99');
  await region.getByLabel('Add another').press('Enter');
  await expect(region.getByText('“10.0.0.0/99” is not a network.')).toBeVisible();
  await region.getByLabel('Add another').fill('2001:db8::/32');
  await region.getByLabel('Add another').press('Enter');
  await made('network in "10.0.0.0/8", "2001:db8::/32"');

  await fact(page, 0, 'Joined');
  await region.getByLabel('Days').fill('90');
  await made('joined at least 90 days ago');

  await fact(page, 0, 'Time of day');
  await made('time between 18:00 and 06:00');

  await fact(page, 0, 'Address parameter');
  await expect(page.getByText('is what the browser says, and can be made up')).toBeVisible();
  await fact(page, 0, 'Valley');
  await expect(page.getByText('asks a field that members fill in themselves')).toBeVisible();
  await fact(page, 0, 'In an audience');
  await region.getByLabel('Audience', { exact: true }).selectOption({ label: 'Optics ready' });
  await made('audience "Optics ready"');
  await expect(page.getByTestId('passing')).toContainText('2 of 72 members pass');
  await dropDraft(page);
});

test('text and form are one: mistakes in place, completion, nothing lost', async ({ page }) => {
  await openDesk(page, '/desk?gate=trustees');
  const region = who(page);
  await region.getByRole('radio', { name: 'With a role' }).focus();
  await page.keyboard.press('Alt+t');
  const text = region.getByLabel('The condition as text');
  await expect(text).toHaveValue('role "Trustee"');
  await text.fill('role "Trustee" or in group "Dome crwe"');
  await page.keyboard.press('Escape');
  await expect(region.getByTestId('condition-error')).toContainText(
    'Line 1, column 28: There is no group called “Dome crwe”. Did you mean “Dome crew”?',
  );
  // What can't be read changes nothing.
  await expect(page.getByTestId('passing')).toContainText('6 of 72 members pass');
  await text.fill('role "Trustee" or in gr');
  await expect(region.getByRole('option', { name: 'in group' })).toHaveCount(0);
  await text.press('Tab');
  await expect(text).toHaveValue(/role "Trustee" or in group $/);
  await text.pressSequentially('Dom');
  await text.press('Tab');
  await expect(text).toHaveValue('role "Trustee" or in group "Dome crew" ');
  await expect(page.getByTestId('passing')).toContainText('11 of 72 members pass');
  await page.keyboard.press('Escape');
  await region.getByRole('radio', { name: 'Form' }).click();
  await expect(region.getByLabel('In group')).toHaveValue('dome-crew');
  await region.getByRole('radio', { name: 'Text' }).click();
  await text.fill('(((');
  await page.keyboard.press('Escape');
  await expect(region.getByTestId('condition-error')).toContainText('The text ends too early.');
  await page.getByRole('banner').getByRole('button', { name: 'Undo' }).click();
  await expect(text).toHaveValue(/^role "Trustee"/);
  await dropDraft(page);
});

test('parts are dragged into groups, and moved by keyboard', async ({ page }) => {
  await openDesk(page, '/desk?gate=trustees');
  const region = who(page);
  await region.getByRole('radio', { name: 'Text' }).click();
  await region
    .getByLabel('The condition as text')
    .fill('role "Trustee" and (in group "Dome crew" or in group "Tarn Survey") and signed in');
  await page.keyboard.press('Escape');
  await region.getByRole('radio', { name: 'Form' }).click();
  const handle = region.getByRole('button', { name: 'Move this test' });
  await handle.first().scrollIntoViewIfNeeded();
  const from = await handle.first().boundingBox();
  const to = await handle.nth(2).boundingBox();
  if (!from || !to) throw new Error('no handles');
  await page.mouse.move(from.x + 5, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 5, from.y + 20, { steps: 4 });
  await page.mouse.move(to.x + 5, to.y + 2, { steps: 12 });
  await page.mouse.up();
  await expect
    .poll(() => asText(page))
    .toBe('(in group "Dome crew" or role "Trustee" or in group "Tarn Survey") and signed in');
  const last = region.getByRole('button', { name: 'Move this test' }).last();
  await last.focus();
  await page.keyboard.press('Space');
  await expect(last).toHaveAttribute('aria-pressed', 'true');
  // One arrow is one place, and each place is said: its own, the group's four, and then the one before the group.
  for (const place of ['2', '4 of the group', '3 of the group', '2 of the group', '1 of the group', '1']) {
    await page.keyboard.press('ArrowUp');
    await expect(page.getByRole('status').filter({ hasText: `Over place ${place}.` })).toBeAttached();
  }
  await page.keyboard.press('Space');
  await expect.poll(() => asText(page)).toMatch(/^signed in /);
  await saved(page);
  await dropDraft(page);
});

test('a gate that asks for a passphrase opens for who types it, without scripts', async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto('/comet-night');
  await expect(page).toHaveURL('/passphrase?next=%2Fcomet-night');
  await page.getByLabel('Passphrase').fill('open sesame');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('That is not a passphrase of this site.')).toBeVisible();
  expect(await page.content()).not.toContain('Come at nine');
  await page.getByLabel('Passphrase').fill('Bring a red torch');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page).toHaveURL('/comet-night');
  await expect(page.getByText('Come at nine.')).toBeVisible();
  // Signing in keeps what was typed.
  await page.getByRole('link', { name: 'Sign in' }).click();
  await page.getByLabel('Mail address').fill('marek@larkfell.example');
  await page.getByLabel('Password').fill('larkfell-demo');
  await page.getByRole('main').getByRole('button', { name: 'Sign in' }).click();
  await page.goto('/comet-night');
  await expect(page.getByText('Come at nine.')).toBeVisible();
  await context.close();
});

test('why tells which part of an audience failed, and what was met', async ({ page }) => {
  await openDesk(page, '/desk?gate=crew');
  await who(page).getByRole('radio', { name: 'An audience' }).click();
  await page.getByRole('button', { name: 'Add a visitor' }).click();
  await page.getByPlaceholder('Name or mail address').fill('halloran');
  await page.getByRole('option', { name: /Wren Halloran/ }).click();
  await cell(page, /^Rota/, 3).click();
  const why = page.getByRole('complementary');
  await expect(why.getByText('the audience Crew ready for the dome', { exact: true })).toBeVisible();
  await expect(why.getByText('“dome certificate” is yes · met: not filled in')).toBeVisible();
  await expect(why.getByText(/Have “dome certificate” yes and have “certificate expires”/)).toBeVisible();
  await dropDraft(page);
  await page
    .getByRole('columnheader', { name: /Wren Halloran/ })
    .getByRole('button')
    .click();
  await page.getByRole('menuitem', { name: 'Take off the board' }).click();
});

test('a gate that asks the request opens by what the request brings, and by nothing that is missing', async ({
  page,
  request,
}) => {
  await openDesk(page, '/desk?gate=trustees');
  await who(page).getByRole('radio', { name: 'Text' }).click();
  const write = async (condition: string) => {
    await who(page).getByLabel('The condition as text').fill(condition);
    await page.keyboard.press('Escape');
    await saved(page);
    await page
      .getByRole('banner')
      .getByRole('button', { name: /^Put \d changes? live$/ })
      .click();
    await putLive(page);
  };
  const status = async (address: string, headers: Record<string, string> = {}) =>
    (await request.get(address, { headers })).status();

  await write('parameter ref is "Lark" or (device is "phone" and language is one of "sv")');
  expect(await status('/trustees')).toBe(403);
  expect(await status('/trustees?ref=lark')).toBe(200);
  expect(await status('/trustees?ref=owl&ref=lark')).toBe(403);
  expect(await status('/trustees', { 'user-agent': 'Mobile', 'accept-language': 'sv-SE, en;q=0.5' })).toBe(
    200,
  );
  expect(await status('/trustees', { 'user-agent': 'Mobile', 'accept-language': '' })).toBe(403);
  // What depended on the request is nobody else's to keep.
  const answer = await request.get('/trustees?ref=lark');
  expect(answer.headers()['cache-control']).toBe('private, no-store');

  await page.goto('/desk?gate=trustees');
  await alive(page);
  await who(page).getByRole('radio', { name: 'Text' }).click();
  // A header of that name from outside does not count: the server says where a request came from.
  await write('network in "127.0.0.0/8", "::1" and not parameter ref is "x"');
  expect(await status('/trustees?ref=y', { 'x-trivet-from': '203.0.113.9' })).toBe(200);
  expect(await status('/trustees')).toBe(403);

  await page.goto('/desk?gate=trustees');
  await alive(page);
  await who(page).getByRole('radio', { name: 'Text' }).click();
  await write('role "Trustee"');
  expect(await status('/trustees?ref=lark')).toBe(403);
});
