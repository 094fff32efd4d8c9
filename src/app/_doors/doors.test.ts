import Ajv from 'ajv/dist/2020';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type PersonId, sectionsOf } from '@/core';
import { makeKey, type Trivet } from '@/services';
import { now, openLarkfell, signedInAt } from '@/services/testing';
import { updateItem } from '@/store';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteResponse } from '.';

let trivet: Trivet;
const cookies = new Map<string, string>();
beforeAll(async () => {
  trivet = await openLarkfell();
  for (const name of ['marek', 'odile', 'tobin', 'ines', 'greta'])
    cookies.set(name, `${SESSION_COOKIE}=${(await signedInAt(trivet, name)).token}`);
});
afterAll(() => trivet.close());

interface Asking {
  readonly as?: string;
  readonly method?: string;
  readonly headers?: Record<string, string>;
  readonly form?: Record<string, string>;
}
const ask = (path: string, { as, method, headers = {}, form }: Asking = {}) =>
  siteResponse(
    trivet,
    new Request(`http://localhost:3000${path}`, {
      method: method ?? (form ? 'POST' : 'GET'),
      headers: {
        ...(as && { cookie: cookies.get(as) ?? '' }),
        ...(form && { 'content-type': 'application/x-www-form-urlencoded' }),
        ...headers,
      },
      ...(form && { body: new URLSearchParams(form).toString() }),
    }),
    now,
  );
const text = async (path: string, asking?: Asking) => (await ask(path, asking)).text();
const json = async (path: string, asking?: Asking) => (await ask(path, asking)).json();
const key = async (name: string, use: 'api' | 'feed') => {
  const made = await makeKey(trivet, name as PersonId, { use, name: 'Test' }, now);
  if (made.kind !== 'made') throw new Error(made.problem);
  return made.key;
};

/** Gives a page another text and no summary; answers the page's section as it was. */
async function withText(page: string, body: string) {
  const { outline, contents } = trivet.state;
  const item = sectionsOf(outline, page as never).find(({ type }) => type === 'text');
  const above = outline.items.get(page as never);
  const content = item && contents.get(item.id);
  const summary = above && contents.get(above.id);
  if (!item || !above || !content || !summary) throw new Error(page);
  await updateItem(trivet.db, { item, content: { ...content, body } });
  await updateItem(trivet.db, { item: above, content: { ...summary, summary: '' } });
  await trivet.reload();
  return { item, content };
}

describe('lists', () => {
  it('bring what is open, teasers where there are some, and nothing else', async () => {
    const home = await text('/');
    expect(home).toContain('The night the mist stayed below');
    expect(home).toContain('Night logs are for members. An account costs nothing.');
    expect(home).not.toContain('lamp over the ladder');
    expect(await text('/', { as: 'ines' })).toContain('The north shutter in frost');
  });

  it('exist for those who get something of them', async () => {
    expect((await ask('/category/night-logs')).status).toBe(200);
    expect((await ask('/category/crew-bulletins', { as: 'ines' })).status).toBe(200);
    const closed = await ask('/category/crew-bulletins', { as: 'marek' });
    expect(closed.status).toBe(404);
    expect(await closed.text()).toBe(await text('/category/never-there', { as: 'marek' }));
    expect((await ask('/tag/dome', { as: 'tobin' })).status).toBe(404);
    for (const odd of [
      '/category',
      '/category/a/b',
      '/category/night-logs?page=0',
      '/category/night-logs?page=x',
      '/category/%E0%A4%A',
    ])
      expect((await ask(odd)).status).toBe(404);
  });

  it('lead from a post to the ones before and after it that one may see', async () => {
    const page = await text('/field-notes/halo');
    expect(page).toContain('rel="prev"');
    expect(page).toContain('Counting meteors');
  });
});

describe('what may be kept', () => {
  it.each([
    ['a list', '/category/night-logs'],
    ['a search', '/search?q=night'],
    ['a feed', '/feed.xml'],
    ['a feed for readers of JSON', '/feed.json'],
    ['the sitemap', '/sitemap.xml'],
    ['the API', '/api/items'],
    ['what one may not open', '/observers'],
    ['what is nowhere', '/never-there'],
    ['the way to sign in', '/sign-in'],
    ['a page that shows posts', '/'],
  ])('%s is nobody else’s to keep, whoever asks', async (_, path) => {
    for (const as of [undefined, 'marek', 'ines', 'greta'])
      expect((await ask(path, as ? { as } : {})).headers.get('cache-control')).toMatch(/^private|no-store/);
  });
});

