/** A site in another language says nothing of its own in English, by any door that people look at. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { english, messagesIn } from '@/core';
import { latestMail, type Trivet } from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { updateSettings } from '@/store';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { askDoor } from './testing';

let trivet: Trivet;
let member: Readonly<Record<string, string>>;
beforeAll(async () => {
  trivet = await openLarkfell();
  member = { cookie: `${SESSION_COOKIE}=${(await signedInAt(trivet, 'odile')).token}` };
});
afterAll(() => trivet.close());

const speak = (language: string) => trivet.change(() => updateSettings(trivet.db, { language }));

/** What English says that is never anybody's title: sentences and labels of several words. */
const ENGLISH = (function textsOf(one: object): readonly string[] {
  return Object.values(one).flatMap((value) =>
    typeof value === 'string' ? [value] : typeof value === 'object' && value !== null ? textsOf(value) : [],
  );
})(english).filter((text) => text.length > 12 && text.includes(' '));

const read = async (path: string, headers: Readonly<Record<string, string>> = {}) =>
  (textOf(await askDoor(trivet, path, { headers, at: now })) ?? '')
    .replaceAll('&#x27;', '’')
    .replaceAll('&amp;', '&');

const PATHS = ['/', '/nothing/here', '/sign-in', '/sign-in?next=/visit', '/sign-up', '/reset', '/passphrase'];
const OWN = ['/me', '/me/keys', '/me/purchases', '/search', '/search?q=moon', '/shop', '/sign-in'];

it('says all of it in the other, also where a page was made before', async () => {
  for (const path of PATHS) await read(path);
  await speak('de');
  const pages = [
    ...(await Promise.all(PATHS.map(async (path) => [path, await read(path)] as const))),
    ...(await Promise.all(OWN.map(async (path) => [path, await read(path, member)] as const))),
  ];
  const german = messagesIn('de');
  for (const [path, html] of pages) {
    expect([path, html.includes('<html lang="de">')]).toEqual([path, true]);
    expect([path, html.includes(german.frame.skip)]).toEqual([path, true]);
    expect([path, ENGLISH.filter((text) => html.includes(text))]).toEqual([path, []]);
  }
  const text = new Map(pages);
  expect(await read('/feed.xml')).toContain('<language>de</language>');
  expect(JSON.parse(await read('/feed.json'))).toMatchObject({
    language: 'de',
    description: german.lists.latest('Larkfell Observatory'),
  });
  expect(text.get('/nothing/here')).toContain(german.frame.nothingHeading);
  expect(text.get('/sign-up')).toContain(german.signUp.lead);
  await speak('en');
  expect(await read('/sign-in')).toContain('I forgot my password');
});

it('says in it how far one is in a course, also where its lines were drawn before', async () => {
  const learner = { cookie: `${SESSION_COOKIE}=${(await signedInAt(trivet, 'ines')).token}` };
  const course = () => read('/courses/dome-operator-induction', learner);
  const activity = () => read('/courses/dome-operator-induction/ladder-safety', learner);
  const said = (language: string) => `<small> ${messagesIn(language).course.isDone}</small>`;
  const around = (language: string) => `aria-label="${messagesIn(language).course.around}"`;
  expect(await course()).toContain(said('en'));
  expect(await activity()).toContain(around('en'));
  await speak('de');
  expect(await course()).toContain(said('de'));
  expect(await course()).not.toContain(said('en'));
  expect(await activity()).toContain(around('de'));
  expect(await activity()).toContain(messagesIn('de').course.youAreDone);
  await speak('en');
});

it('says in it what is wrong with a form, and writes letters in it', async () => {
  await speak('de');
  const send = async (path: string, form: Readonly<Record<string, string>>) =>
    textOf(await askDoor(trivet, path, { form: new URLSearchParams(form), at: now })) ?? '';
  const { signIn, signUp, passphrase, letters } = messagesIn('de');
  expect(await send('/sign-in', { email: '', password: '' })).toContain(signIn.noEmail);
  expect(await send('/sign-in', { email: 'a@b.example', password: 'wrong' })).toContain(signIn.wrong);
  expect(await send('/sign-up', { name: '', email: 'x', password: 'short' })).toContain(signUp.shortPassword);
  expect(await send('/passphrase', { passphrase: 'wrong' })).toContain(passphrase.wrong);
  await send('/sign-up', { name: 'Nia', email: 'nia@place.example', password: 'a lamp at the gate' });
  const [letter] = (await latestMail(trivet, await gretaAt(trivet))).letters;
  expect(letter?.subject).toBe(letters.signUp.subject.replace('{site}', 'Larkfell Observatory'));
  await speak('en');
});

it('is named where Trivet does not speak it, and what Trivet says is English', async () => {
  await speak('pt-BR');
  const html = await read('/sign-in');
  expect(html).toContain('<html lang="pt-BR">');
  expect(html).toContain('I forgot my password');
  await speak('ar');
  expect(await read('/sign-in')).toContain('<html lang="ar" dir="rtl">');
  await speak('en');
});
