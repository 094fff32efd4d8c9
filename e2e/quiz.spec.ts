/** A quiz from its first question to those who take it: with scripts, without, and on a phone. */
import { alive, openDesk } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

test('a quiz is written in place, taken with and without scripts, and told of as its author wants', async ({
  page,
  browser,
}) => {
  test.slow();
  await openDesk(page, '/desk/site?item=astrophotography');
  const parts = page.getByRole('region', { name: 'Units and activities' });
  await parts.getByLabel('Type of the new activity').first().selectOption('a quiz');
  await parts.getByLabel('Title of the new activity in Your first night').fill('Before you go out');
  await page.keyboard.press('Enter');
  await parts.getByRole('button', { name: 'Before you go out quiz' }).click();
  const quiz = page.getByRole('region', { name: 'Quiz' });
  const kept = page.getByTestId('kept');
  await page.getByRole('checkbox', { name: /^Published/ }).check();
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await expect(quiz.getByRole('alert')).toHaveText('It asks nothing yet. Add a question.');
  for (let count = 0; count < 2; count++) await quiz.getByRole('button', { name: '+ a question' }).click();
  const first = quiz.getByRole('region', { name: 'Question 1' });
  await first.getByLabel('What question 1 asks').fill('Which ring of the lens gets **tape**?');
  await first.getByLabel('answer of question 1: 1', { exact: true }).fill('The one that focuses');
  await first.getByLabel('answer of question 1: 2', { exact: true }).fill('The one that zooms');
  await first.getByLabel('answer of question 1: 2: what is said').fill('That one may stay as it is.');
  const second = quiz.getByRole('region', { name: 'Question 2' });
  await second.getByLabel('Kind of question 2').selectOption('a number');
  await second.getByLabel('The right number of question 2').fill('30');
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  // What is wrong is said where it is wrong.
  await expect(second.getByRole('alert')).toHaveText('Say what is asked.');
  await second.getByLabel('What question 2 asks').fill('How many seconds is one of the hundred pictures?');
  await page.getByRole('button', { name: 'Put it on the site' }).click();
  await expect(kept).toHaveText('As it is on the site');

  const lio = await browserOf(browser, 'lio');
  await lio.page.goto('/courses/astrophotography');
  await lio.page.getByRole('link', { name: 'Before you go out' }).click();
  await expect(lio.page.getByText('2 questions · no hurry · passed with 70 %')).toBeVisible();
  await lio.page.getByRole('link', { name: 'To the questions' }).click();
  await lio.page.getByRole('button', { name: 'Begin' }).click();
  await lio.page.getByLabel('The one that focuses').check();
  await lio.page.getByLabel('Answer to question 2').fill('half a minute');
  await expect(lio.page.getByText('Kept as you filled it in.')).toBeVisible();
  await lio.page.reload();
  await expect(lio.page.getByLabel('The one that focuses')).toBeChecked();
  await expect(lio.page.getByLabel('Answer to question 2')).toHaveValue('half a minute');
  await lio.page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(lio.page.getByRole('alert')).toHaveText('Write a number, like 12 or 12.5, and nothing else.');
  await lio.page.getByLabel('Answer to question 2').fill('30');
  await lio.page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(lio.page.getByText(/100 % passed/)).toBeVisible();
  expect(await axe(lio.page)).toEqual([]);
  await lio.page.goto('/courses/astrophotography');
  await expect(lio.page.getByRole('listitem').filter({ hasText: 'Before you go out' }).last()).toContainText(
    'done',
  );
  await lio.context.close();

  const wren = await browserOf(browser, 'wren', {
    viewport: { width: 360, height: 740 },
    javaScriptEnabled: false,
  });
  await wren.page.goto('/courses/astrophotography/before-you-go-out');
  await wren.page.getByRole('link', { name: 'To the questions' }).click();
  await wren.page.getByRole('button', { name: 'Begin' }).click();
  await wren.page.getByLabel('The one that zooms').check();
  await wren.page.getByRole('button', { name: 'Keep, and go on later' }).click();
  await expect(wren.page.getByRole('status').first()).toHaveText(/Your answers are kept/);
  await expect(wren.page.getByLabel('The one that zooms')).toBeChecked();
  await wren.page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(wren.page.getByRole('alert')).toHaveText('This has no answer yet.');
  const { scrollWidth, clientWidth } = await wren.page.evaluate(() => document.documentElement);
  expect(scrollWidth).toBe(clientWidth);
  await wren.page.getByRole('button', { name: 'Hand in as it is' }).click();
  await expect(wren.page.getByText(/0 % not passed/)).toBeVisible();
  await expect(wren.page.getByText('That one may stay as it is.')).toBeVisible();
  await wren.context.close();

  await page.goto('/desk/site?item=astrophotography');
  await alive(page);
  await parts.getByRole('button', { name: 'Before you go out quiz' }).click();
  await page.getByRole('button', { name: 'Take it away …' }).click();
  await page.getByRole('button', { name: 'Take it away', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Before you go out/ })).toHaveCount(0);
});

test('an attempt with its questions is in order for axe', async ({ page, browser }) => {
  await openDesk(page, '/desk/site?item=first-opening-quiz');
  await expect(page.getByRole('region', { name: 'Question 8' })).toBeVisible();
  expect(await axe(page)).toEqual([]);
  const ines = await browserOf(browser, 'ines');
  await ines.page.goto('/me/quiz/first-opening-quiz');
  const begin = ines.page.getByRole('button', { name: 'Begin' });
  if (await begin.isVisible()) await begin.click();
  await expect(ines.page.getByText(/\d+:\d\d left/)).toBeVisible();
  expect(await axe(ines.page)).toEqual([]);
  await ines.context.close();
});