describe('feeds', () => {
  const items = (xml: string) => {
    expect(XMLValidator.validate(xml)).toBe(true);
    const { rss } = new XMLParser({ ignoreAttributes: false, isArray: (name) => name === 'item' }).parse(xml);
    return (rss.channel.item ?? []) as {
      title: string;
      description: string;
      'content:encoded'?: string;
      link: string;
    }[];
  };

  it('are RSS 2.0 with what a guest may have: whole posts, and teasers without their text', async () => {
    const found = items(await text('/feed.xml'));
    expect(
      found.find(({ title }) => title === 'Counting meteors with mittens on')?.['content:encoded'],
    ).toContain('pebbles');
    const teaser = found.find(({ title }) => title === 'First light of the long refractor');
    expect(teaser).toMatchObject({ description: expect.stringContaining('It was round.') });
    expect(teaser).not.toHaveProperty('content:encoded');
    expect(found.every(({ link }) => link.startsWith('http://localhost'))).toBe(true);
  });

  it('are JSON Feed 1.1', async () => {
    const feed = await json('/feed.json');
    expect(feed).toMatchObject({
      version: 'https://jsonfeed.org/version/1.1',
      title: 'Larkfell Observatory',
    });
    for (const item of feed.items) expect(item.content_html ?? item.content_text).toEqual(expect.any(String));
  });

  it('are one’s own by a key in their address, until it is taken back', async () => {
    const address = `/feed.xml?key=${await key('ines', 'feed')}`;
    expect(await text(address)).toContain('The north shutter in frost');
    expect((await ask('/feed.xml?key=made-up')).status).toBe(404);
    expect((await ask(`/feed.xml?key=${await key('ines', 'api')}`)).status).toBe(404);
  });

  it('of a category tell nothing of one that is closed', async () => {
    const apart = (feed: string) => feed.replace(/category=[\w-]+/, '');
    expect(apart(await text('/feed.json?category=crew-bulletins'))).toBe(
      apart(await text('/feed.json?category=never-there')),
    );
  });
});

describe('search', () => {
  it('finds what one may read and marks the words', async () => {
    const found = await text('/search?q=pebbles');
    expect(found).toContain('Counting meteors with mittens on');
    expect(found).toContain('<mark>pebbles</mark>');
    expect(await text('/search?q=baffle', { as: 'marek' })).toContain(
      'Nothing you can open has these words.',
    );
    expect(await text('/search?q=baffle', { as: 'odile' })).toContain('First light');
    expect(await text('/search?q=refractor')).toContain('First light');
  });

  it.each(['', '   ', '"', "'); drop table items; --", 'a'.repeat(5000), '%00', '!!! & | <->', '\uD800'])(
    'takes any question (%j)',
    async (question) => {
      expect(
        (await ask(`/search?q=${encodeURIComponent(question.toWellFormed?.() ?? question)}`)).status,
      ).toBe(200);
    },
  );
});

