/** Letters in a site's own words: who writes them, what is refused, and what goes out. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { english, LETTER_KINDS, type LetterKind, type LetterTemplate, messagesIn } from '@/core';
import { readWithoutPassword, updateSettings } from '@/store';
import {
  type Administrator,
  importSite,
  invitePeople,
  keepLetter,
  latestMail,
  openLetters,
  sendSampleLetter,
  startSignUp,
  type Trivet,
} from '..';
import { siteAsFile } from '../site-file';
import { gretaAt, now, openEmpty, openLarkfell } from '../testing';
import { messageOf } from './letter';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const saidBy = (kind: LetterKind): LetterTemplate => {
  const found = openLetters(trivet, greta).letters.find((one) => one.kind === kind);
  if (!found) throw new Error(kind);
  return found.letter;
};
const keep = (kind: LetterKind, letter: LetterTemplate | null, was = saidBy(kind)) =>
  keepLetter(trivet, greta, { kind, letter, was });
const newest = async () => (await latestMail(trivet, greta)).letters[0];
const signUp = () =>
  startSignUp(
    trivet,
    { name: 'Nia', email: 'nia@place.example', password: 'a lamp at the gate' },
    '10.1.1.1',
    now,
  );

const OWN = { subject: 'Your way into {site}', text: 'Six digits: {code}\r\n\r\n<b>Welcome</b>' };

describe('a letter', () => {
  it('says what its owner wrote, from then on, and again what Trivet says when asked to', async () => {
    expect(await keep('signUp', OWN)).toEqual({ kind: 'kept' });
    expect(saidBy('signUp')).toEqual({ ...OWN, text: 'Six digits: {code}\n\n<b>Welcome</b>' });
    await signUp();
    expect(await newest()).toMatchObject({
      to: 'nia@place.example',
      subject: 'Your way into Larkfell Observatory',
      text: expect.stringMatching(/^Six digits: \d{6}\n\n<b>Welcome<\/b>$/),
    });
    expect(await keep('signUp', null)).toEqual({ kind: 'kept' });
    expect(saidBy('signUp')).toEqual(english.letters.signUp);
    expect(trivet.state.settings.letters).toEqual({});
  });

  it('is text wherever it goes: what looks like a script is read as it was written', async () => {
    await keep('signUp', { subject: '{site}', text: '<script>alert(1)</script> {code}' });
    await signUp();
    const letter = await newest();
    if (!letter) throw new Error('none');
    const { html } = messageOf(letter, { name: 'S', address: 'a@b.example', mark: 'm', language: 'de' });
    expect(html).toContain('&lt;script&gt;alert(1)&lt;/script&gt;');
    expect(html).not.toContain('<script');
  });

  it('goes with invitations: to whom, by whom, where to and until when', async () => {
    await keep('invitation', { subject: '{by} waits', text: '{name} ({until}): {link}' });
    const [one] = await readWithoutPassword(trivet.db, [...trivet.state.people.keys()]);
    await invitePeople(trivet, greta, { ids: [one] }, false, now);
    expect(await newest()).toMatchObject({
      subject: 'Greta Holm waits',
      text: expect.stringMatching(
        /^\S+ .+ \(27 November 2026\): http:\/\/localhost:3000\/sign-up\/invited\/[\w-]{43}$/,
      ),
    });
  });

  it.each([
    [{ subject: 'A', text: 'No digits.' }, { text: /needs \{code\}/ }],
    [{ subject: 'A {nam}', text: '{code}' }, { subject: /no \{nam\}/ }],
    [{ subject: 'A\nBcc: b@x.example', text: '{code}' }, { subject: /one line/ }],
    [{ subject: 'x'.repeat(5000), text: '{code}' }, { subject: /at most 200/ }],
    [{ subject: 'A', text: `{code}${'x'.repeat(90_000)}` }, { text: /at most 5000/ }],
    [{ subject: 'A', text: 7 }, { text: /./ }],
    [{ subject: 'A', text: '{code}', html: '<p>' }, { letter: /./ }],
  ])('is refused with what is wrong at its part, and stays as it was: %j', async (letter, said) => {
    const before = saidBy('signUp');
    const answer = await keepLetter(trivet, greta, { kind: 'signUp', letter, was: before });
    expect(answer.kind).toBe('wrong');
    const problems = answer.kind === 'wrong' ? answer.problems : {};
    for (const [part, words] of Object.entries(said)) expect(problems[part]).toMatch(words);
    expect(saidBy('signUp')).toEqual(before);
  });

  it.each([null, 7, {}, { kind: 'constructor', letter: null }, { kind: 'signUp', letter: OWN }])(
    'is refused where it is none: %j',
    async (input) => {
      expect((await keepLetter(trivet, greta, input)).kind).toBe('wrong');
      expect((await sendSampleLetter(trivet, greta, { kind: 'x', ...(input as object) }, now)).kind).toMatch(
        input !== null && (input as { letter?: unknown }).letter === OWN ? /on its way|wrong/ : /wrong/,
      );
    },
  );

  it('that somebody else changed meanwhile is not written over', async () => {
    const was = saidBy('receipt');
    const theirs = { ...was, subject: 'Paid: {product}, {sum}' };
    expect(await keep('receipt', theirs)).toEqual({ kind: 'kept' });
    expect(await keep('receipt', { ...was, subject: '{sum} for {product}' }, was)).toEqual({
      kind: 'changed',
      theirs,
    });
    expect(await keep('receipt', null, was)).toEqual({ kind: 'changed', theirs });
    expect(saidBy('receipt')).toEqual(theirs);
  });

  it('and another, kept at the same moment, are both there', async () => {
    const [one, other] = [saidBy('ended'), saidBy('late')];
    await Promise.all([
      keep('ended', { ...one, subject: 'Over: {product}' }),
      keep('late', { ...other, subject: 'Late: {product}' }),
    ]);
    expect([saidBy('ended').subject, saidBy('late').subject]).toEqual(['Over: {product}', 'Late: {product}']);
  });

  it('comes to whoever writes it as a sample, filled in', async () => {
    const sent = await sendSampleLetter(trivet, greta, { kind: 'receipt', letter: saidBy('receipt') }, now);
    expect(sent).toEqual({ kind: 'on its way' });
    const letter = await newest();
    expect(letter).toMatchObject({
      to: 'greta@larkfell.example',
      subject: expect.stringMatching(/^Receipt: /),
    });
    expect(letter?.text).not.toMatch(/[{}]/);
  });
});

it('are in the language of the site where they are Trivet’s, and as they were written where they are not', async () => {
  await keep('signUp', { subject: 'Hello', text: '{code}' });
  await trivet.change(() => updateSettings(trivet.db, { language: 'de-AT' }));
  expect(saidBy('signUp').subject).toBe('Hello');
  expect(saidBy('invitation')).toEqual(messagesIn('de').letters.invitation);
  expect(openLetters(trivet, greta).letters.map(({ kind }) => kind)).toEqual(LETTER_KINDS);
});

it('go along in a site file, and what is wrong with one there is said', async () => {
  await keep('signUp', { subject: 'Hello', text: '{code}' });
  await trivet.change(() => updateSettings(trivet.db, { language: 'de' }));
  const file = await siteAsFile(trivet, 'people who can sign in');
  expect(file).toMatchObject({ language: 'de', letters: { signUp: { subject: 'Hello', text: '{code}' } } });
  const other = await openEmpty();
  expect(await importSite(other, file, 'A test')).toEqual([]);
  expect(other.state.settings).toMatchObject({ language: 'de', letters: file.letters });
  await other.close();
  const third = await openEmpty();
  const wrong = {
    ...file,
    language: 'german tongue',
    letters: { signUp: { subject: 'Hello', text: 'Come.' } },
  };
  const problems = await importSite(third, wrong, 'A test');
  expect(problems).toHaveLength(2);
  expect(problems.join('\n')).toMatch(/language: A language is a tag/);
  expect(problems.join('\n')).toMatch(/letters\.signUp\.text: .*needs \{code\}/);
  await third.close();
});
