/** Who may make an account: what is set is kept to, and nobody learns from it who has one. */
import { afterEach, beforeEach, expect, it } from 'vitest';
import {
  type Administrator,
  confirmSignUp,
  editSettings,
  latestMail,
  openSettings,
  startSignUp,
  type Trivet,
} from '..';
import { gretaAt, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const allow = (who: string, domains: readonly string[] = []) => {
  const { given: _, ...set } = openSettings(trivet, greta);
  return editSettings(trivet, greta, { ...set, signUp: { who, domains } }, now);
};

let networks = 0;
const confirming = () => ({ from: `10.3.0.${networks++}`, passphrases: [] });

/** Signs up with a mail address as far as it goes; answers whether an account came of it. */
async function signsUp(email: string): Promise<boolean> {
  const fields = { name: 'Nell', email, password: 'long enough' };
  const sent = await startSignUp(trivet, fields, `10.2.0.${networks++}`, now);
  // Whoever asks is told the same in any case.
  if (sent.kind !== 'sent') throw new Error(sent.kind);
  const { text = '' } = (await latestMail(trivet, greta)).letters[0] ?? {};
  const [, code = '000000'] = /Your code is (\d{6})/.exec(text) ?? [];
  const done = await confirmSignUp(trivet, { token: sent.token, code }, confirming(), now);
  if (code === '000000') expect(text).toContain('was not');
  return done.kind === 'done';
}

it('is anybody, until something else is set', async () => {
  expect(openSettings(trivet, greta).signUp).toEqual({ who: 'anybody', domains: [] });
  expect(await signsUp('nell@anywhere.example')).toBe(true);
});

it('is whoever has a mail address at one of the domains, and not at one that looks like it', async () => {
  expect(await allow('domains', [' Hazel.example ', 'oak.example'])).toBeNull();
  expect(await signsUp('nell@hazel.example')).toBe(true);
  expect(await signsUp('nell@OAK.example')).toBe(true);
  for (const email of ['nell@nothazel.example', 'nell@a.hazel.example', 'hazel.example@evil.example'])
    expect(await signsUp(email)).toBe(false);
});

it('is nobody but who is written down', async () => {
  expect(await allow('invited')).toBeNull();
  expect(await signsUp('nell@hazel.example')).toBe(false);
  const [known] = [...trivet.state.people.values()].slice(-1);
  expect(await signsUp(known?.email ?? '')).toBe(true);
});

it('is refused where it is none, and nothing is changed', async () => {
  expect(await allow('domains')).toEqual({ 'signUp.domains': 'Write the domains of those who may sign up.' });
  expect(await allow('domains', ['no domain'])).toMatchObject({ 'signUp.domains.0': expect.any(String) });
  expect(await allow('friends')).toMatchObject({ 'signUp.who': 'Choose who may sign up.' });
  expect(openSettings(trivet, greta).signUp?.who).toBe('anybody');
});
