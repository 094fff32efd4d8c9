import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  asId,
  decide,
  type Gate,
  type GateId,
  guest,
  type ItemId,
  isAddressed,
  nobody,
  type Policy,
  WHOLE_SITE,
  withWholeSite,
} from '@/core';
import { type Administrator, plainRequest, putLive, saveDraft, type Trivet } from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { noteOldAddress } from '@/store';
import { PRIVATE } from '../_http/response';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteResponse } from '.';

let trivet: Trivet;
let greta: Administrator;
const cookies = new Map<string, string>();
beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
  for (const name of ['marek', 'ines'])
    cookies.set(name, `${SESSION_COOKIE}=${(await signedInAt(trivet, name)).token}`);
});
afterAll(() => trivet.close());

interface Got {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}
const ask = async (path: string, as: string | null = null): Promise<Got> => {
  const headers = as ? { cookie: cookies.get(as) ?? '' } : {};
  const response = await siteResponse(trivet, new Request(`http://localhost${path}`, { headers }), now);
  return {
    status: response.status,
    headers: Object.fromEntries(response.headers),
    body: Buffer.from(await response.arrayBuffer()).toString('latin1'),
  };
};
const live = async (change: (policy: Policy) => Policy) => {
  const { state } = trivet;
  const policy = change(state.live.policy);
  const saved = await saveDraft(trivet, greta, { version: state.draft.version, policy });
  if (saved.kind !== 'saved') throw new Error(JSON.stringify(saved));
  const put = { version: saved.version, revision: state.live.revision };
  expect((await putLive(trivet, greta, put, now)).kind).toBe('live');
};
/** The same with the address that was asked for taken out: what one asked with is no news. */
const apartFrom = (path: string, { status, headers, body }: Got): Got => {
  const without = (text: string) =>
    [path, encodeURIComponent(path), encodeURIComponent(decodeURI(path))].reduce(
      (rest, one) => rest.replaceAll(one, 'ADDRESS'),
      text,
    );
  return {
    status,
    body: without(body),
    headers: Object.fromEntries(Object.entries(headers).map(([name, value]) => [name, without(value)])),
  };
};
const everyPath = () => [
  ...[...trivet.state.outline.items.values()].flatMap((item) =>
    isAddressed(item)
      ? [encodeURI(item.address)]
      : item.kind === 'file'
        ? [`/files/${item.id}/${item.name}`]
        : [],
  ),
  ...['/feed.xml', '/feed.json', '/sitemap.xml', '/robots.txt', '/search', '/search?q=night', '/sign-in'],
  ...['/sign-up', '/reset', '/passphrase', '/me', '/me/keys', '/groups/x/follow', '/forms/x', '/walk/x/'],
  ...['/category/night-logs', '/tag/winter', '/api/items', '/api/items/crew', '/api/health', '/api'],
  ...['/assets/never', '/assets/', '/assets/site.json', '/favicon.ico', '/_next/image?url=%2F&w=64&q=75'],
  ...['/never-there', '/%zz', '/files/x/y', '/files/x', '/_error', '/500', '/404'],
];

describe('what depends on who asks', () => {
  it('is kept by nobody: where two people get anything but the same, both are told so', async () => {
    for (const path of everyPath()) {
      const [guest, marek, ines] = await Promise.all([ask(path), ask(path, 'marek'), ask(path, 'ines')]);
      const all = [guest, marek, ines];
      const differ = all.some(({ status, body }) => status !== guest?.status || body !== guest.body);
      for (const { headers } of all)
        if (differ) expect([path, headers['cache-control']]).toEqual([path, PRIVATE]);
    }
  });

  it('is never kept where nothing is', async () => {
    for (const path of ['/assets/never', '/never-there', '/files/x/y', '/category/never'])
      expect([path, await ask(path)]).toMatchObject([
        path,
        { status: 404, headers: { 'cache-control': PRIVATE } },
      ]);
  });
});

describe('a site behind sign-in', () => {
  const never = (path: string) => (path.startsWith('/files/') ? '/files/never/there.txt' : '/never/there');

  it('does not tell a guest which addresses there are', async () => {
    const before = trivet.state.live.policy;
    await live((policy) => withWholeSite(policy, true));
    let compared = 0;
    for (const path of everyPath()) {
      const item = [...trivet.state.outline.items.values()].find(
        (one) =>
          (isAddressed(one) && encodeURI(one.address) === path) || path.startsWith(`/files/${one.id}/`),
      );
      // That a site has a first page is no news.
      if (!item || path === '/') continue;
      const decision = decide(trivet.state.live.compiled, item.id, guest, plainRequest(trivet.state, now));
      // What another gate sets aside for is open, or closed in its own way, on purpose.
      const because = decision.kind === 'open' ? null : decision.because;
      if (because?.kind !== 'gate' || because.gate !== WHOLE_SITE) continue;
      compared += 1;
      const got = apartFrom(path, await ask(path));
      expect([path, got]).toEqual([path, apartFrom(never(path), await ask(never(path)))]);
      const api = await ask(`/api/items/${item.id}`);
      expect(apartFrom(item.id, api)).toEqual(apartFrom('no-such-id', await ask('/api/items/no-such-id')));
    }
    expect(compared).toBeGreaterThan(40);
    // A member has been let in, and what was never there is not there.
    expect((await ask('/never/there', 'marek')).status).toBe(404);
    expect(await ask('/crew', 'marek')).toEqual(await ask('/never/there', 'marek'));
    await live(() => before);
  });

  it('says the same where a page is missing by another gate as where none was', async () => {
    const before = trivet.state.live.policy;
    const hidden: Gate = {
      id: asId<GateId>('hidden'),
      what: { targets: [{ kind: 'item', item: asId<ItemId>('visit') }], except: [] },
      who: nobody,
      otherwise: { cases: [], last: { kind: 'missing' } },
      stance: 'also',
    };
    await live((policy) => {
      const closed = withWholeSite(policy, true);
      return { ...closed, gates: [hidden, ...closed.gates] };
    });
    expect(apartFrom('/visit', await ask('/visit'))).toEqual(apartFrom('/never', await ask('/never')));
    await live(() => before);
  });
});

