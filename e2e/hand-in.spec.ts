/** Handing something in and what becomes of it; a video that is watched. */
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { browserOf } from './people';
import { axe, expect, test } from './story';

const DOOR = '/me/hand-in/your-picture';

/** Takes back what a learner of Astrophotography is done with, as it was before, for whoever comes next. */
async function takeBack(page: Page, person: string, activity: string): Promise<void> {
  const answer = await page.request.post(`/desk/api/courses/astrophotography/learners/${person}`, {
    data: { activity, done: false, why: 'As it was before.' },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(answer.status()).toBe(200);
}

test('something is handed in on a phone without scripts, given back, handed in again, and accepted', async ({
  browser,
}) => {
  test.slow();
  const phone = { javaScriptEnabled: false, viewport: { width: 360, height: 740 } };
  const lio = await browserOf(browser, 'lio', phone);
  await lio.page.goto('/courses/astrophotography');
  await lio.page.getByRole('link', { name: 'Your picture, and how it came about' }).click();
  await lio.page.getByRole('link', { name: 'Hand in, and what became of it' }).click();
  await expect(lio.page.getByText('a text · up to 2 files · pictures and PDF · 8 MB each')).toBeVisible();
  await lio.page.getByLabel('What you want to hand in').fill('The double cluster, at last.');
  await lio.page
    .getByLabel('Files, at most 2')
    .setInputFiles({ name: 'notes.txt', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  const send = lio.page.getByRole('button', { name: /^Hand in/ });
  await send.click();
  await expect(lio.page.getByRole('alert')).toContainText(
    'notes.txt is none of what is taken here: pictures and PDF.',
  );
  await expect(lio.page.getByLabel('What you want to hand in')).toHaveValue('The double cluster, at last.');
  const background = { r: 20, g: 30, b: 90 };
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background } })
    .png()
    .toBuffer();
  await lio.page
    .getByLabel('Files, at most 2')
    .setInputFiles({ name: 'Double cluster.png', mimeType: 'image/png', buffer: picture });
  await send.click();
  await expect(lio.page.getByRole('status')).toContainText('It is handed in.');
  await expect(lio.page.getByRole('link', { name: 'double-cluster.webp' })).toBeVisible();

  const edda = await browserOf(browser, 'edda');
  await edda.page.goto('/desk/learners?course=astrophotography');
  await edda.page.getByRole('button', { name: /to look at$/ }).click();
  const panel = edda.page.getByRole('complementary');
  const work = panel.getByRole('listitem').filter({ hasText: 'The double cluster, at last.' });
  await expect(work.getByRole('link', { name: 'double-cluster.webp' })).toBeVisible();
  await work.getByRole('button', { name: 'Give back' }).click();
  await expect(work.getByRole('alert')).toHaveText('Say what is missing: they will read it.');
  await work.getByLabel(/^What you say to Lio Farrow/).fill('Which night was it?');
  expect(await axe(edda.page)).toEqual([]);
  await work.getByRole('button', { name: 'Give back' }).click();
  await expect(work).toHaveCount(0);

  await lio.page.goto(DOOR);
  await expect(lio.page.getByText('Which night was it?')).toBeVisible();
  await lio.page.getByLabel('What you want to hand in').fill('The double cluster, on the sixth.');
  await send.click();

  await edda.page
    .getByRole('button', { name: /^Lio Farrow/ })
    .first()
    .click();
  const again = panel.getByRole('group').filter({ hasText: 'The double cluster, on the sixth.' });
  await again.getByLabel(/^Score of Your picture/).fill('90');
  await again.getByRole('button', { name: 'Accept' }).click();
  await expect(panel.getByText(/^Done .*, 90 %$/)).toBeVisible();
  await lio.page.goto('/courses/astrophotography/your-picture');
  await expect(lio.page.getByText('You are done with this: 90 %.')).toBeVisible();
  await lio.page.getByRole('link', { name: 'What you handed in' }).click();
  await expect(lio.page.getByText(/accepted, 90 %/)).toBeVisible();
  await expect(send).toHaveCount(0);

  await takeBack(edda.page, 'lio', 'your-picture');
  await lio.context.close();
  await edda.context.close();
});

test('a video is done with once it was watched, and skipping to its end is not watching', async ({
  browser,
}) => {
  const lio = await browserOf(browser, 'lio');
  await lio.page.goto('/courses/astrophotography/watch-it-turn');
  const said = lio.page.getByRole('button', { name: 'I have watched this' });
  await expect(said).toBeVisible();
  const video = lio.page.locator('main video');
  const noted = lio.page.waitForResponse(/\/me\/played\//);
  await video.evaluate(async (one: HTMLVideoElement) => {
    one.muted = true;
    one.currentTime = one.duration - 0.4;
    await one.play();
  });
  expect((await noted).status()).toBe(204);
  await expect(said).toBeVisible();
  await video.evaluate(async (one: HTMLVideoElement) => {
    one.currentTime = 0;
    await one.play();
  });
  await expect(lio.page.getByRole('status')).toHaveText('You have watched this, and are done with it.');
  await lio.page.reload();
  await expect(lio.page.getByText('You are done with this.')).toBeVisible();
  expect(await axe(lio.page)).toEqual([]);
  await lio.page.goto(DOOR);
  expect(await axe(lio.page)).toEqual([]);
  const edda = await browserOf(browser, 'edda');
  await edda.page.goto('/desk/learners?course=astrophotography');
  await takeBack(edda.page, 'lio', 'watch-it-turn');
  await edda.context.close();
  await lio.context.close();
});
