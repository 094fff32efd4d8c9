import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rangeOf } from '@/core';
import { clientAddressBehind, NOBODYS } from './client-address';

const PROXIES = ['10.0.0.0/8', '127.0.0.1', '2001:db8:1::/48'].flatMap((one) => {
  const range = rangeOf(one);
  return range ? [range] : [];
});

const from = (remoteAddress: string, headers: Record<string, string | string[]> = {}, proxies = PROXIES) =>
  clientAddressBehind(proxies, { socket: { remoteAddress }, headers });

describe('whose request it is', () => {
  it('is said by the socket, whatever the request says, where no proxy is named or it is none of them', () => {
    const headers = { forwarded: 'for=192.0.2.1', 'x-forwarded-for': '192.0.2.2' };
    expect(from('198.51.100.7', headers)).toBe('198.51.100.7');
    expect(from('10.0.0.1', headers, [])).toBe('10.0.0.1');
    expect(from('11.0.0.1', { 'x-forwarded-for': '192.0.2.2' })).toBe('11.0.0.1');
  });

  it('is said by a proxy in either header, in any spelling', () => {
    for (const [headers, address] of [
      [{ 'x-forwarded-for': '192.0.2.1' }, '192.0.2.1'],
      [{ 'x-forwarded-for': '192.0.2.1:4711' }, '192.0.2.1'],
      [{ 'x-forwarded-for': '::ffff:192.0.2.1' }, '192.0.2.1'],
      [{ 'x-forwarded-for': ['203.0.113.9', '192.0.2.1'] }, '192.0.2.1'],
      [{ forwarded: 'for=192.0.2.1;proto=https;by=10.0.0.1' }, '192.0.2.1'],
      [{ forwarded: 'For="[2001:db8:cafe::17]:4711"' }, '2001:db8:cafe::17'],
      [{ forwarded: 'by="a,b;for=1.2.3.4";for=192.0.2.1' }, '192.0.2.1'],
      [{ forwarded: 'for=203.0.113.9, for="192.0.2.1:80" ; host=a' }, '192.0.2.1'],
    ] as const)
      expect(from('::ffff:127.0.0.1', headers as never)).toBe(address);
  });

  it('is the last hop that is no proxy: what stands before it anybody can make up', () => {
    expect(from('127.0.0.1', { 'x-forwarded-for': '10.9.9.9, 192.0.2.1, 10.0.0.3' })).toBe('192.0.2.1');
    expect(from('2001:db8:1::2', { forwarded: 'for=1.1.1.1, for=192.0.2.1, for="[2001:db8:1::3]"' })).toBe(
      '192.0.2.1',
    );
    // Within one's own network the first hop is who asks.
    expect(from('127.0.0.1', { 'x-forwarded-for': '10.1.1.1, 10.0.0.3' })).toBe('10.1.1.1');
  });

  it('is nobody’s where a proxy says nothing, says it twice, or says what is no address', () => {
    for (const headers of [
      {},
      { forwarded: 'for=192.0.2.1', 'x-forwarded-for': '192.0.2.1' },
      { 'x-forwarded-for': '' },
      { 'x-forwarded-for': '192.0.2.1, unknown' },
      { 'x-forwarded-for': '192.0.2.1, 010.0.0.1' },
      { 'x-forwarded-for': Array.from({ length: 50 }, () => '10.0.0.1').join(',') },
      { forwarded: 'for=_hidden' },
      { forwarded: 'proto=https' },
      { forwarded: 'for=192.0.2.1;for=192.0.2.2' },
      { forwarded: 'for="192.0.2.1' },
    ])
      expect(from('127.0.0.1', headers as never)).toBe(NOBODYS);
  });

  it('can’t be made up: whatever stands before what the proxy wrote, and in the other header, changes nothing for the better', () => {
    const junk = fc.oneof(
      fc.string(),
      fc.constantFrom('10.0.0.1', 'for=10.0.0.1', '"', '", for=10.0.0.1', ',', ';', '\\', '[::1]'),
    );
    fc.assert(
      fc.property(fc.array(junk), fc.boolean(), (made, isNew) => {
        const header = isNew ? 'forwarded' : 'x-forwarded-for';
        const own = isNew ? 'for=192.0.2.1' : '192.0.2.1';
        // A proxy writes behind what was there.
        const text = [...made, own].join(', ');
        expect(['192.0.2.1', NOBODYS]).toContain(from('127.0.0.1', { [header]: text }));
      }),
      { numRuns: 2000 },
    );
  });
});
