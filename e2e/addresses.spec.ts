/** Addresses as a program would send them, not tidied by a browser. */
import { get } from 'node:http';
import { expect, test } from './story';

interface Raw {
  readonly status: number;
  readonly body: string;
  readonly location: string | undefined;
}

const raw = (baseURL: string | undefined, path: string): Promise<Raw> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(baseURL ?? '');
    get({ hostname, port, path }, (response) => {
      let body = '';
      response.setEncoding('utf8');
      response.on('data', (part: string) => {
        body += part;
      });
      response.on('end', () => {
        resolve({ status: response.statusCode ?? 0, body, location: response.headers.location });
      });
    }).on('error', reject);
  });

test('whatever can’t be an address is a page that says so, and opens nothing', async ({ baseURL }) => {
  const never = await raw(baseURL, '/never-there');
  expect(never.body).toContain('There is nothing at this address');
  const paths = [
    '/crew/../crew',
    '/visit/%2e%2e/crew',
    '/%2e%2e/%2e%2e/crew/rota',
    '/crew%00',
    '/%00',
    '/%zz',
    '/%2563rew',
    '/crew%2frota',
    '/visit%5c..%5ccrew',
    '//crew//rota/',
    '/CREW',
    `/${'a'.repeat(10_000)}`,
    '/walk/made-up/crew',
    '/files/1/x',
    '/assets/../crew',
  ];
  for (const path of paths) expect({ path, ...(await raw(baseURL, path)) }).toEqual({ path, ...never });
});

test('an open page is reached by any spelling of its address', async ({ baseURL }) => {
  const canonical = await raw(baseURL, '/visit');
  for (const path of [
    '/Visit',
    '/visit/',
    '//visit',
    '/./visit',
    '/tonight/../visit',
    '/%76isit',
    '/visit?x=1',
  ]) {
    expect({ path, ...(await raw(baseURL, path)) }).toEqual({ path, ...canonical });
  }
});

test('a gated page is gated by any spelling of its address', async ({ baseURL }) => {
  for (const path of [
    '/Observers/Charts',
    '/observers/charts/',
    '//observers/charts',
    '/visit/../observers/charts',
  ]) {
    const response = await raw(baseURL, path);
    expect([path, response.status, response.location]).toEqual([
      path,
      303,
      '/sign-in?next=%2Fobservers%2Fcharts',
    ]);
  }
});

test('an address within the desk sends a guest to sign in, and its data routes refuse', async ({
  baseURL,
}) => {
  const desk = await raw(baseURL, '/desk');
  expect(desk.status).toBe(303);
  expect(desk.location).toMatch(/\/sign-in\?next=%2Fdesk$/);
  const data = await raw(baseURL, '/desk/api/draft');
  expect(data.status).toBe(401);
  expect(JSON.parse(data.body).title).toContain('Sign in again');
});