describe('every door', () => {
  it('says missing where the page does: old addresses, the API, files and lists', async () => {
    const before = trivet.state.live.policy;
    const sends = (from: string, to: string): Gate => ({
      id: asId<GateId>(`from-${from}`),
      what: { targets: [{ kind: 'item', item: asId<ItemId>(from) }], except: [] },
      who: nobody,
      otherwise: { cases: [], last: { kind: 'redirect', to: { kind: 'item', item: asId<ItemId>(to) } } },
      stance: 'instead',
    });
    // Round in a circle; and to what is missing itself.
    await live((policy) => ({
      ...policy,
      gates: [...policy.gates, sends('visit', 'tonight'), sends('tonight', 'visit'), sends('join', 'crew')],
    }));
    await noteOldAddress(trivet.db, '/come' as never, asId<ItemId>('visit'));
    await trivet.reload();
    const nothing = await ask('/never-there');
    for (const path of ['/visit', '/tonight', '/join', '/come'])
      expect([path, await ask(path)]).toEqual([path, nothing]);
    for (const id of ['visit', 'tonight', 'join'])
      expect(await ask(`/api/items/${id}`)).toEqual(await ask('/api/items/no-such-id'));
    expect((await ask('/sitemap.xml')).body).not.toContain('/visit<');
    await live(() => before);
  });

  it('sends on to an address elsewhere, whatever letters it is written with', async () => {
    const before = trivet.state.live.policy;
    const away: Gate = {
      id: asId<GateId>('away'),
      what: { targets: [{ kind: 'item', item: asId<ItemId>('visit') }], except: [] },
      who: nobody,
      otherwise: {
        cases: [],
        last: { kind: 'redirect', to: { kind: 'outside', url: 'https://moor.example/héðinn/星?q=ł' } },
      },
      stance: 'also',
    };
    await live((policy) => ({ ...policy, gates: [...policy.gates, away] }));
    expect(await ask('/visit')).toMatchObject({
      status: 303,
      headers: { location: 'https://moor.example/h%C3%A9%C3%B0inn/%E6%98%9F?q=%C5%82' },
    });
    await live(() => before);
  });
});

describe('what can’t be kept', () => {
  const odd = ['\0', 'a\0b', '%00'];
  const FORMS: Readonly<Record<string, readonly string[]>> = {
    '/sign-in': ['email', 'password', 'next'],
    '/sign-up': ['name', 'email', 'password', 'next'],
    '/sign-up/confirm': ['token', 'code', 'next'],
    '/sign-up/again': ['token'],
    '/reset': ['email'],
    '/reset/confirm': ['token', 'code', 'password'],
    '/passphrase': ['passphrase', 'next'],
    '/me': ['field-valley', 'next'],
    '/me/keys': ['use', 'name'],
    '/me/keys/revoke': ['id'],
    '/forms/visit-form': ['field-0'],
    '/groups/sky-diary/follow': ['next'],
    '/me/done/star-trails': ['next'],
    '/me/enrol/astrophotography': ['next'],
    '/me/quiz/first-opening-quiz': ['attempt', 'do', 'q0'],
  };

  it('is refused in every field of every form, and nothing fails', async () => {
    for (const [path, fields] of Object.entries(FORMS))
      for (const field of fields)
        for (const value of odd) {
          const all = Object.fromEntries(fields.map((one) => [one, one === field ? value : 'x1234567']));
          const response = await siteResponse(
            trivet,
            new Request(`http://localhost${path}`, {
              method: 'POST',
              headers: {
                cookie: cookies.get('marek') ?? '',
                'content-type': 'application/x-www-form-urlencoded',
              },
              body: new URLSearchParams(all).toString(),
            }),
            now,
          );
          expect([path, field, response.status < 500]).toEqual([path, field, true]);
        }
  });

  it('fails in no address and no question', async () => {
    for (const path of [
      '/search?q=%00',
      '/search?q=%ED%A0%80',
      '/feed.xml?category=%00',
      '/feed.xml?key=%00',
      '/%00',
      '/files/%00/x',
      '/api/items?after=%00',
      '/api/items/%00',
      '/groups/%00/follow',
      '/me/done/%00',
      '/me/quiz/%00',
      '/walk/%00',
      '/sign-up/confirm?token=%00',
    ])
      expect([path, (await ask(path, 'marek')).status < 500]).toEqual([path, true]);
  });
});
