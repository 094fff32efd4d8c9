/** Learners, as a tutor has them and as an owner does. */
import { openDesk } from './at-desk';
import { browserOf } from './people';
import { axe, expect, test } from './story';

test('a tutor sees why something is closed to a learner, on any day, marks, and reaches nothing else', async ({
  browser,
}) => {
  const edda = await browserOf(browser, 'edda');
  const { page, request } = edda;
  await page.goto('/desk');
  await expect(page).toHaveURL(/\/desk\/learners/);
  await page.getByLabel('Course').selectOption({ label: 'Dome operator induction' });
  await page.getByRole('button', { name: /^Wren Halloran/ }).click();
  const panel = page.getByRole('complementary');
  const drill = panel.getByRole('listitem').filter({ hasText: /^Night drill/ });
  await expect(drill).toContainText('completed the activity before it');
  await expect(drill).toContainText('complete “The words of opening”');
  expect(await axe(page)).toEqual([]);

  await panel.getByRole('button', { name: 'Mark as done: The words of opening' }).click();
  await panel.getByLabel('Score of The words of opening, in per cent').fill('90');
  await panel.getByRole('button', { name: 'Mark as done', exact: true }).click();
  await expect(panel.getByText(/^Done .*, 90 %$/)).toBeVisible();
  await expect(drill).toContainText('Not begun');
  await panel.getByRole('button', { name: 'Take back: The words of opening' }).click();
  await panel.getByRole('button', { name: 'Take back', exact: true }).click();
  await expect(panel.getByRole('alert')).toHaveText('Say why it is taken back: the learner may ask.');
  await panel.getByLabel('Why The words of opening is taken back').fill('It was somebody else.');
  await panel.getByRole('button', { name: 'Take back', exact: true }).click();
  await expect(drill).toContainText('completed the activity before it');

  await page.getByLabel('The day for which it is worked out').fill('2031-01-01');
  await expect(page).toHaveURL(/day=2031-01-01/);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Wren Halloran' })).toBeVisible();
  await page.getByRole('button', { name: 'Put in order by Night drill' }).click();
  await page.getByLabel('Name of a learner').fill('wren');
  await expect(page.getByTestId('learner-count')).toHaveText('1 learner');
  const csv = await request.get('/desk/api/courses/dome-induction/csv');
  expect(await csv.text()).toMatch(/^name,enrolled,until,completed,Ladder safety/);

  await page.goto('/desk/site');
  await expect(page).toHaveURL(/\/desk\/learners/);
  for (const path of ['site', 'draft', 'people/wren', 'site-file', 'items/first-opening-quiz'])
    expect([path, (await request.get(`/desk/api/${path}`)).status()]).toEqual([path, 403]);
  await edda.context.close();
});

test('people are enrolled by their mail addresses, or nobody is', async ({ page }) => {
  await openDesk(page, '/desk/learners?course=astrophotography');
  await page.getByRole('button', { name: 'Enrol …' }).click();
  const panel = page.getByRole('complementary');
  await panel.getByLabel('Mail addresses').fill('marek@larkfell.example\nnobody@larkfell.example');
  await panel.getByRole('button', { name: 'See who that is' }).click();
  await expect(panel.getByRole('alert')).toHaveText(
    'Line 2: nobody has the address nobody@larkfell.example.',
  );
  await panel.getByLabel('Mail addresses').fill('marek@larkfell.example\nlio@larkfell.example');
  await panel.getByRole('button', { name: 'See who that is' }).click();
  await expect(panel.getByRole('status')).toHaveText('Would enrol Marek Dunmore. Lio Farrow already is.');
  await panel.getByRole('button', { name: 'Enrol 1 person' }).click();
  await expect(page.getByRole('button', { name: /^Marek Dunmore/ })).toBeVisible();
  expect(await axe(page)).toEqual([]);
  // As it was before, for whoever comes next.
  await page.getByText('Enrolled in Astrophotography: 2 people').waitFor();
  const changes = await page.request.get('/desk/api/people/changes');
  const [last] = (await changes.json()) as { readonly id: string }[];
  await page.request.post('/desk/api/people/undo', {
    data: last?.id ?? '',
    headers: { origin: new URL(page.url()).origin },
  });
});