describe('sitemap, robots and heads', () => {
  it('name what a guest may know of', async () => {
    const map = await text('/sitemap.xml');
    expect(XMLValidator.validate(map)).toBe(true);
    expect(map).toContain('/field-notes/halo');
    expect(map).toContain('/night-logs/first-light');
    expect(map).not.toMatch(/crew|bulletins|trustees|partners/);
    const robots = await text('/robots.txt');
    expect(robots).toContain('Sitemap: http://localhost');
    expect(robots).not.toMatch(/crew|trustees/);
  });

  it('tell of a teaser what the teaser shows, and that it is not free to read', async () => {
    const page = await text('/kit-reviews/three-eyepieces');
    expect(page).toContain('"isAccessibleForFree":false');
    expect(page).not.toContain('og:image');
    expect(page).not.toContain('hopeless outside it');
    expect(await text('/field-notes/halo')).toMatch(/og:image" content="http[^"]*\/files\/halo-picture/);
  });
});

describe('files', () => {
  const frame = '/files/frame-tobin/frame-3.webp';

  it('are for their owner and the crew; to others they are nowhere', async () => {
    expect((await ask(frame, { as: 'tobin' })).status).toBe(200);
    expect((await ask(frame, { as: 'ines' })).status).toBe(200);
    const other = await ask(frame, { as: 'marek' });
    expect(other.status).toBe(404);
    expect(await other.text()).toBe(await text('/files/never/there.webp', { as: 'marek' }));
    expect((await ask('/files/frame-tobin/other.webp', { as: 'tobin' })).status).toBe(404);
  });

  it('can’t be run by a browser, and come in parts when asked', async () => {
    const whole = await ask('/files/turning-video/turning.webm');
    expect(whole.headers.get('content-security-policy')).toContain('sandbox');
    expect(whole.headers.get('x-content-type-options')).toBe('nosniff');
    const part = await ask('/files/turning-video/turning.webm', { headers: { range: 'bytes=10-19' } });
    expect(part.status).toBe(206);
    expect((await part.arrayBuffer()).byteLength).toBe(10);
    expect(part.headers.get('content-range')).toMatch(/^bytes 10-19\//);
    expect(
      (await ask('/files/turning-video/turning.webm', { headers: { range: 'bytes=99999999-' } })).status,
    ).toBe(416);
  });

  it('in a gated post are gated with it', async () => {
    const path = '/files/first-light-picture/cloud-band.webp';
    expect((await ask(path, { as: 'odile' })).status).toBe(200);
    expect((await ask(path, { as: 'marek' })).headers.get('content-type')).toContain('text/html');
  });
});

describe('what real clients read', () => {
  it('finds a feed where the feed says it is, with whole addresses, and its pictures', async () => {
    const feedKey = await key('ines', 'feed');
    const query = `?category=night-logs&key=${feedKey}`;
    const feed = await json(`/feed.json${query}`);
    expect(feed.feed_url).toBe(`http://localhost:3000/feed.json${query}`);
    expect(feed.items[0].date_published).toMatch(/T00:00:00[+-]\d\d:\d\d$/);
    const pictured = feed.items.find((one: { attachments?: unknown }) => one.attachments);
    expect(pictured.attachments).toEqual([
      { url: pictured.image, mime_type: 'image/webp', size_in_bytes: expect.any(Number) },
    ]);
    const rss = await text(`/feed.xml${query}`);
    expect(rss).toContain(`href="http://localhost:3000/feed.xml${query.replace('&', '&amp;')}"`);
    expect(rss).toContain('<enclosure url="http://localhost:3000/files/');
    expect(rss).not.toMatch(/(href|src)=&quot;(?!http|mailto)/);
    expect(rss).toMatch(/<pubDate>\w{3}, \d\d \w{3} \d{4} 00:00:00 [+-]\d{4}<\/pubDate>/);
  });

  it('is kept by robots from what is Trivet’s, and not from what begins alike', async () => {
    const robots = await text('/robots.txt');
    expect(robots).toContain('Disallow: /me$');
    expect(robots).not.toMatch(/^Disallow: \/(me|desk|search)$/m);
  });

  it('gets the words of a link to what is closed, and the link of what is open', async () => {
    const linked = async (as?: string) =>
      /<a href="\/observers\/charts">/.test(await text('/tonight', as ? { as } : {}));
    const { item, content } = await withText(
      'tonight',
      'See [the charts](/observers/charts), [the way up](/visit) and ![a key](/files/dome-key/dome-key.webp).',
    );
    expect([await linked(), await linked('marek'), await linked('tobin')]).toEqual([false, false, true]);
    const page = await text('/tonight');
    expect(page).toContain('See the charts, <a href="/visit">the way up</a>');
    expect((await ask('/tonight')).headers.get('cache-control')).toBe('private, no-store');
    await updateItem(trivet.db, { item, content });
    await trivet.reload();
  });

  it('does not read the first words of a page twice', async () => {
    const { item, content } = await withText('visit', 'Only these words stand here.');
    const page = await text('/visit');
    expect(page).toContain('<p>Only these words');
    expect(page).not.toContain('<p class="lead">Only these');
    await updateItem(trivet.db, { item, content });
    await trivet.reload();
  });

  it('opens a file with the key of the member whose it is', async () => {
    const frame = [...trivet.state.outline.items.values()].find(
      (one) => one.kind === 'file' && one.facts?.owner === 'ines',
    );
    if (frame?.kind !== 'file') throw new Error('no frame');
    const path = `/files/${frame.id}/${frame.name}`;
    const bearer = async (name: string) => ({
      headers: { authorization: `Bearer ${await key(name, 'api')}` },
    });
    expect((await ask(path)).status).not.toBe(200);
    expect((await ask(path, await bearer('ines'))).status).toBe(200);
    expect((await ask(path, await bearer('odile'))).status).not.toBe(200);
    expect((await ask(path, { headers: { authorization: 'Bearer none' } })).status).toBe(401);
  });

  it('gets parts of a file, and all of it where a part would be of another', async () => {
    const path = '/files/hill-picture/hill-at-night.webp';
    const all = await ask(path);
    const bytes = new Uint8Array(await all.arrayBuffer());
    const etag = all.headers.get('etag') ?? '';
    expect(all.headers.get('content-length')).toBe(String(bytes.length));
    const part = async (range: string, more: Record<string, string> = {}) => {
      const response = await ask(path, { headers: { range, ...more } });
      return [response.status, [...new Uint8Array(await response.arrayBuffer())]] as const;
    };
    expect(await part('bytes=10-19')).toEqual([206, [...bytes.slice(10, 20)]]);
    expect(await part('bytes=-5')).toEqual([206, [...bytes.slice(-5)]]);
    expect((await part(`bytes=${bytes.length}-`))[0]).toBe(416);
    expect((await part('bytes=9-2'))[0]).toBe(200);
    expect((await part('bytes=10-19', { 'if-range': etag }))[0]).toBe(206);
    expect((await part('bytes=10-19', { 'if-range': '"older"' }))[0]).toBe(200);
    const head = await ask(path, { method: 'HEAD', headers: { range: 'bytes=10-19' } });
    expect([head.status, head.headers.get('content-length')]).toEqual([200, String(bytes.length)]);
    for (const known of [etag, `W/${etag}`, `"x", ${etag}`, '*'])
      expect((await ask(path, { headers: { 'if-none-match': known } })).status).toBe(304);
  });

  it('is told in its own way that there is nothing', async () => {
    for (const path of ['/api/%zz', '/api/items/%E0%A4%A', '/api/nothing', '/api']) {
      const response = await ask(path);
      expect([path, response.status, response.headers.get('content-type')]).toEqual([
        path,
        404,
        'application/problem+json',
      ]);
    }
    const refused = await ask('/api/items', { method: 'PUT' });
    expect([refused.status, refused.headers.get('content-type')]).toEqual([405, 'application/problem+json']);
  });
});

describe('the API', () => {
  it('gives apps what browsers get: open, a teaser, or a problem that says so', async () => {
    const tobin = { headers: { authorization: `Bearer ${await key('tobin', 'api')}` } };
    expect(await json('/api/items/first-light')).toMatchObject({
      access: 'teaser',
      sections: [],
      reason: expect.stringContaining('members'),
    });
    expect(await json('/api/items/first-light', tobin)).toMatchObject({
      access: 'open',
      sections: [{ kind: 'text' }],
    });
    expect((await ask('/api/items/crew', tobin)).status).toBe(404);
    expect(await json('/api/items/trustees', tobin)).toMatchObject({
      status: 403,
      detail: expect.any(String),
    });
    expect(await json('/api/items/account')).toMatchObject({ status: 403, location: '/sign-in' });
  });

  it('does not look at cookies, and refuses a key that is good for nothing', async () => {
    expect(await json('/api/items/first-light', { as: 'odile' })).toMatchObject({ access: 'teaser' });
    const refused = await ask('/api/items', { headers: { authorization: 'Bearer made-up' } });
    expect(refused.status).toBe(401);
    expect(refused.headers.get('www-authenticate')).toContain('Bearer');
    expect(refused.headers.get('content-type')).toContain('problem+json');
  });

  it('goes on where it stopped, and names every item once', async () => {
    const seen: string[] = [];
    for (let path: string | null = '/api/items?limit=7'; path; ) {
      const page: { items: { id: string }[]; next: string | null } = await json(path);
      seen.push(...page.items.map(({ id }) => id));
      path = page.next;
    }
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBeGreaterThan(20);
    for (const odd of [
      'limit=0',
      'limit=-1',
      'limit=1.5',
      'limit=x',
      'limit=101',
      'kind=person',
      'after=gone',
    ])
      expect((await ask(`/api/items?${odd}`)).status).toBe(400);
  });

  it('is as its OpenAPI document says, for everybody and every item', async () => {
    const document = await json('/api/openapi.json');
    expect(document.openapi).toBe('3.1.0');
    const ajv = new Ajv({ strict: false });
    ajv.addSchema(document, 'api');
    const check = (path: string, status: number, type: string, value: unknown) => {
      const answer = document.paths[path]?.get.responses[status];
      expect(answer, `${path} answers ${status}`).toBeDefined();
      const reference = answer.content[type]?.schema?.$ref;
      expect(reference, `${path} answers ${status} as ${type}`).toBeDefined();
      const valid = ajv.validate({ $ref: `api${reference}` }, value);
      expect(valid, ajv.errorsText()).toBe(true);
    };
    for (const name of [null, 'marek', 'tobin', 'ines', 'greta']) {
      const as = name === null ? {} : { headers: { authorization: `Bearer ${await key(name, 'api')}` } };
      const list = await ask('/api/items?limit=100', as);
      check('/api/items', list.status, 'application/json', await list.json());
      for (const id of trivet.state.outline.items.keys()) {
        const response = await ask(`/api/items/${id}`, as);
        const type = response.headers.get('content-type') ?? '';
        check('/api/items/{id}', response.status, type, await response.json());
      }
      for (const id of ['dome-induction', 'astrophotography', 'visit', 'never-there']) {
        const response = await ask(`/api/courses/${id}`, as);
        const type = response.headers.get('content-type') ?? '';
        check('/api/courses/{id}', response.status, type, await response.json());
      }
    }
    // A path that is described is there, and what is not described is not.
    for (const path of Object.keys(document.paths)) {
      const id = path.includes('courses') ? 'astrophotography' : 'home';
      expect((await ask(path.replace('{id}', id))).status).toBe(200);
    }
    expect((await ask('/api/people')).status).toBe(404);
    const wrong = ajv.validate({ $ref: 'api#/components/schemas/Item' }, { id: 1 });
    expect(wrong).toBe(false);
  });
});

describe('forms', () => {
  const letter = { f0: 'Nell', f1: 'nell@moor.example', f2: 'A visit', f3: 'May we come?' };

  it('go to the outbox, or say what is missing and keep what was typed', async () => {
    const sent = await ask('/forms/contact-form', { form: letter });
    expect(await sent.text()).toContain('Your letter is with the secretary.');
    const wrong = await ask('/forms/contact-form', { form: { ...letter, f1: 'nell', f3: '' } });
    expect(wrong.status).toBe(422);
    const page = await wrong.text();
    expect(page).toContain('value="nell"');
    expect(page).toContain('Fill this in.');
  });

  it('can’t be sent from elsewhere, nor by those who don’t see them', async () => {
    const elsewhere = await ask('/forms/contact-form', {
      form: letter,
      headers: { 'sec-fetch-site': 'cross-site' },
    });
    expect(elsewhere.status).toBe(404);
    expect((await ask('/forms/home-guests', { form: {} })).status).toBe(404);
  });

  it('follow an open group and come back, without scripts', async () => {
    const done = await ask('/groups/sky-diary/follow', { as: 'marek', form: { next: '/sky-diary' } });
    expect([done.status, done.headers.get('location')]).toEqual([303, '/sky-diary']);
    expect(await text('/sky-diary', { as: 'marek' })).toContain('Past weeks');
    await ask('/groups/sky-diary/leave', { as: 'marek', form: {} });
    expect(await text('/sky-diary', { as: 'marek' })).not.toContain('zodiacal');
    const guest = await ask('/groups/sky-diary/follow', { form: { next: '//evil.example' } });
    expect(guest.headers.get('location')).toBe('/sign-in?next=%2F');
    expect((await ask('/groups/dome-crew/follow', { as: 'marek', form: {} })).status).toBe(404);
  });

  it('answer a method they don’t take by saying which they do', async () => {
    const refused = await ask('/search', { method: 'POST', form: {} });
    expect([refused.status, refused.headers.get('allow')]).toEqual([405, 'GET, HEAD']);
    expect((await ask('/visit', { form: {} })).headers.get('allow')).toBe('GET, HEAD');
  });
});
