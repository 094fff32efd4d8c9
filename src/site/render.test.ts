import { describe, expect, it } from 'vitest';
import type { ItemId } from '@/core';
import type { Frame } from '@/services';
import { type Delivery, renderAnswer, renderPassphrase, renderSignIn, renderWould } from '.';

const delivery: Delivery = {
  stylesheet: '/assets/site.css',
  attemptScript: '/assets/attempt.js',
  watchScript: '/assets/watch.js',
  watchDigest: 'sha256-none',
  origin: 'http://localhost:3000',
  desk: false,
  walk: false,
};
const facts = {
  kind: 'page',
  title: 'Home',
  date: null,
  author: null,
  category: null,
  tags: [],
} as const;
const link = (title: string, address: string) =>
  ({ id: title as ItemId, title, to: { kind: 'address', address, current: false }, links: [] }) as const;
const frame: Frame = {
  picture: null,
  colours: null,
  foot: '',
  missing: '',
  siteTitle: 'Larkfell Observatory',
  language: 'en',
  home: '/',
  search: '/search',
  shared: { top: [], before: [], beside: [], after: [], foot: [] },
  menus: {
    top: [
      {
        id: 'top' as ItemId,
        title: 'Top',
        links: [
          link('Visit', '/visit'),
          {
            ...link('My account', '/account'),
            links: [
              {
                id: 'out' as ItemId,
                title: 'Sign out',
                to: { kind: 'sign out', address: '/sign-out' },
                links: [],
              },
            ],
          },
        ],
      },
    ],
    side: [],
    foot: [],
  },
};
const html = async (...of: Parameters<typeof renderAnswer>) => {
  const rendered = await renderAnswer(...of);
  return 'location' in rendered ? rendered.location : rendered.html;
};

describe('an answer', () => {
  it('has the status of its kind', async () => {
    const step = null;
    const statuses = await Promise.all(
      [
        { kind: 'teaser', frame, facts, text: 'b', coarse: null, reason: null, step, address: '/' } as const,
        { kind: 'message', title: null, frame, reason: null, step } as const,
        { kind: 'missing', frame } as const,
        { kind: 'redirect', to: '/sign-in' } as const,
        { kind: 'moved', to: '/elsewhere' } as const,
      ].map(async (answer) => (await renderAnswer(answer, delivery)).status),
    );
    expect(statuses).toEqual([200, 403, 404, 303, 301]);
  });

  it('escapes every text that people write', async () => {
    const nasty = '<img src=x onerror=alert(1)>"\'&';
    const teaser = {
      kind: 'teaser',
      frame: { ...frame, siteTitle: nasty },
      facts: { ...facts, title: nasty, author: nasty },
      text: nasty,
      coarse: null,
      reason: nasty,
      address: '/a',
    } as const;
    const text = await html({ ...teaser, step: { kind: 'link', label: nasty, address: '/join' } }, delivery);
    expect(text).not.toContain('<img');
    // What is told to search engines stands in a script element, which a text can't end.
    const told = /<script type="application\/ld\+json">(.*?)<\/script>/s.exec(text)?.[1] ?? '';
    expect(JSON.parse(told)).toMatchObject({ headline: nasty, isAccessibleForFree: false });
  });

  it('shows a page under its title, unless it brings a heading of its own', async () => {
    const page = {
      kind: 'page',
      frame,
      facts,
      lead: '',
      summary: 'The summary.',
      picture: null,
      sections: [{ id: 'a' as ItemId, kind: 'text', html: '<h1>A dark hill</h1>' }],
      address: '/' as never,
      neighbours: null,
      course: null,
      activity: null,
      sameForEveryone: false,
    } as const;
    const own = await html(page, delivery);
    expect(own.match(/<h1/g)).toHaveLength(1);
    expect(own).toContain('<title>Home · Larkfell Observatory</title>');
    const plain = await html(
      { ...page, sections: [{ id: 'a' as ItemId, kind: 'text', html: '<p>Text</p>' }] },
      delivery,
    );
    expect(plain).toContain('<h1>Home</h1>');
    expect(plain).toContain('<link rel="canonical" href="http://localhost:3000/"/>');
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
    base: '',
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

  it('says on a walk that nothing is sent', async () => {
    const text = await renderSignIn({ ...props, delivery: { ...delivery, walk: true } });
    expect(text).toContain('On a walk nothing is sent.');
    expect(await renderSignIn(props)).not.toContain('On a walk');
  });
});

describe('the page for a passphrase', () => {
  const html = (over: object = {}) =>
    renderPassphrase({
      frame,
      delivery,
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

  it('says on a walk that nothing is sent', async () => {
    expect(await html({ delivery: { ...delivery, walk: true } })).toContain('On a walk nothing is sent.');
  });
});

describe('what a form would have done', () => {
  it('stands with what was typed, and nothing that was typed is read as markup', async () => {
    const text = await renderWould({
      frame,
      delivery: { ...delivery, walk: true },
      what: 'send these answers to the gate',
      typed: [{ name: 'Your name', value: '<b>Odile</b>' }],
      back: '/walk/t/visit',
    });
    expect(text).toContain('On the site, this would send these answers to the gate.');
    expect(text).toContain('&lt;b&gt;Odile&lt;/b&gt;');
    expect(text).toContain('href="/walk/t/visit"');
  });
});
