/** The desk without a server and without a browser's layout, for tests: what is asked is noted, and answered when the test says so. */
import { act, cleanup } from '@testing-library/react';
import { afterEach, beforeEach, expect, vi } from 'vitest';
import { items, members, policy, request, vocabulary } from '@/core/testing/larkfell';
import type { DeskData, Document } from '@/services';

export interface Asked {
  readonly method: string;
  /** Below `/desk/api/`. */
  readonly path: string;
  readonly body: unknown;
  /** Answers with JSON. */
  readonly answer: (value: unknown, status?: number) => void;
  /** Lets it fail as though there were no line. */
  readonly fail: () => void;
}

/** Stands in for the server from now on; what was asked and is not answered yet is in the list. */
export function fakeServer(): { readonly asked: Asked[] } {
  const asked: Asked[] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn(
      (url: string, { method = 'GET', body }: RequestInit = {}) =>
        new Promise<Response>((resolve, reject) => {
          const take = (act: () => void) => {
            asked.splice(asked.indexOf(one), 1);
            act();
          };
          const one: Asked = {
            method,
            path: url.replace('/desk/api/', ''),
            body: typeof body === 'string' ? JSON.parse(body) : body,
            answer: (value, status = 200) => take(() => resolve(Response.json(value, { status }))),
            fail: () => take(() => reject(new TypeError('no line'))),
          };
          asked.push(one);
        }),
    ),
  );
  return { asked };
}

/** For a file of tests by the clock: a server for each test, time that passes, and answers to the one thing that is asked. */
export const byTheClock = () => {
  let server: ReturnType<typeof fakeServer>;
  beforeEach(() => {
    vi.useFakeTimers();
    server = fakeServer();
  });
  afterEach(async () => {
    cleanup();
    // Whoever leaves keeps the last words.
    await vi.advanceTimersByTimeAsync(0);
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  const pass = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));
  const only = (): Asked => {
    const { asked } = server;
    expect(asked).toHaveLength(1);
    return asked[0] as Asked;
  };
  /** Answers, and lets whoever waited for it go on. */
  const answered = (how: (one: Asked) => void) =>
    act(async () => {
      how(only());
      await vi.advanceTimersByTimeAsync(0);
    });
  const answer = (value: unknown, status?: number) => answered((one) => one.answer(value, status));
  const asked = () => server.asked;
  return { pass, asked, only, answered, answer };
};

/** What the desk begins with at the small Larkfell: a guest and two members on the board. */
export const deskData = (over: Partial<DeskData> = {}): DeskData => {
  const { audiences: _, ...names } = vocabulary;
  return {
    administrator: 'Greta Holm',
    desk: { right: 'owner', branch: null },
    siteTitle: 'Larkfell',
    items,
    summaries: {},
    pictures: {},
    owners: {},
    names,
    byGroup: [],
    byProduct: [],
    onSale: [],
    request,
    draft: { policy, version: 7, by: 'Greta Holm' },
    live: { policy, revision: 3 },
    standIns: [
      { kind: 'guest' },
      ...members
        .filter(({ id }) => ['marek', 'tobin'].includes(id))
        .map((member) => ({ kind: 'member', member }) as const),
    ],
    memberCount: members.length,
    firstSteps: null,
    ...over,
  };
};

/** A page that is written, of which only the title matters. */
export const titled = (title: string): Document => ({
  title,
  summary: '',
  address: '/visit',
  published: true,
  facts: { category: null, tags: [], author: null, date: null, picture: null },
  activity: null,
  enrolling: null,
  doneWhen: 'said',
  task: null,
  quiz: null,
  sections: [],
});
