/** What somebody has already becomes their site: a folder, then pages from the web, each looked at first and taken back in one step. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { alive } from './at-desk';
import { ownSite } from './own-site';
import { axe, expect, test } from './story';

/** A folder as somebody has it, with mistakes in it. */
async function oldFolder(): Promise<string> {
  const folder = join(mkdtempSync(join(tmpdir(), 'trivet-old-')), 'choir');
  const hall = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#567' } })
    .png()
    .toBuffer();
  const files: Readonly<Record<string, string | Buffer>> = {
    'index.md':
      '# The Hazel Choir\n\n[How to find us](visit/How%20to%20find%20us.md#by-train), and [news](blog/).\n',
    'visit/index.md': '---\ntitle: Visit us\nlayout: wide\n---\n\n![The hall](../pictures/hall.png)\n',
    'visit/How to find us.md': '# How to find us\n\n## By train\n\nThe slow one. [Gone](gone.md)\n',
    'blog/2026-05-01-first-concert.md': '# A first concert\n\nIt went well.\n',
    'members.html': '<title>M</title><main><h1>Members</h1><p>Who sings.</p><form><input></form></main>',
    'later.md': '---\ndraft: true\n---\n# Later\n',
    'hidden/broken.md': `${'['.repeat(20_000)}`,
    'pictures/hall.png': hall,
    'latin.md': Buffer.from('# Fjäll', 'latin1'),
  };
  for (const [path, bytes] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), bytes);
  }
  return folder;
}

