/** A loaded Larkfell in memory for the tests of services, and its people signed in. */
import { everyone, type Policy, type VisitorFacts } from '@/core';
import { lastChange, type OpenDatabase } from '@/store';
import { openFresh, openLoaded } from '@/store/testing';
import { larkfell } from '../../demo/larkfell';
import { DEMO_PASSWORD } from '../../demo/people';
import {
  type Administrator,
  administratorOf,
  importSite,
  plainRequest,
  signIn,
  Trivet,
  type ViewContext,
  type Visitor,
  viewOf,
  visitorOf,
} from '.';
import { keep, putBack } from './testing-database';
import { staleParts } from './testing-memory';

/** The moment at which tests happen. */
export const now = new Date('2026-11-20T20:00:00Z');

export const later = (minutes: number): Date => new Date(now.getTime() + minutes * 60_000);

// Hashing a password takes its time, so only those with a story can sign in here.
const people = (larkfell.people ?? []).map((person, index) =>
  index < 12 ? person : { ...person, password: undefined },
);
// What the demo expects would stop most of what tests put live; those that are about that say what is expected.
const quicker = { ...larkfell, people, policy: { ...(larkfell.policy as object), expectations: [] } };

/** Loads a Larkfell from the demo into an empty database. */
export async function loadLarkfell(opened: OpenDatabase): Promise<Trivet> {
  const trivet = await Trivet.over(opened);
  const problems = await importSite(trivet, quicker, 'The demo');
  if (problems.length > 0) throw new Error(problems.join('\n'));
  await keep(trivet.db);
  return trivet;
}

const keptFresh = async (): Promise<OpenDatabase> => {
  const opened = await openFresh();
  await keep(opened.db);
  return opened;
};

/** Databases by what they begin as: how one is opened, and those of tests that are over, for the tests that follow. */
const BEGINNINGS = {
  empty: { open: keptFresh, spare: [] as OpenDatabase[] },
  larkfell: { open: openLoaded, spare: [] as OpenDatabase[] },
};

async function openAs(beginning: keyof typeof BEGINNINGS): Promise<Trivet> {
  const { open, spare } = BEGINNINGS[beginning];
  const ready = spare.pop();
  if (ready) await putBack(ready.db);
  const opened = ready ?? (await open());
  const before = await lastChange(opened.db);
  const trivet = await Trivet.over({
    ...opened,
    close: async () => {
      // Whatever a test has changed: memory is what would be read.
      const stale = (await lastChange(opened.db)) === before ? [] : await staleParts(trivet, now);
      spare.push(opened);
      if (stale.length > 0) throw new Error(`Memory is not what the database holds: ${stale.join(', ')}.`);
    },
  });
  return trivet;
}

/** One without a site. Close it afterwards. */
export const openEmpty = (): Promise<Trivet> => openAs('empty');

/** The same in a database of its own: for tests that {@link keep} what they begin with. */
export const openUnkept = async (): Promise<Trivet> => Trivet.over(await openFresh());

/** A fresh Larkfell, from the one that was loaded once for all tests. Close it afterwards. */
export const openLarkfell = (): Promise<Trivet> => openAs('larkfell');

let addresses = 0;

/** An attempt to sign in, each from a network address of its own unless one is given. */
export const attemptAt =
  (trivet: Trivet) =>
  (
    email: unknown,
    password: unknown,
    over: { next?: unknown; from?: string; at?: Date; devices?: readonly string[] } = {},
  ) =>
    signIn(
      trivet,
      {
        email,
        password,
        next: over.next,
        from: over.from ?? `10.0.0.${addresses++}`,
        passphrases: [],
        ...(over.devices && { devices: over.devices }),
      },
      over.at ?? now,
    );

/** Somebody signed in. */
export async function signedInAt(
  trivet: Trivet,
  name: string,
  at = now,
): Promise<{ token: string; visitor: Visitor }> {
  const answer = await attemptAt(trivet)(`${name}@larkfell.example`, DEMO_PASSWORD, { at });
  if (answer.kind !== 'signed in') throw new Error(`${name} can't sign in.`);
  return { token: answer.token, visitor: await visitorOf(trivet, answer.token, at) };
}

/** Greta at the desk. */
export async function gretaAt(trivet: Trivet): Promise<Administrator> {
  const administrator = administratorOf((await signedInAt(trivet, 'greta')).visitor);
  if (!administrator) throw new Error('Greta may not use the desk.');
  return administrator;
}

/** What is live, with one gate opened to everyone. */
export const withOpened = (trivet: Trivet, gate: string): Policy => ({
  ...trivet.state.live.policy,
  gates: trivet.state.live.policy.gates.map((one) => (one.id === gate ? { ...one, who: everyone } : one)),
});

/** Somebody looking at the live site. */
export const liveContext = (state: Trivet['state'], facts: VisitorFacts, base = ''): ViewContext =>
  viewOf({
    state,
    compiled: state.live.compiled,
    facts,
    person: facts.id === null ? null : (state.people.get(facts.id) ?? null),
    request: plainRequest(state, now),
    base,
  });
