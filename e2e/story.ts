/** Stories with a browser. Each worker has a server of its own, with a site of its own, which stories leave as they found it. */
import AxeBuilder from '@axe-core/playwright';
import { type APIRequestContext, test as base, type Page } from '@playwright/test';
import { PORTS } from '../playwright.config';

export { expect } from '@playwright/test';

export const test = base.extend<{ readonly board: undefined }, { readonly greta: APIRequestContext }>({
  // biome-ignore lint/correctness/noEmptyPattern: what a fixture uses is read from its pattern.
  baseURL: async ({}, use, { parallelIndex }) => use(`http://localhost:${PORTS[parallelIndex]}`),
  greta: [
    async ({ playwright }, use, { parallelIndex }) => {
      const greta = await playwright.request.newContext({
        baseURL: `http://localhost:${PORTS[parallelIndex]}`,
      });
      await use(greta);
      await greta.dispose();
    },
    { scope: 'worker' },
  ],
  /** Every story begins with a guest, Marek and Tobin on Greta's board, whoever was put there before. */
  board: [
    async ({ greta }, use) => {
      const put = () =>
        greta.put('/desk/api/board', { data: ['guest', { person: 'marek' }, { person: 'tobin' }] });
      if (!(await put()).ok()) {
        const form = { email: 'greta@larkfell.example', password: 'larkfell-demo' };
        await greta.post('/sign-in', { form });
        await put();
      }
      await use(undefined);
    },
    { auto: true },
  ],
});

/** What axe finds on a page, or in a part of it; in the dark it is the colours alone that differ. */
export async function axe(
  page: Page,
  scheme: 'light' | 'dark' = 'light',
  within?: string,
): Promise<readonly unknown[]> {
  // In the page itself, and without telling of what is in order: that is most of what there is to say.
  const builder = new AxeBuilder({ page })
    .setLegacyMode()
    .exclude('iframe')
    .options({ resultTypes: ['violations'] });
  if (within !== undefined) builder.include(within);
  if (scheme === 'dark') builder.withRules(['color-contrast']);
  const { violations } = await builder.analyze();
  return violations.map(({ id, nodes }) => [id, nodes.map((node) => node.html)]);
}
