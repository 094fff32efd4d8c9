/** Una's empty site, for the tests of a file, and folders that are sent to it; whatever comes in is put back after each. */
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, expect } from 'vitest';
import { asId, type PersonId } from '@/core';
import {
  type Administrator,
  administratorOf,
  importSite,
  READY_MADE,
  sendFolder,
  type TakingAnswer,
  type TakingReport,
  type Trivet,
  takeIn,
} from '..';
import { now, openUnkept } from '../testing';
import { keep, putBack } from '../testing-database';

const start = { title: 'Hazel & Co', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
const una = {
  id: 'una',
  name: 'Una Fairweather',
  email: 'una@hazel.example',
  desk: { right: 'owner' as const, branch: null },
  roles: ['colleague'],
};

export const zipOf = (files: Readonly<Record<string, string | Uint8Array>>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([path, one]) => [path, typeof one === 'string' ? strToU8(one) : one]),
    ),
  );

export const streamOf = (bytes: Uint8Array): ReadableStream<Uint8Array> =>
  new Blob([new Uint8Array(bytes)]).stream() as never;

/** The tree that is shown before anything comes in, a line for each page. */
export const tree = (report: TakingReport) =>
  report.pages.map(
    ({ depth, title, address, kind }) =>
      `${'  '.repeat(depth)}${title} ${address}${kind === 'post' ? ' (post)' : ''}`,
  );

/** What is said of the page at an address. */
export const notesOf = (report: TakingReport, address: string) =>
  report.pages.find((one) => one.address === address)?.notes.map(({ message }) => message) ?? [];

export const following = (signal = new AbortController().signal) => ({ onProgress: () => undefined, signal });

const plainly = { posts: true, published: true, first: true, menu: null };

export function emptySite() {
  const site = {} as { trivet: Trivet; administrator: Administrator; picture: Uint8Array };

  beforeAll(async () => {
    site.trivet = await openUnkept();
    expect(
      await importSite(
        site.trivet,
        { ...READY_MADE.empty.site(start), roles: [{ id: 'colleague', name: 'Colleague' }], people: [una] },
        'Una',
      ),
    ).toEqual([]);
    const person = site.trivet.state.people.get(asId<PersonId>('una'));
    const may = person && administratorOf({ person, facts: person.facts, session: 'here' });
    if (!may) throw new Error('Una may not use the desk.');
    site.administrator = may;
    site.picture = new Uint8Array(
      await sharp({ create: { width: 40, height: 30, channels: 3, background: '#456' } })
        .png()
        .toBuffer(),
    );
    await keep(site.trivet.db);
  });
  afterEach(async () => {
    await putBack(site.trivet.db);
    await site.trivet.reload();
  });
  afterAll(() => site.trivet.close());

  async function send(archive: Uint8Array): Promise<string> {
    const sent = await sendFolder(site.trivet, site.administrator, streamOf(archive), 'old site');
    if (sent.kind !== 'sent') throw new Error(sent.message);
    return sent.source;
  }

  const refusal = async (archive: Uint8Array): Promise<string> => {
    const sent = await sendFolder(site.trivet, site.administrator, streamOf(archive), 'old site');
    return sent.kind === 'wrong' ? sent.message : 'It was taken.';
  };

  const asked = (source: unknown, basis: string | null, wishes: object = {}) => ({
    source,
    wishes: { above: site.trivet.state.outline.root, ...plainly, ...wishes },
    basis,
  });

  const ask = (input: unknown, signal?: AbortSignal): Promise<TakingAnswer> =>
    takeIn(site.trivet, site.administrator, input, now, following(signal));

  async function look(source: string, wishes: object = {}): Promise<TakingReport> {
    const answer = await ask(asked(source, null, wishes));
    if (answer.kind !== 'report') throw new Error(JSON.stringify(answer));
    return answer.report;
  }

  async function taken(files: Readonly<Record<string, string | Uint8Array>>, wishes: object = {}) {
    const source = await send(zipOf(files));
    const report = await look(source, wishes);
    const answer = await ask(asked(source, report.basis, wishes));
    if (answer.kind !== 'taken') throw new Error(JSON.stringify(answer));
    return { report, taking: answer.taking };
  }

  return { site, send, refusal, asked, ask, look, taken };
}