/** A site on the web, of which one page never comes. */
async function oldWeb() {
  const origin = () => `http://localhost:${(server.address() as AddressInfo).port}`;
  const pages: Readonly<Record<string, string>> = {
    '/sheet/': '<main><h1>Sheet music</h1><a href="/sheet/Alto.html">Alto</a></main>',
    '/sheet/Alto.html': '<main><h1>Alto</h1><p>Low notes.</p></main>',
  };
  const server = createServer(({ url = '' }, response) => {
    if (url === '/slow') return;
    const named = url === '/all.xml' ? ['/sheet/', '/sheet/Alto.html', '/away'] : ['/slow'];
    const isMap = url.endsWith('.xml');
    response.setHeader('Content-Type', isMap ? 'application/xml' : 'text/html');
    if (!isMap && !pages[url]) response.statusCode = 404;
    response.end(
      isMap
        ? `<urlset>${named.map((one) => `<url><loc>${origin()}${one}</loc></url>`).join('')}</urlset>`
        : pages[url],
    );
  });
  await new Promise<void>((listening) => server.listen(0, listening));
  return {
    origin: origin(),
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}

test('a folder and a site on the web are taken in, looked at first, and taken back', async ({ browser }) => {
  test.setTimeout(180_000);
  const folder = await oldFolder();
  const web = await oldWeb();
  const site = await ownSite({ TRIVET_TAKE_IN_FROM: new URL(web.origin).host });
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(site.begin ?? '');
    await page.getByLabel('What you have already').check();
    await page.getByLabel('What it is called').fill('The Hazel Choir');
    await page.getByLabel('Your name').fill('Una Fairweather');
    await page.getByLabel('Mail address').fill('una@hazel.example');
    await page.getByLabel('Password').fill('under the stairs');
    await page.getByRole('button', { name: 'Make the site' }).click();
    await alive(page);
    await expect(page).toHaveURL(/\/desk\/take-in$/);
    expect(await axe(page)).toEqual([]);

    await page.getByLabel('Choose a folder').setInputFiles(folder);
    const comes = page.getByRole('list', { name: 'What comes' });
    const row = (text: string) => comes.getByRole('listitem').filter({ hasText: text }).first();
    await expect(row('Visit us')).toContainText('It also says layout: that is not kept.');
    await expect(row('How to find us')).toContainText('/visit/how-to-find-us');
    await expect(row('How to find us')).toContainText('also found at /visit/how to find us');
    await expect(row('Members')).toContainText('1 form was left out.');
    await expect(row('Fjäll')).toContainText('Latin-1');
    await expect(row('Later')).toContainText('nobody yet');
    await expect(row('Blog')).toContainText('made for the folder, empty');
    expect(await axe(page)).toEqual([]);
    expect(await axe(page, 'dark')).toEqual([]);
    await page.getByRole('radio', { name: 'Stays out (1)' }).click();
    await expect(page.getByRole('list', { name: 'Stays out' })).toContainText(/hidden\/broken\.md.*marks/s);
    // Nothing of it is on the site yet.
    const guest = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    expect((await guest.goto(`${site.origin}/visit`))?.status()).toBe(404);

    // It stays while one looks elsewhere, and comes as it is wished.
    await page.getByRole('link', { name: 'Board' }).click();
    await page.goBack();
    await page.getByLabel('Published at once').uncheck();
    await expect(row('Visit us')).toContainText('nobody yet');
    await page.getByLabel('Published at once').check();
    await expect(row('Visit us')).toContainText('everybody');
    await page.getByRole('button', { name: 'Take in 8 pages' }).click();
    await expect(page).toHaveURL(/\/desk\/site$/);
    await expect(page.getByLabel('What the site holds')).toContainText('How to find us');

    await guest.goto(site.origin);
    await guest.getByRole('link', { name: 'How to find us' }).click();
    await expect(guest).toHaveURL(/\/visit\/how-to-find-us#by-train$/);
    await expect(guest.locator('#by-train')).toHaveText('By train');
    await guest.goto(`${site.origin}/visit/How%20to%20find%20us`);
    await expect(guest).toHaveURL(/\/visit\/how-to-find-us$/);
    await guest.getByRole('navigation').getByRole('link', { name: 'Visit us' }).first().click();
    await expect(guest.getByRole('img', { name: 'The hall' })).toHaveJSProperty('naturalWidth', 300);
    expect((await guest.goto(`${site.origin}/later`))?.status()).toBe(404);
    await expect(page.getByLabel('How the site stands')).toContainText('leads to /visit/gone.md');

    // A site on the web, below a page; one that does not come is stopped, and so is what is not public.
    await page.getByRole('button', { name: 'Take in …' }).click();
    const from = async (sitemap: string) => {
      await page.getByRole('radio', { name: 'A site on the web' }).click();
      await page.getByLabel('Address of its sitemap').fill(sitemap);
      await page.getByRole('button', { name: 'Read it' }).click();
    };
    await from(`${site.origin}/sitemap.xml`);
    await expect(page.getByText('not on the public internet')).toBeVisible();
    await from(`${web.origin}/slow.xml`);
    await expect(page.getByRole('status')).toContainText('Reading pages: 0 of 1');
    await page.getByRole('button', { name: 'Stop' }).click();
    await from(`${web.origin}/all.xml`);
    await expect(row('Alto')).toContainText('also found at /sheet/alto.html');
    await page.getByLabel('Stands below').selectOption('Members');
    await expect(row('Sheet music')).toContainText('/members/sheet');
    await page.getByRole('button', { name: 'Take in 2 pages' }).click();
    await expect(page.getByLabel('What the site holds')).toContainText('Sheet music');
    await guest.goto(`${site.origin}/sheet/Alto.html`);
    await expect(guest).toHaveURL(/\/members\/sheet\/alto$/);

    // Back, in the order in which it came.
    await page.getByRole('button', { name: 'Take in …' }).click();
    const lately = (text: string) => page.getByRole('main').getByRole('listitem').filter({ hasText: text });
    await lately('from choir').getByRole('button', { name: 'Take back' }).click();
    await expect(page.getByText('came since. Nothing was taken back.')).toBeVisible();
    await lately('from localhost').getByRole('button', { name: 'Take back' }).click();
    await expect(lately('from localhost')).toHaveCount(0);
    await lately('from choir').getByRole('button', { name: 'Take back' }).click();
    await expect(lately('from choir')).toHaveCount(0);
    expect((await guest.goto(`${site.origin}/visit`))?.status()).toBe(404);
    await guest.goto(site.origin);
    await expect(guest.getByText('This is the home page.')).toBeVisible();
  } finally {
    await site.stop();
    web.close();
    rmSync(dirname(folder), { recursive: true });
  }
});
