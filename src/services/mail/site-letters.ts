/** The letters of a site as its owner reads and changes them. */
import { z } from 'zod';
import {
  exampleOf,
  filledLetter,
  LETTER_KINDS,
  type LetterKind,
  type LetterTemplate,
  same,
  siteTitleOf,
} from '@/core';
import { putIntoOutbox, writeSiteLetter } from '@/store';
import { letterShape } from '../forms';
import { type Administrator, environment, messagesOf, requirePermission, type Trivet } from '../running';
import { templateOf } from './written-letter';

/** A kind of letter: what it says, and what Trivet would say in the site's language. */
export interface SiteLetter {
  readonly kind: LetterKind;
  readonly letter: LetterTemplate;
  readonly ours: LetterTemplate;
}

/** Every kind of letter, with what the site is called. */
export function openLetters(
  { state }: Trivet,
  administrator: Administrator,
): { readonly site: string; readonly letters: readonly SiteLetter[] } {
  requirePermission(administrator, 'everything');
  const ours = messagesOf(state).letters;
  return {
    site: siteTitleOf(state.outline),
    letters: LETTER_KINDS.map((kind) => ({ kind, letter: templateOf(state, kind), ours: ours[kind] })),
  };
}

export type LetterAnswer =
  | { readonly kind: 'kept' | 'on its way' }
  /** By part: `subject`, `text`, or `form` for all of it. */
  | { readonly kind: 'wrong'; readonly problems: Readonly<Record<string, string>> }
  /** Somebody else changed it meanwhile: what it says now. */
  | { readonly kind: 'changed'; readonly theirs: LetterTemplate };

const was = z.strictObject(
  { subject: z.string(), text: z.string() },
  { error: 'Say what the letter said when you began.' },
);
const back = z.strictObject({
  kind: z.enum(LETTER_KINDS, 'There is no such letter.'),
  letter: z.null(),
  was,
});

const problemsIn = (error: z.ZodError): LetterAnswer => ({
  kind: 'wrong',
  problems: Object.fromEntries(
    error.issues.toReversed().map(({ path, message }) => [String(path.at(-1) ?? 'form'), message]),
  ),
});

/** Keeps what a kind of letter says; null for what Trivet says itself. `was` is what it said when somebody began to change it. */
export async function keepLetter(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<LetterAnswer> {
  requirePermission(administrator, 'everything');
  const isBack = (input as { readonly letter?: unknown } | null)?.letter === null;
  const parsed = isBack ? back.safeParse(input) : letterShape.and(z.object({ was })).safeParse(input);
  if (!parsed.success) return problemsIn(parsed.error);
  const { kind, letter, was: before } = parsed.data;
  return trivet.change(async (state): Promise<LetterAnswer> => {
    const theirs = templateOf(state, kind);
    if (!same(theirs, before)) return { kind: 'changed', theirs };
    const own = letter === null || same(letter, messagesOf(state).letters[kind]) ? null : plain(letter);
    await writeSiteLetter(trivet.db, kind, own);
    return { kind: 'kept' };
  });
}

/** Lines as the store keeps them, whatever a browser makes of their ends. */
const plain = ({ subject, text }: LetterTemplate): LetterTemplate => ({
  subject: subject.trim(),
  text: text.replace(/\r\n?/g, '\n').trim(),
});

/** Sends a letter as it is being written to whoever writes it, filled in with examples. */
export async function sendSampleLetter(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<LetterAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = letterShape.safeParse(input);
  if (!parsed.success) return problemsIn(parsed.error);
  const to = trivet.state.people.get(administrator.id)?.email;
  if (to === undefined) return { kind: 'wrong', problems: { form: 'You have no mail address.' } };
  const { kind, letter } = parsed.data;
  const example = exampleOf(kind, {
    site: siteTitleOf(trivet.state.outline),
    origin: environment().publicUrl.origin,
    by: administrator.name,
  });
  const sample = filledLetter(letter, example);
  await putIntoOutbox(trivet.db, { to, ...sample, at: now });
  return { kind: 'on its way' };
}
