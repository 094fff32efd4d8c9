import { afterEach, expect, it, vi } from 'vitest';
import { ask } from './service';

afterEach(() => vi.unstubAllGlobals());

const answering = (response: Partial<Response> | (() => never)) => {
  const fetched = vi.fn(async () => (typeof response === 'function' ? response() : (response as Response)));
  vi.stubGlobal('fetch', fetched);
  return fetched;
};

it('answers the value that the server sent', async () => {
  const fetched = answering(Response.json({ version: 4 }));
  expect(await ask('PUT', 'draft', { version: 3 })).toEqual({ ok: true, value: { version: 4 } });
  expect(fetched).toHaveBeenCalledWith(
    '/desk/api/draft',
    expect.objectContaining({ method: 'PUT', body: '{"version":3}' }),
  );
});

it('answers a refusal with its sentence and what came with it', async () => {
  answering(Response.json({ title: 'Too late.', theirs: 1 }, { status: 409 }));
  expect(await ask('PUT', 'draft', {})).toMatchObject({
    ok: false,
    status: 409,
    title: 'Too late.',
    body: { theirs: 1 },
  });
});

it('has a sentence for a refusal that is no JSON', async () => {
  answering(new Response('<h1>Too large</h1>', { status: 413 }));
  expect(await ask('GET', 'draft')).toMatchObject({
    ok: false,
    status: 413,
    title: 'The server refused this (413).',
  });
});

it('takes whoever stands between and can’t reach it for a server that can’t be reached', async () => {
  for (const status of [502, 503, 504]) {
    answering(new Response('<h1>Not there</h1>', { status }));
    expect(await ask('GET', 'draft')).toMatchObject({
      status: 0,
      title: expect.stringContaining('kept here'),
    });
  }
  answering(Response.json({ title: 'Too many are doing the same.' }, { status: 503 }));
  expect(await ask('GET', 'draft')).toMatchObject({ status: 503, title: 'Too many are doing the same.' });
});

it('says so when the server can’t be reached', async () => {
  answering(() => {
    throw new TypeError('Failed to fetch');
  });
  expect(await ask('GET', 'draft')).toMatchObject({
    ok: false,
    status: 0,
    title: expect.stringContaining('kept here'),
  });
});

it('takes an answer that breaks off for none, never for an empty one', async () => {
  const broken = async () => {
    throw new TypeError('network error');
  };
  answering({ ok: true, status: 200, json: broken });
  expect(await ask('POST', 'passing', {})).toMatchObject({ ok: false, status: 0 });
});

it('throws when it was called off, even while the answer was being read', async () => {
  const calledOff = new AbortController();
  const breakingOff = async () => {
    calledOff.abort();
    throw new DOMException('The operation was aborted.', 'AbortError');
  };
  answering({ ok: true, status: 200, json: breakingOff });
  await expect(ask('POST', 'passing', {}, calledOff.signal)).rejects.toThrow('aborted');
});
