import { afterAll, beforeAll, expect, it } from 'vitest';
import { requestFactsOf, type Trivet } from '..';
import { now, openLarkfell } from '../testing';

let trivet: Trivet;

beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

const factsFor = (path: string, headers: Record<string, string> = {}, from = '10.1.2.3') =>
  requestFactsOf(
    trivet.state,
    {
      url: () => new URL(path, 'http://larkfell.example'),
      header: (name) => headers[name] ?? null,
      from: () => from,
    },
    now,
  );

it('knows the moment by the site’s own clock', () => {
  expect(factsFor('/')).toMatchObject({ today: '2026-11-20', minute: 20 * 60, weekday: 'Friday' });
});

it('reads parameters, the first of each name, and none that are inherited', () => {
  const { parameters } = factsFor('/?ref=a&ref=b&__proto__=x&empty=');
  expect(parameters).toMatchObject({ ref: 'a', empty: '' });
  expect(Object.hasOwn(parameters, 'toString')).toBe(false);
});

it.each([
  ['Mozilla/5.0 (X11; Linux x86_64; rv:120.0) Gecko/20100101', 'computer', 'gecko'],
  ['Mozilla/5.0 (Linux; Mobile) WebKit/537.36 (KHTML, like Gecko)', 'phone', 'blink'],
  ['Mozilla/5.0 (Tablet) WebKit/605.1.15 (KHTML, like Gecko)', 'tablet', 'webkit'],
  ['something else', 'computer', null],
  ['', null, null],
])('tells device and engine of “%s”', (agent, device, browser) => {
  expect(factsFor('/', { 'user-agent': agent })).toMatchObject({ device, browser });
});

it('orders languages by how much they are liked', () => {
  expect(factsFor('/', { 'accept-language': 'de;q=0.5, en-GB, fr;q=0, sv;q=0.9' }).languages).toEqual([
    'en-GB',
    'sv',
    'de',
  ]);
  expect(factsFor('/', { 'accept-language': '%%%' }).languages).toBeNull();
  expect(factsFor('/').languages).toBeNull();
});

it('takes what it can’t read for not known', () => {
  expect(factsFor('/', { referer: 'nonsense' }, 'unknown')).toMatchObject({
    referrer: null,
    network: null,
  });
  expect(factsFor('/', { referer: 'http://News.Example/a?b' }).referrer).toBe('news.example');
});
