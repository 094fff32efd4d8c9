/** A site that speaks German, with letters in its owner's words and another first page. */
import { alive } from './at-desk';
import { mailbox, ownSite } from './own-site';
import { axe, expect, test } from './story';

test('a site speaks German, its invitation is written at the desk and goes out so, and another page becomes its first', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const mail = await mailbox();
  const site = await ownSite({ TRIVET_MAIL: mail.address, TRIVET_MAIL_FROM: 'site@hazel.example' });
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(site.begin ?? '');
    await page.getByLabel('A members’ society').check();
    await page.getByLabel('What it is called').fill('Haselscheune');
    await page.getByLabel('Its language').selectOption('Deutsch');
    await page.getByLabel('Your name').fill('Una Fairweather');
    await page.getByLabel('Mail address').fill('una@hazel.example');
    await page.getByLabel('Password').fill('under the stairs');
    await page.getByRole('button', { name: 'Make the site' }).click();
    await alive(page);

    // A letter, in the language of the site as long as nobody says otherwise.
    await page.getByRole('link', { name: 'Outbox' }).click();
    await page.getByRole('button', { name: 'What letters say' }).click();
    await page.getByRole('button', { name: 'Invitation' }).click();
    await expect(page).toHaveURL(/\/desk\/letters\/invitation$/);
    const text = page.getByLabel('Text', { exact: true });
    const arrives = page.getByRole('region', { name: 'How it arrives' });
    await expect(text).toHaveValue(/ist ein Platz für Sie/);
    await expect(arrives).toContainText('Una Fairweather lädt Sie zu Haselscheune ein');
    expect(await axe(page)).toEqual([]);
    expect(await axe(page, 'dark')).toEqual([]);
    await text.fill('Liebe {name}, <b>hier</b> geht es hinein: {lnk}');
    await expect(page.getByText('There is no {lnk} in this letter.')).toBeVisible();
    const keep = page.getByRole('button', { name: 'Keep this letter' });
    await expect(keep).toBeDisabled();
    await text.fill('Liebe {name}, <b>hier</b> geht es hinein: ');
    await expect(page.getByText(/needs \{link\} \(where they choose a password\)/)).toBeVisible();
    await page.getByRole('button', { name: 'Put in {link}' }).click();
    await expect(text).toHaveValue(/hinein: \{link\}$/);
    await expect(arrives).toContainText(`Liebe Robin, <b>hier</b> geht es hinein: ${site.origin}/`);
    // What is not kept yet is there after a look at another letter, and at another screen.
    await page.getByRole('button', { name: 'Receipt' }).click();
    await expect(page.getByRole('heading', { name: 'Receipt' })).toBeVisible();
    await page.getByRole('link', { name: 'Board' }).click();
    await expect(page.getByRole('columnheader', { name: /Una Fairweather/ })).toBeVisible();
    await page.goBack();
    await page.getByRole('button', { name: /^Invitation\s*not kept yet/ }).click();
    await expect(text).toHaveValue(/hinein: \{link\}$/);

    // Another tab was quicker: both are shown, and nothing is lost.
    const other = await page.context().newPage();
    await other.goto(`${site.origin}/desk/letters/invitation`);
    await other.getByLabel('Subject').fill('Komm herein');
    await other.getByRole('button', { name: 'Keep this letter' }).click();
    await expect(other.getByText('The letter is kept.')).toBeVisible();
    await keep.click();
    await expect(page.getByText('Somebody else changed this letter meanwhile. It says now:')).toBeVisible();
    await page.getByRole('button', { name: 'Go on with mine' }).click();
    await page.getByLabel('Subject').fill('{site} wartet');
    await keep.click();
    await expect(page.getByText('The letter is kept.')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Invitation\s*in your own words/ })).toBeVisible();
    await page.getByRole('button', { name: 'Send me one to see' }).click();
    await expect.poll(() => mail.letters.length).toBe(1);
    expect(mail.letters[0]).toContain('una@hazel.example');

    // It goes out so, and whoever has it is met in German, without scripts as well.
    await page.goto(`${site.origin}/desk/people`);
    await page.getByRole('button', { name: 'New person' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Bram Oakley');
    await page.getByLabel('Mail address').fill('bram@hazel.example');
    await page
      .getByRole('button', { name: /^(Add|Save)/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Invite by mail' }).click();
    await expect.poll(() => mail.letters.length).toBe(2);
    const letter = mail.letters[1] ?? '';
    expect(letter).toContain('Subject: Haselscheune wartet');
    expect(letter).toContain('Liebe Bram Oakley, &lt;b&gt;hier&lt;/b&gt; geht es hinein');
    const [link = ''] = /http:\/\/localhost:\d+\/sign-up\/invited\/[\w-]{43}/.exec(letter) ?? [];
    const bram = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await bram.goto(link);
    await expect(bram.getByRole('heading', { level: 1 })).toHaveText(
      'Hier ist ein Platz für Sie, Bram Oakley',
    );
    await expect(bram.locator('html')).toHaveAttribute('lang', 'de');
    await bram.getByLabel(/^Passwort/).fill('kurz');
    await bram.getByRole('button', { name: 'Eintreten' }).click();
    await expect(bram.getByText('Ein Passwort hat mindestens 8 Zeichen.')).toBeVisible();
    await bram.getByLabel(/^Passwort/).fill('eine Lampe am Tor');
    await bram.getByRole('button', { name: 'Eintreten' }).click();
    await bram.goto(`${site.origin}/nirgends`);
    await expect(bram.getByRole('heading', { level: 1 })).toHaveText('Unter dieser Adresse ist nichts');

    // Another page is the first one, and whoever knows the old address comes to it.
    await page.goto(`${site.origin}/desk/settings`);
    const first = page.getByLabel('First page');
    await first.selectOption({ label: 'Handbook' });
    await expect(page.getByText('Guests don’t get “Handbook”: its gates stay as they are.')).toBeVisible();
    await first.selectOption({ label: 'Join us' });
    await expect(page.getByText('It moves from /join to /, and /join leads there.')).toBeVisible();
    expect(await axe(page)).toEqual([]);
    await page.getByRole('button', { name: 'Keep these settings' }).click();
    await expect(page.getByText('The settings are kept.')).toBeVisible();
    const guest = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await guest.goto(`${site.origin}/join`);
    await expect(guest).toHaveURL(`${site.origin}/`);
    await guest.goto(`${site.origin}/home`);
    await expect(guest.getByRole('heading', { level: 1 })).toBeVisible();
  } finally {
    await site.stop();
    await mail.close();
  }
});
