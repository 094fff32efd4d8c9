/** How long the desk's board takes from its first byte until it answers, in a real browser. */
import { chromium } from '@playwright/test';
import { cookieOf } from './serve';

/** Milliseconds, the median of several visits with a cold cache. */
export async function benchBoard(port: number, visits = 5): Promise<number> {
  const [name = '', value = ''] = (await cookieOf(port, 'greta')).split('=');
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  });
  const times: number[] = [];
  try {
    for (let visit = 0; visit < visits; visit++) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      await context.addCookies([{ name, value, domain: 'localhost', path: '/' }]);
      const page = await context.newPage();
      await page.goto(`http://localhost:${port}/desk`);
      await page.waitForFunction(() => performance.getEntriesByName('desk answers').length > 0);
      times.push(
        await page.evaluate(() => {
          const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
          const [answers] = performance.getEntriesByName('desk answers');
          return (answers?.startTime ?? Number.NaN) - (navigation?.responseStart ?? Number.NaN);
        }),
      );
      await context.close();
    }
  } finally {
    await browser.close();
  }
  return times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN;
}
