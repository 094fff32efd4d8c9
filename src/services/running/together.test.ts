/** Two processes on one database, as far as one can be two: what one changes holds at the other. */
import { afterEach, beforeEach, describe, expect, inject, it, vi } from 'vitest';
import { asId, decide, guest, type ItemId, type PersonId, type Policy, signedIn } from '@/core';
import { openDatabase, type Together } from '@/store';
import { ask, databaseOnServer } from '@/store/testing';
import {
  importSite,
  journalReport,
  keysOf,
  makeKey,
  personWithKey,
  putLive,
  READY_MADE,
  revokeKey,
  saveDraft,
  signOut,
  Trivet,
  tellTroubleTo,
  visitorOf,
} from '..';
import { gretaAt, now, signedInAt } from '../testing';
import { staleParts } from '../testing-memory';
import { plainRequest } from './clock';

const marek = asId<PersonId>('marek');

describe.skipIf(inject('server') === null)('two processes on one database', () => {
  let url: string;
  let drop: () => Promise<void>;
  let one: Trivet;
  let other: Trivet;

  beforeEach(async () => {
    ({ url, drop } = await databaseOnServer('loaded'));
    [one, other] = await Promise.all([Trivet.open(url), Trivet.open(url)]);
  });
  afterEach(async () => {
    await one.close();
    await other.close();
    await drop();
  });

  /** Settles when a process knows what is in the database now. */
  const catchesUp = async (trivet: Trivet) => {
    trivet.currency?.lapse();
    expect(await trivet.currency?.becomesCurrent()).toBe(true);
  };
  const opened = (trivet: Trivet): Policy => ({
    ...trivet.state.live.policy,
    gates: trivet.state.live.policy.gates.map((gate) => ({ ...gate, who: signedIn })),
  });
  const given = ({ state }: Trivet) => {
    const facts = state.people.get(marek)?.facts;
    if (!facts) throw new Error('Marek is gone.');
    return [...state.outline.items.keys()].map(
      (item) => decide(state.live.compiled, item, facts, plainRequest(state, now)).kind,
    );
  };

  it('reads everything and takes changes in one after the other: nothing older is put over what is newer', async () => {
    const database = await openDatabase(url);
    const { together } = database;
    if (!together) throw new Error('A server is for several.');
    let [underWay, most] = [0, 0];
    const atOnce: Together['atOnce'] = async (read) => {
      underWay += 1;
      most = Math.max(most, underWay);
      return together.atOnce(read).finally(() => {
        underWay -= 1;
      });
    };
    const third = await Trivet.over({ ...database, together: { ...together, atOnce } });
    await Promise.all([third.reload(), third.change(() => Promise.resolve()), third.reload()]);
    expect(most).toBe(1);
    await third.close();
  });

  it('holds at one what is put live at the other, and at once where it was', async () => {
    const greta = await gretaAt(one);
    const before = given(other);
    expect(
      await saveDraft(one, greta, { version: one.state.draft.version, policy: opened(one) }),
    ).toMatchObject({
      kind: 'saved',
    });
    const { draft, live } = one.state;
    expect(
      await putLive(one, greta, { version: draft.version, revision: live.revision, note: '' }, now),
    ).toMatchObject({ kind: 'live' });
    expect(given(one)).not.toEqual(before);
    await catchesUp(other);
    expect(given(other)).toEqual(given(one));
    expect(await staleParts(other, now)).toEqual([]);
  });

  it('looks at what the other has written before it writes', async () => {
    const [greta, again] = [await gretaAt(one), await gretaAt(other)];
    const { version } = one.state.draft;
    const [here, there] = await Promise.all([
      saveDraft(one, greta, { version, policy: opened(one) }),
      saveDraft(other, again, { version, policy: { ...opened(other), audiences: [] } }),
    ]);
    expect([here.kind, there.kind].toSorted()).toEqual(['saved', 'stale']);
    // Whoever came too late gets the draft of the other, which its own process had not heard of.
    const stale = here.kind === 'stale' ? here : there;
    expect(stale.kind === 'stale' && stale.theirs.version).toBe(version + 1);
    expect(one.state.draft.version).toBe(other.state.draft.version);
  });

  it('ends a session everywhere', async () => {
    const { token, visitor } = await signedInAt(one, 'marek');
    // Both know it by heart.
    expect((await visitorOf(other, token, now)).person?.id).toBe(marek);
    await signOut(one, visitor);
    expect((await visitorOf(one, token, now)).person).toBe(null);
    await catchesUp(other);
    expect((await visitorOf(other, token, now)).person).toBe(null);
  });

  it('takes a key back everywhere', async () => {
    const made = await makeKey(one, marek, { use: 'api', name: 'Telescope' }, now);
    const key = made.kind === 'made' ? made.key : '';
    for (const trivet of [one, other, other])
      expect((await personWithKey(trivet, key, 'api'))?.id).toBe(marek);
    expect(await personWithKey(other, key, 'feed')).toBe(null);
    expect([...other.keys.values()]).toEqual([marek]);
    const [kept] = await keysOf(one, marek);
    await revokeKey(one, marek, kept?.id);
    expect(await personWithKey(one, key, 'api')).toBe(null);
    await catchesUp(other);
    expect(await personWithKey(other, key, 'api')).toBe(null);
  });

  it('forgets by whom somebody was who is taken away', async () => {
    const { token } = await signedInAt(other, 'marek');
    await ask(url, `delete from people where id = 'marek'`);
    await catchesUp(other);
    expect(other.sessions.size).toBe(0);
    expect((await visitorOf(other, token, now)).person).toBe(null);
    expect(await staleParts(other, now)).toEqual([]);
  });

  it('knows nothing for certain while the database is not there, and all of it again when it is', async () => {
    // Whoever runs a server hears of it; here nobody does.
    tellTroubleTo(() => undefined);
    await catchesUp(other);
    const name = new URL(url).pathname.slice(1);
    await ask(url.replace(name, 'postgres'), `alter database ${name} allow_connections false`);
    const cut = `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`;
    await ask(url.replace(name, 'postgres'), cut);
    other.currency?.lapse();
    expect(other.currency?.isCurrent).toBe(false);
    const waits = other.currency?.becomesCurrent();
    await ask(url.replace(name, 'postgres'), `alter database ${name} allow_connections true`);
    await ask(url, `update people set name = 'Marek the Second' where id = 'marek'`);
    expect(await waits).toBe(true);
    await catchesUp(other);
    expect(other.state.people.get(marek)?.name).toBe('Marek the Second');
    tellTroubleTo(null);
  });

  it('begins a site once, whoever begins it', async () => {
    const empty = await databaseOnServer('empty');
    const both = await Promise.all([Trivet.open(empty.url), Trivet.open(empty.url)]);
    const start = { title: 'Hazel & Co', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
    const owner = {
      id: 'una',
      name: 'Una',
      email: 'una@hazel.example',
      desk: { right: 'owner', branch: null },
    };
    const site = { ...READY_MADE.empty.site(start), people: [owner] };
    const answers = await Promise.all(both.map((trivet) => importSite(trivet, site, 'Una')));
    expect(answers.map(({ length }) => length).toSorted()).toEqual([0, 1]);
    expect(answers.flat()[0]).toMatch(/There is a site already/);
    for (const trivet of both) expect(trivet.state.people.size).toBe(1);
    for (const trivet of both) await trivet.close();
    await empty.drop();
  });

  it('counts whoever is turned away at one and let in at the other as one who got in', async () => {
    const visit = { browser: '192.0.2.1 A', person: null, now };
    const item = asId<ItemId>('crew');
    const away = decide(one.state.live.compiled, item, guest, plainRequest(one.state, now));
    one.journal.note(one, visit, item, away);
    // A notice takes its time on its way: until then nobody is known to wait.
    await vi.waitFor(async () => {
      other.journal.note(other, visit, item, { kind: 'open' });
      await other.journal.flush(other, now);
      await one.journal.flush(one, now);
      const { entries } = await journalReport(one, await gretaAt(one), 7, now);
      expect(entries).toMatchObject([{ item: 'crew', count: 1, gotIn: 1, left: 0 }]);
    });
  });
});
