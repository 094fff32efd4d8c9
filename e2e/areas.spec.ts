/** Three clients get a place of their own in one step: each arrives at theirs, and never learns of the others. */
import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { alive, dropDraft, openDesk, saved } from './at-desk';
import { mailbox, ownSite } from './own-site';
import { axe, expect, test } from './story';

const PASSWORD = 'under the stairs';

/** Runs one of our commands on a data folder; answers what it said. */
const command = async (script: string, folder: string, ...args: readonly string[]): Promise<string> => {
  const env = { ...process.env, NODE_ENV: 'production' as const, TRIVET_DATA: folder };
  return (await promisify(execFile)(process.execPath, ['--import', 'tsx', script, ...args], { env })).stdout;
};

test('areas for three clients are made, visited, handed over and taken back, backed up and brought back elsewhere', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const mail = await mailbox();
  const site = await ownSite({ TRIVET_MAIL: mail.address, TRIVET_MAIL_FROM: 'site@hazel.example' });
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(site.begin ?? '');
    await page.getByLabel('A place for clients').check();
    await page.getByLabel('What it is called').fill('Hazel & Co');
    await page.getByLabel('Your name').fill('Una Fairweather');
    await page.getByLabel('Mail address').fill('una@hazel.example');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Make the site' }).click();
    await alive(page);

    // What is there already are areas, and says what they lack.
    await page.getByRole('link', { name: 'Areas' }).click();
    const row = (name: string) => page.getByRole('row').filter({ hasText: name });
    await expect(row('First client')).toContainText('Nobody is in it.');
    await page.getByRole('button', { name: 'New areas' }).click();
    // A file from a spreadsheet that knows nothing of UTF-8.
    await page.getByRole('radio', { name: 'From a file' }).click();
    await page.getByLabel('A file of areas').setInputFiles({
      name: 'areas.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('area;name;mail\nÅrsta;Björn Öberg;bjorn@arsta.example', 'latin1'),
    });
    await expect(page.getByTestId('making')).toContainText('Björn Öberg');
    await page.getByRole('radio', { name: 'Typed' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Alder House');
    const people = (number: string) =>
      page.getByRole('textbox', { name: `Its people${number}`, exact: true });
    await people('').fill('Ada Berg, ada@alder.example\nnobody');
    await expect(page.getByText('Line 2: Write a name and a mail address')).toBeVisible();
    await people('').fill('Ada Berg, ada@alder.example\nAsta Berg <asta@alder.example>');
    await page.getByRole('button', { name: 'Another area' }).click();
    await page.getByLabel('Name 2').fill('first client');
    await expect(page.getByText('There is a group called “first client” already.')).toBeVisible();
    await page.getByLabel('Name 2').fill('Birch & Sons');
    await people(' 2').fill('cleo@birch.example');
    await page.getByRole('button', { name: 'Another area' }).click();
    await page.getByLabel('Name 3').fill('Cedar Works');
    const making = page.getByTestId('making');
    await expect(making).toContainText('6 pages · 3 private groups · 3 gates, live at once');
    await expect(making).toContainText('/clients/birch-and-sons');
    await expect(making).toContainText('Colleagues or people in Alder House');
    expect(await axe(page)).toEqual([]);
    expect(await axe(page, 'dark')).toEqual([]);
    await page.getByRole('button', { name: 'Make 3 areas' }).click();
    await expect(row('Alder House')).toContainText('2 invited');
    await expect(row('Cedar Works')).toContainText('Nobody is in it.');
    expect(await axe(page)).toEqual([]);

    // Ada reads her letter, chooses a password, and arrives where she belongs.
    await expect.poll(() => mail.letters.length).toBe(3);
    const letter = mail.letters.find((one) => one.includes('ada@alder.example')) ?? '';
    const [link = ''] = /http:\/\/localhost:\d+\/sign-up\/invited\/[\w-]{43}/.exec(letter) ?? [];
    const ada = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await ada.goto(link);
    await ada.getByLabel('Password').fill('a lamp at the gate');
    await ada.getByRole('button', { name: 'Come in' }).click();
    await expect(ada).toHaveURL(`${site.origin}/clients/alder-house`);
    await expect(ada.getByRole('heading', { level: 1 })).toHaveText('Alder House');
    await expect(ada.getByRole('navigation').getByText('Alder House')).toBeVisible();
    await expect(ada.getByText(/Birch|Cedar|First client/)).toHaveCount(0);
    expect((await ada.goto(`${site.origin}/clients/birch-and-sons`))?.status()).toBe(404);
    expect((await ada.goto(`${site.origin}/clients/birch-and-sons/papers`))?.status()).toBe(404);
    const guest = await (await browser.newContext()).newPage();
    expect((await guest.goto(`${site.origin}/clients/alder-house/papers`))?.status()).toBe(404);

    // The board and the pages are one step away.
    await row('Alder House').getByRole('button', { name: 'Alder House' }).click();
    await page.getByRole('button', { name: 'On the board' }).click();
    await expect(page.getByRole('rowheader', { name: /Alder House/ }).first()).toBeVisible();
    await expect(page.getByRole('rowheader', { name: /Birch/ })).toHaveCount(0);
    await page.goBack();

    // Another name, other people; and the way back from both.
    await page.getByLabel('Called').fill('Alder Hall');
    await page.getByRole('button', { name: 'Rename' }).click();
    await expect(page.getByRole('heading', { name: 'Alder Hall' })).toBeVisible();
    await page.getByLabel('Who has it').fill('Ada Berg, ada@alder.example\nGus Holm, gus@alder.example');
    await expect(page.getByTestId('comes-and-goes')).toHaveText('In comes Gus Holm. Out goes Asta Berg.');
    await page.getByRole('button', { name: 'Hand it over' }).click();
    await expect(page.getByLabel('Who has it')).toHaveValue(/Gus Holm/);
    await expect.poll(() => mail.letters.length).toBe(4);
    await page.getByRole('button', { name: 'Back to the areas' }).click();
    const lately = page.getByRole('complementary', { name: 'Workbench' }).getByRole('listitem');
    await expect(lately.first()).toContainText('Other people at Alder Hall');
    // The first step can't be taken back over what came after it.
    await lately.filter({ hasText: '3 new areas' }).getByRole('button', { name: 'Take back' }).click();
    await expect(page.getByText('“Alder Hall” was changed since. Nothing was taken back.')).toBeVisible();
    await lately.first().getByRole('button', { name: 'Take back' }).click();
    await expect(lately.first()).toContainText('Alder House is now called Alder Hall');
    await lately.first().getByRole('button', { name: 'Take back' }).click();
    await expect(row('Alder House')).toBeVisible();

    // Two go together, and come back.
    await page.getByLabel('Choose Birch & Sons').check();
    await page.getByLabel('Choose Cedar Works').check();
    await page.getByRole('button', { name: 'Take these 2 away …' }).click();
    await expect(page.getByText('4 pages go with all that is on them')).toBeVisible();
    await page.getByRole('button', { name: 'Take them away' }).click();
    await expect(row('Cedar Works')).toHaveCount(0);
    await lately.first().getByRole('button', { name: 'Take back' }).click();
    await expect(row('Cedar Works')).toBeVisible();

    // Two tabs: what was looked at before the other one made something is looked at again, and nothing typed is lost.
    const other = await page.context().newPage();
    const tabs = [page, other] as const;
    for (const [at, tab] of tabs.entries()) {
      await tab.goto(`${site.origin}/desk/areas?area=%2B`);
      await alive(tab);
      await tab.getByLabel('Name', { exact: true }).fill(`Dogwood ${at}`);
      await expect(tab.getByTestId('making')).toContainText(`Dogwood ${at}`);
    }
    for (const tab of tabs) await tab.getByRole('button', { name: 'Make 1 area' }).click();
    await expect(row('Dogwood 0')).toBeVisible();
    await expect(other.getByText('The site was changed meanwhile.')).toBeVisible();
    await expect(other.getByRole('row').filter({ hasText: 'Dogwood 0' })).toBeVisible();
    await other.getByRole('button', { name: 'Make 1 area' }).click();
    await expect(other.getByRole('row').filter({ hasText: 'Dogwood 1' })).toBeVisible();
    await other.close();
    await page.goto(`${site.origin}/desk/areas`);

    // All of it is what was live, and nothing waits to be put live.
    await expect(page.getByRole('button', { name: 'Nothing to put live' })).toBeVisible();
    await ada.goto(`${site.origin}/clients/alder-house/papers`);
    await expect(ada.getByRole('heading', { level: 1 })).toHaveText('Papers');
    // When she was there is known to the day, a few seconds later.
    await expect(async () => {
      await page.reload();
      await expect(row('Alder House')).toContainText(String(new Date().getFullYear()), { timeout: 2000 });
    }).toPass();

    // All of it is backed up while it is served, and is there on another machine, with whoever is signed in.
    const elsewhere = mkdtempSync(join(tmpdir(), 'trivet-elsewhere-'));
    const file = join(elsewhere, 'site.tar');
    expect(await command('scripts/backup.ts', site.folder, file)).toContain('holds everything');
    const folder = join(elsewhere, 'data');
    expect(await command('scripts/restore.ts', folder, file)).toContain('Hazel & Co is as it was on');
    const second = await ownSite({ TRIVET_DATA: folder });
    try {
      expect(second.begin).toBe(null);
      const visitor = await (await browser.newContext()).newPage();
      await visitor.goto(`${second.origin}/sign-in`);
      await visitor.getByLabel('Mail address').fill('ada@alder.example');
      await visitor.getByLabel('Password').fill('a lamp at the gate');
      await visitor.getByRole('main').getByRole('button', { name: 'Sign in' }).click();
      await expect(visitor).toHaveURL(`${second.origin}/clients/alder-house`);
      expect((await visitor.goto(`${second.origin}/clients/birch-and-sons`))?.status()).toBe(404);
    } finally {
      await second.stop();
      rmSync(elsewhere, { recursive: true, force: true });
    }
  } finally {
    await site.stop();
    await mail.close();
  }
});

test('what was gated by hand is an area, and says what it lacks', async ({ page }) => {
  await openDesk(page, '/desk/areas');
  const row = page.getByRole('row').filter({ hasText: 'Hollin School' });
  await expect(row).toContainText('Nothing expects that nobody else ever opens it.');
  await row.getByRole('button', { name: 'Hollin School' }).click();
  await page.getByRole('button', { name: 'Expect that nobody else ever opens it' }).click();
  await expect(page.getByText('The draft expects that nobody else ever opens it.')).toBeVisible();
  await saved(page);
  await page.getByRole('link', { name: 'Findings' }).click();
  await expect(
    page.getByRole('button', { name: /proved: Nobody but .* can open Hollin School/ }),
  ).toBeVisible();
  await dropDraft(page);
});
