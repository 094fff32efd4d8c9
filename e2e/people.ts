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

/** Signs somebody in without going through the page for it, which has stories of its own. */
export async function becomes(context: BrowserContext, who: string): Promise<void> {
  const form = { email: `${who}@larkfell.example`, password: PASSWORD };
  const answer = await context.request.post('/sign-in', { form, maxRedirects: 0 });
  if (answer.status() !== 303) throw new Error(`${who} can’t sign in: ${answer.status()}`);
}

/** A browser of their own for somebody who is signed in. */
export async function browserOf(
  browser: Browser,
  who: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<{ context: BrowserContext; page: Page; request: APIRequestContext }> {
  const context = await browser.newContext(options);
  await becomes(context, who);
  const page = await context.newPage();
  return { context, page, request: context.request };
}
