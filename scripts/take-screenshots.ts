/** Takes one picture of each main view of a running demo. */
import { chromium, type Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { ownSite } from '../e2e/own-site';

const origin = `http://localhost:${process.argv[2]}`;
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});

async function pageOf(who: string | null, next: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  if (who === null) await page.goto(origin + next);
  else {
    await page.goto(`${origin}/sign-in?next=${encodeURIComponent(next)}`);
    await page.getByLabel('Mail address').fill(`${who}@larkfell.example`);
    await page.getByLabel('Password').fill('larkfell-demo');
    await page.getByRole('main').getByRole('button', { name: 'Sign in' }).click();
  }
  if (next.startsWith('/desk')) {
    await page.waitForFunction(() => performance.getEntriesByName('desk answers').length > 0);
  }
  return page;
}

async function shoot(page: Page, name: string): Promise<void> {
  for (const frame of page.frames()) await frame.evaluate(() => document.fonts.ready.then(() => undefined));
  // A video shows its first picture when it has one.
  await page.waitForFunction(() =>
    Array.from(document.querySelectorAll('video')).every(({ readyState }) => readyState >= 2),
  );
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
}

const cell = (page: Page, item: RegExp, column: number) =>
  page.getByRole('row', { name: item }).first().locator('[data-cell]').nth(column);
const bench = (page: Page) => page.getByRole('complementary');

const learner = await pageOf('wren', '/courses/dome-operator-induction');
await learner.getByRole('region', { name: 'What there is to do' }).evaluate((part) => {
  part.scrollIntoView({ block: 'start' });
  window.scrollBy(0, -60);
});
await shoot(learner, 'course');

const quiz = await pageOf('ines', '/me/quiz/first-opening-quiz');
await quiz.getByRole('button', { name: 'Begin' }).click();
const chosen = quiz.getByRole('radio').or(quiz.getByRole('checkbox'));
await chosen.nth(1).check();
await quiz.getByText('Kept as you filled it in.').waitFor({ state: 'attached' });
await quiz.evaluate(() => window.scrollTo(0, 130));
await shoot(quiz, 'quiz');

const learners = await pageOf('greta', '/desk/learners?course=dome-induction&person=wren');
await learners.getByRole('heading', { name: 'Wren Halloran' }).waitFor();
await shoot(learners, 'learners');

const letters = await pageOf('greta', '/desk/letters/invitation');
await letters.getByRole('region', { name: 'How it arrives' }).waitFor();
await shoot(letters, 'letters');

const kinds = await pageOf('greta', '/desk/kinds');
await kinds.getByText('Members who have no level').first().waitFor();
await shoot(kinds, 'kinds');

const ahead = await pageOf('greta', '/desk/ahead');
await ahead.getByText('Gains').first().waitFor();
await shoot(ahead, 'ahead');

// A gate that lets suspended members in breaks what is expected; it is brought back.
const findings = await pageOf('greta', '/desk?gate=observers-room');
await bench(findings).getByText('Members', { exact: true }).first().click();
await findings.getByText('Draft saved').waitFor();
await bench(findings)
  .getByRole('button', { name: /^An expectation is broken/ })
  .click();
await bench(findings).getByText('Basil Thorne').waitFor();
await shoot(findings, 'findings');
await bench(findings).getByRole('button', { name: 'Bring back the gates that are live' }).click();
await findings.getByRole('button', { name: 'Nothing to put live' }).waitFor();

const desk = await pageOf('greta', '/desk');
await desk.getByRole('button', { name: 'Add a visitor' }).click();
await desk.getByPlaceholder('Name or mail address').fill('wren');
await desk.getByRole('option', { name: /Wren Halloran/ }).click();
await cell(desk, /^Rota/, 3).hover();
await shoot(desk, 'board');

await cell(desk, /^Charts/, 1).click();
await shoot(desk, 'why');

await bench(desk)
  .getByRole('button', { name: /^Observers’ room/ })
  .click();
await bench(desk).getByLabel('Level', { exact: true }).selectOption({ label: 'Friend' });
await bench(desk).getByText('only in the draft').waitFor();
await desk.getByText('Draft saved').waitFor();
await shoot(desk, 'composer');

await desk.getByRole('banner').getByRole('button', { name: 'Put 1 change live' }).click();
await desk.getByTestId('effect').waitFor();
await desk
  .getByTitle(/^Put .* on the board$/)
  .first()
  .click();
await cell(desk, /^Charts/, 4).hover();
await shoot(desk, 'difference');

