import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isReserved, normaliseAddress, safeNext } from '.';

describe('normaliseAddress', () => {
  it.each([
    ['/', '/'],
    ['/Visit/', '/visit'],
    ['//observers///charts', '/observers/charts'],
    ['/observers/./charts/../booking', '/observers/booking'],
    ['/observers/%2e%2e/crew', '/crew'],
    ['/../../crew', '/crew'],
    ['/%63rew', '/crew'],
    ['/cafe%CC%81', '/café'],
  ])('reads %s as %s', (path, address) => expect(normaliseAddress(path)).toBe(address));

  it.each([
    '',
    'crew',
    '/%00',
    '/a%0ab',
    '/%zz',
    '/%ff',
    '/crew%2frota',
    '/crew\\rota',
    '/crew%5Crota',
    `/${'a'.repeat(10_000)}`,
  ])('finds no address in %j', (path) => expect(normaliseAddress(path)).toBeNull());

  it('decodes once: what was encoded twice is another address', () => {
    expect(normaliseAddress('/%2563rew')).toBe('/%63rew');
  });

  it('leaves nothing to climb out with, and is settled after one pass', () => {
    fc.assert(
      fc.property(fc.webPath(), (path) => {
        const address = normaliseAddress(path);
        if (address === null) return;
        expect(address.split('/')).not.toContain('..');
        if (!address.includes('%')) expect(normaliseAddress(address)).toBe(address);
      }),
    );
  });
});

describe('safeNext', () => {
  it.each([
    ['/observers/charts', '/observers/charts'],
    ['/tonight?hour=22&dome=2', '/tonight?hour=22&dome=2'],
    ['/café', '/caf%C3%A9'],
    ['/desk', '/desk'],
  ])('keeps %s', (next, kept) => expect(safeNext(next)).toBe(kept));

  it.each([
    undefined,
    null,
    '',
    '//elsewhere.example',
    '\\\\elsewhere.example',
    '/\\elsewhere.example',
    '/%5Celsewhere.example',
    '/\t/elsewhere.example',
    'javascript:alert(1)',
    'https://elsewhere.example',
    'elsewhere.example',
    '/sign-in?next=/crew',
    '/sign-out',
    ' /crew',
  ])('sends %j home', (next) => expect(safeNext(next)).toBe('/'));

  it('drops a query with anything odd in it', () => {
    expect(safeNext('/tonight?a=\r\nSet-Cookie: b')).toBe('/tonight');
  });

  it('always stays on this site', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.webUrl(),
          fc.string().map((s) => `/${s}`),
          fc.string().map((s) => `//${s}`),
        ),
        (next) => {
          expect(new URL(safeNext(next), 'http://here.example').origin).toBe('http://here.example');
          expect(safeNext(next)).toMatch(/^\/(?![/\\])/);
        },
      ),
      { numRuns: 2000 },
    );
  });
});

it('reserves Trivet’s own addresses', () => {
  const reserved = (path: string) => isReserved(normaliseAddress(path) ?? ('' as never));
  expect(reserved('/desk/people')).toBe(true);
  expect(reserved('/Sign-In')).toBe(true);
  expect(reserved('/desks')).toBe(false);
  expect(reserved('/')).toBe(false);
});
