/** Signing in as the people of Larkfell. */
import type { APIRequestContext, Browser, BrowserContext, Page } from '@playwright/test';

const PASSWORD = 'larkfell-demo';

/** Fills in the sign-in form that the page shows. */
export async function fillSignIn(page: Page, who: string, password = PASSWORD): Promise<void> {
  await page.getByLabel('Mail address').fill(`${who}@larkfell.example`);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('main').getByRole('button', { name: 'Sign in' }).click();
}

/** Goes to an address as somebody, through the sign-in page. */
export async function signIn(page: Page, who: string, next = '/'): Promise<void> {
  await page.goto(`/sign-in?next=${encodeURIComponent(next)}`);
  await fillSignIn(page, who);
}

/** A browser of their own for somebody who is signed in. */
export async function browserOf(
  browser: Browser,
  who: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<{ context: BrowserContext; page: Page; request: APIRequestContext }> {
  const context = await browser.newContext(options);
  const page = await context.newPage();
  await signIn(page, who);
  return { context, page, request: context.request };
}
