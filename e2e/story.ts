/** Stories with a browser. Each worker has a server of its own, with a site of its own, which stories leave as they found it. */
import AxeBuilder from '@axe-core/playwright';
import { test as base, type Page } from '@playwright/test';
import { PORTS } from '../playwright.config';

export { expect } from '@playwright/test';

export const test = base.extend({
  // biome-ignore lint/correctness/noEmptyPattern: what a fixture uses is read from its pattern.
  baseURL: async ({}, use, { parallelIndex }) => use(`http://localhost:${PORTS[parallelIndex]}`),
});

/** What axe finds on a page, or in a part of it; in the dark it is the colours alone that differ. */
export async function axe(
  page: Page,
  scheme: 'light' | 'dark' = 'light',
  within?: string,
): Promise<readonly unknown[]> {
  const builder = new AxeBuilder({ page }).exclude('iframe');
  if (within !== undefined) builder.include(within);
  if (scheme === 'dark') builder.withRules(['color-contrast']);
  const { violations } = await builder.analyze();
  return violations.map(({ id, nodes }) => [id, nodes.map((node) => node.html)]);
}
