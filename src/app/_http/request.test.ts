import { describe, expect, it } from 'vitest';
import { addressOf, fromThisSite, readForm, readText } from './request';

const post = (body: string, headers: Record<string, string> = {}) =>
  new Request('http://larkfell.example/sign-in', {
    method: 'POST',
    body,
    headers: { 'Content-Type': 'application/x-www-form-urlencoded', host: 'larkfell.example', ...headers },
  });

describe('a form', () => {
  it('is read field by field; a field sent twice is a list', async () => {
    expect(await readForm(post('email=a%40b&password=c+d&next='))).toEqual({
      email: 'a@b',
      password: 'c d',
      next: '',
    });
    expect(await readForm(post('email=a&email=b'))).toEqual({ email: ['a', 'b'] });
  });

  it('is nothing when it is another kind of body', async () => {
    expect(await readForm(post('{}', { 'Content-Type': 'application/json' }))).toBeNull();
    expect(await readForm(post('x', { 'Content-Type': 'multipart/form-data; boundary=x' }))).toBeNull();
  });

  it('is nothing when it is too large', async () => {
    expect(await readForm(post(`a=${'b'.repeat(20_000)}`))).toBeNull();
  });

  it('has no fields of its own making', async () => {
    const fields = await readForm(post('__proto__=a&constructor=b'));
    expect(fields && Object.keys(fields).sort()).toEqual(['__proto__', 'constructor']);
    expect(({} as Record<string, unknown>).a).toBeUndefined();
  });
});

describe('a body', () => {
  it('is read up to the limit, counted in bytes', async () => {
    expect(await readText(post('ééé'), 6)).toBe('ééé');
    expect(await readText(post('ééé'), 5)).toBeNull();
    expect(await readText(new Request('http://larkfell.example/'), 5)).toBe('');
  });
});

describe('where a request comes from', () => {
  const from = (headers: Record<string, string>) =>
    fromThisSite({ headers: new Headers({ host: 'larkfell.example', ...headers }) } as Request);

  it.each([
    [{ 'sec-fetch-site': 'same-origin' }, true],
    [{ 'sec-fetch-site': 'none' }, true],
    [{ 'sec-fetch-site': 'same-site' }, false],
    [{ 'sec-fetch-site': 'cross-site' }, false],
    [{ origin: 'http://larkfell.example' }, true],
    [{ origin: 'http://elsewhere.example' }, false],
    [{ origin: 'null' }, false],
    [{ origin: 'not an address' }, false],
    [{}, true],
  ] as [Record<string, string>, boolean][])('%j is this site: %s', (headers, expected) => {
    expect(from(headers)).toBe(expected);
  });

  it('is what the server saw', () => {
    expect(addressOf(post('', { 'x-trivet-from': '10.1.2.3' }))).toBe('10.1.2.3');
    expect(addressOf(post(''))).toBe('unknown');
  });
});
