/** From an empty folder to people who sign in, and on to another machine. */
import { alive } from './at-desk';
import { mailbox, type OwnSite, ownSite } from './own-site';
import { axe, expect, test } from './story';

const PASSWORD = 'under the stairs';

test('a site begins, its first page is written, somebody is invited and comes in, and all of it moves to another machine', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const mail = await mailbox();
  const sites: OwnSite[] = [];
  try {
    const first = await ownSite({ TRIVET_MAIL: mail.address, TRIVET_MAIL_FROM: 'site@hazel.example' });
    sites.push(first);
    const context = await browser.newContext();
    const page = await context.newPage();

    // Whoever has not got the address learns how one begins.
    await page.goto(first.origin);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Nothing is here yet');
    await page.goto(first.begin ?? '');
    expect(await axe(page)).toEqual([]);
    expect(await axe(page, 'dark')).toEqual([]);
    await page.setViewportSize({ width: 360, height: 740 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBe(0);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.getByLabel('A site file').check();
    await expect(page.getByLabel('What it is called')).toBeHidden();
    await page.getByLabel('A members’ society').check();
    await page.getByLabel('Your name').fill('Una Fairweather');
    await page.getByLabel('Mail address').fill('una@hazel.example');
    await page.getByRole('button', { name: 'Make the site' }).click();
    await expect(page.getByText('Give the site a name.')).toBeVisible();
    expect(await axe(page)).toEqual([]);
    await page.getByLabel('What it is called').fill('Hazelbarn');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Make the site' }).click();

    // The board is there, with a guest and oneself, and nothing is wrong.
    await alive(page);
    await expect(page.getByRole('columnheader', { name: /Una Fairweather/ })).toBeVisible();
    await page.goto(first.begin ?? '');
    await expect(page).toHaveURL(`${first.origin}/desk`);

    // The home page is the first step.
    await alive(page);
    const steps = page.getByRole('region', { name: 'First steps' });
    expect(await axe(page)).toEqual([]);
    await steps.getByRole('button', { name: 'Say on the first page what the site is' }).click();
    await expect(page).toHaveURL(/item=home$/);
    await page.getByLabel('Text of Opening words').fill('# Welcome to Hazelbarn\n\nWe meet in the barn.');
    await expect(page.getByTestId('kept')).toHaveText('Kept, not on the site yet');
    await page.getByRole('button', { name: 'Put it on the site' }).click();
    await expect(page.getByTestId('kept')).toHaveText('As it is on the site');
    const guest = await (await browser.newContext()).newPage();
    await guest.goto(first.origin);
    await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Welcome to Hazelbarn');

    // Its words and colours: what can't be read is not kept.
    await page.getByRole('link', { name: 'Board' }).click();
    await expect(steps.getByRole('button', { name: /what the site is\s*, done$/ })).toBeVisible();
    await steps.getByRole('button', { name: 'Give it its words and its colours' }).click();
    await page.getByLabel('At the foot of every page').fill('Hazelbarn, behind the mill. [Join us](/join)');
    await page.getByLabel('Where nothing is').fill('# Not here\n\nPerhaps in the barn.');
    await page.getByLabel('The band at the head, and buttons: in digits').fill('#5a2a6b');
    await page.getByLabel('Links: in digits').fill('#ffcc00');
    const keep = page.getByRole('button', { name: 'Keep these settings' });
    await keep.click();
    await expect(page.getByText(/has a contrast of 1\.\d to 1, and links need 4\.5/).first()).toBeVisible();
    expect(await axe(page)).toEqual([]);
    expect(await axe(page, 'dark')).toEqual([]);
    await page.getByRole('button', { name: /^Take #/ }).click();
    await keep.click();
    await expect(page.getByText('The settings are kept.')).toBeVisible();
    await guest.goto(`${first.origin}/nowhere`);
    await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Not here');
    await expect(guest.getByRole('contentinfo')).toContainText('Hazelbarn, behind the mill. Join us');
    await expect(guest.locator('header.night')).toHaveCSS('background-image', /rgb\(90, 42, 107\)/);
    expect(await axe(guest)).toEqual([]);

    // Somebody is written down, as a member, and invited.
    await page.goto(`${first.origin}/desk/people`);
    await page.getByRole('button', { name: 'New person' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Bram Oakley');
    await page.getByLabel('Mail address').fill('bram@hazel.example');
    await page
      .getByRole('button', { name: /^(Add|Save)/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Invite by mail' }).click();
    await expect(page.getByText('Invited Bram Oakley by mail.')).toBeVisible();
    await expect(page.getByText(/did not answer yet/)).toBeVisible();
    await page.getByRole('link', { name: 'People' }).first().click();
    await page.getByLabel('Choose Bram Oakley').check();
    await page.getByLabel('What to do').selectOption({ label: 'Set the level' });
    await page.getByRole('button', { name: 'Change 1 person' }).click();
    await expect(page.getByText('Invited, without an answer yet')).toBeVisible();

    // He reads his letter, and comes in.
    await expect.poll(() => mail.letters.length).toBe(1);
    const [link = ''] =
      /http:\/\/localhost:\d+\/sign-up\/invited\/[\w-]{43}/.exec(mail.letters[0] ?? '') ?? [];
    await guest.goto(link);
    expect(await axe(guest)).toEqual([]);
    await guest.getByLabel('Password').fill('a lamp at the gate');
    await guest.getByRole('button', { name: 'Come in' }).click();
    await guest.goto(`${first.origin}/members/handbook`);
    await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Handbook');
    await guest.goto(link);
    await expect(guest.getByRole('heading', { level: 1 })).toHaveText('This invitation is over');
    await page.goto(`${first.origin}/desk/outbox`);
    await expect(page.getByText(/^Sent /)).toBeVisible();

    // The site as a file, with people who can sign in, begins another.
    await page.goto(`${first.origin}/desk/settings`);
    await page.getByLabel(/^with people who can sign in/).check();
    const saving = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Save the site to a file' }).click();
    const file = await (await saving).path();
    const second = await ownSite();
    sites.push(second);
    const elsewhere = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await elsewhere.goto(second.begin ?? '');
    await elsewhere.getByLabel(/^A site file/).check();
    await elsewhere.locator('#file').setInputFiles(file);
    await elsewhere.getByLabel('Your name').fill('Una Fairweather');
    await elsewhere.getByLabel('Mail address').fill('una@hazel.example');
    await elsewhere.getByLabel('Password').fill(`${PASSWORD}, still`);
    await elsewhere.getByRole('button', { name: 'Make the site' }).click();
    await elsewhere.context().clearCookies();
    await elsewhere.goto(`${second.origin}/members/handbook`);
    await elsewhere.getByLabel('Mail address').fill('bram@hazel.example');
    await elsewhere.getByLabel('Password').fill('a lamp at the gate');
    await elsewhere.getByRole('main').getByRole('button', { name: 'Sign in' }).click();
    await expect(elsewhere.getByRole('heading', { level: 1 })).toHaveText('Handbook');
    await elsewhere.goto(second.origin);
    await expect(elsewhere.getByRole('heading', { level: 1 })).toHaveText('Welcome to Hazelbarn');
  } finally {
    for (const site of sites) await site.stop();
    await mail.close();
  }
});
