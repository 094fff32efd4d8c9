import { describe, expect, it } from 'vitest';
import { type Delivery, renderAnswer, renderPassphrase, renderSignIn } from '.';

const delivery: Delivery = { stylesheet: '/assets/site.css', desk: false, walk: false };
const link = (title: string, address: string) =>
  ({ title, to: { kind: 'address', address, current: false }, links: [] }) as const;
const frame = {
  siteTitle: 'Larkfell Observatory',
  menu: [
    link('Visit', '/visit'),
    {
      ...link('My account', '/account'),
      links: [{ title: 'Sign out', to: { kind: 'sign out', address: '/sign-out' }, links: [] }],
    },
  ],
} as const;
const html = async (...of: Parameters<typeof renderAnswer>) => {
  const rendered = await renderAnswer(...of);
  return rendered.status === 303 ? rendered.location : rendered.html;
};

describe('an answer', () => {
  it('has the status of its kind', async () => {
    const step = null;
    const statuses = await Promise.all(
      [
        { kind: 'teaser', frame, title: 'A', text: 'b', reason: null, step } as const,
        { kind: 'message', frame, reason: null, step } as const,
        { kind: 'missing', frame } as const,
        { kind: 'redirect', to: '/sign-in' } as const,
      ].map(async (answer) => (await renderAnswer(answer, delivery)).status),
    );
    expect(statuses).toEqual([200, 403, 404, 303]);
  });

  it('escapes every text that people write', async () => {
    const nasty = '<img src=x onerror=alert(1)>"\'&';
    const teaser = {
      kind: 'teaser',
      frame: { ...frame, siteTitle: nasty },
      title: nasty,
      text: nasty,
      reason: nasty,
    } as const;
    const text = await html({ ...teaser, step: { kind: 'item', title: nasty, address: '/join' } }, delivery);
    expect(text).not.toContain('<img');
  });

  it('shows a page under its title, unless it brings a heading of its own', async () => {
    const page = {
      kind: 'page',
      frame,
      title: 'Home',
      summary: 'The summary.',
      html: '<h1>A dark hill</h1>',
      hasOwnHeading: true,
      address: '/' as never,
      sameForEveryone: false,
    } as const;
    const own = await html(page, delivery);
    expect(own.match(/<h1/g)).toHaveLength(1);
    expect(own).toContain('<title>Home · Larkfell Observatory</title>');
    const plain = await html({ ...page, html: '<p>Text</p>', hasOwnHeading: false }, delivery);
    expect(plain).toContain('<h1>Home</h1>');
    expect(plain).toContain('<link rel="canonical" href="/"/>');
  });

  it('offers the desk to those who may use it, and not on a walk', async () => {
    const missing = { kind: 'missing', frame } as const;
    expect(await html(missing, { ...delivery, desk: true })).toContain('href="/desk"');
    expect(await html(missing, delivery)).not.toContain('/desk');
  });
});

describe('a form', () => {
  const props = {
    frame,
    delivery,
    next: '/crew',
    email: 'a"b@larkfell.example',
    problems: {},
    signedInAs: null,
    note: '',
  };

  it('keeps what was typed, says what is wrong next to it, and never repeats a password', async () => {
    const text = await renderSignIn({
      ...props,
      problems: { email: 'Type your mail address.', form: 'No.' },
    });
    expect(text).toContain('value="a&quot;b@larkfell.example"');
    expect(text).toContain('aria-describedby="email-problem"');
    expect(text).toContain('role="alert"');
    expect(text).toMatch(/type="password"[^>]*value=""/);
    expect(text).toContain('name="next" value="/crew"');
  });

  it('does nothing on a walk', async () => {
    const text = await renderSignIn({ ...props, delivery: { ...delivery, walk: true } });
    expect(
      text.match(/<button[^>]*type="submit"[^>]*>/g)?.every((button) => button.includes('disabled')),
    ).toBe(true);
    expect(text).not.toContain('action="/sign-in"');
  });
});

describe('the page for a passphrase', () => {
  const frame = { siteTitle: 'Larkfell', menu: [] };
  const html = (over: object = {}) =>
    renderPassphrase({
      frame,
      delivery: { stylesheet: '/a.css', desk: false, walk: false },
      next: '/comet-night',
      problem: null,
      ...over,
    });

  it('is a plain form that says where it is wrong', async () => {
    const page = await html({ problem: 'That is not <it>.' });
    expect(page).toContain('action="/passphrase"');
    expect(page).toContain('value="/comet-night"');
    expect(page).toContain('That is not &lt;it&gt;.');
    expect(page).toContain('aria-invalid="true"');
    expect(page).not.toContain('<script');
  });

  it('does nothing on a walk', async () => {
    const page = await html({ delivery: { stylesheet: '/a.css', desk: false, walk: true } });
    expect(page).not.toContain('action="/passphrase"');
    expect(page).toContain('On a walk, forms are shown and do nothing.');
  });
});