await cell(desk, /^Observers’ room/, 1).click();
await desk.getByRole('button', { name: /^Walk there/ }).click();
await desk.frameLocator('iframe').getByRole('heading', { level: 1 }).waitFor();
await shoot(desk, 'walk');

const person = await pageOf('greta', '/desk/people/wren');
await person.getByText(/^Closed: /).waitFor();
await shoot(person, 'person');

const writing = await pageOf('greta', '/desk/site?item=visit');
await writing.getByLabel('To whom it is shown').selectOption({ label: 'Tobin Aske' });
await writing.getByLabel('Text of Text').evaluate((area) => {
  area.scrollTop = area.scrollHeight;
});
await writing.frameLocator('iframe').getByText('The code of the lower gate').scrollIntoViewIfNeeded();
await shoot(writing, 'writing');

const areas = await pageOf('greta', '/desk/areas');
await areas.getByRole('button', { name: 'New areas' }).click();
await areas.getByLabel('Name', { exact: true }).fill('Moss Valley School');
const areaPeople = areas.getByRole('textbox', { name: /^Its people/ });
await areaPeople
  .first()
  .fill('Signe Ljung, signe@moss-valley.example\nElio Brandt, elio@moss-valley.example');
await areas.getByRole('button', { name: 'Another area' }).click();
await areas.getByLabel('Name 2').fill('Weir Bank School');
await areaPeople.last().fill('Noor Haddad, noor@weir-bank.example');
await areas.getByLabel('Each begins as').selectOption('hollin-school');
await areas.getByTestId('making').waitFor();
await areas.getByText('Make 2 areas').scrollIntoViewIfNeeded();
await shoot(areas, 'areas');

const newsletters = {
  'index.md':
    '# Newsletters\n\nWhat the society wrote before there was a site. [The first](1998/first.md).\n',
  '1998/first.md':
    '---\ntitle: The first letter\ndate: 1998-10-02\ntags: [history]\nauthor: Ilse Vernet\nlayout: wide\n---\n\nThe roof is on.\n',
  '1998/The long winter.html':
    '<title>Winter</title><main><h1>The long winter</h1><p>Nobody came up for <b>three weeks</b>.</p><form></form></main>',
  '1999/eclipse.md':
    '---\ntitle: Under the shadow\ndate: 1999-08-13\ntags: [eclipse, history]\n---\n\nSee [the pictures](../pictures.md).\n',
  '1999/accounts.md': '---\ntitle: The accounts of the year\ndraft: true\n---\n\nNot yet audited.\n',
  'scans.txt': 'Where the paper copies are.',
};
const taking = await pageOf('greta', '/desk/take-in');
await taking.getByLabel('Choose an archive').setInputFiles({
  name: 'newsletters.zip',
  mimeType: 'application/zip',
  buffer: Buffer.from(
    zipSync(Object.fromEntries(Object.entries(newsletters).map(([path, text]) => [path, strToU8(text)]))),
  ),
});
await taking.getByRole('button', { name: /^Take in \d/ }).waitFor();
await taking.getByLabel('Stands below').selectOption('observers');
await taking.getByText('/observers/newsletters', { exact: true }).waitFor();
await shoot(taking, 'take-in');

const buyer = await pageOf(null, '/shop/observer-pass?next=%2Ftonight');
await buyer.getByLabel('Your name').fill('Nell Arden');
await buyer.getByLabel('Your mail address').fill('nell@arden.example');
await buyer.getByRole('button', { name: 'Go on to pay' }).click();
await buyer.getByRole('button', { name: 'Pay 12.00 €' }).waitFor();
await buyer.getByLabel('a card that will be refused next time').check();
await buyer.getByRole('button', { name: 'Pay 12.00 €' }).click();
await buyer.getByRole('heading', { name: 'Tonight’s sky' }).waitFor();

const own = await ownSite();
const beginner = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await beginner.goto(own.begin ?? '');
await beginner.getByLabel('A members’ society').check();
await shoot(beginner, 'begin');
await own.stop();

const shop = await pageOf('greta', '/desk/shop?product=observer-pass');
await bench(shop).getByLabel('Level', { exact: true }).selectOption({ label: 'none' });
await bench(shop)
  .getByText(/^Closes .* to /)
  .first()
  .waitFor();
await shoot(shop, 'shop');

const sales = await pageOf('greta', '/desk/sales');
await sales.getByRole('button', { name: /^Nell Arden/ }).click();
await bench(sales).getByRole('button', { name: 'Give money back …' }).click();
await bench(sales).getByTestId('if-ended').waitFor();
await shoot(sales, 'sales');

await browser.close();
