/** A letter of the outbox as it goes out: RFC 5322, as plain text and as HTML. */
import { paragraphsOf } from '@/core';
import type { Mail } from '@/store';

/** What nodemailer makes a message of. */
export interface Message {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: { readonly name: string; readonly address: string };
  readonly replyTo?: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  readonly date: Date;
  readonly messageId: string;
  readonly headers: Readonly<Record<string, string>>;
}

interface Sender {
  /** What the site is called. */
  readonly name: string;
  readonly address: string;
  /** The site's own, so that letters of two sites are never taken for one. */
  readonly mark: string;
  /** The language of the site (BCP 47). */
  readonly language: string;
}

/**
 * Makes a letter. It has the same name at every try, so that a mailbox that got it twice shows it once, and says that no
 * person wrote it, so that nothing answers by itself (RFC 3834).
 */
export function messageOf(
  { id, at, to, replyTo, subject, text }: Pick<Mail, 'id' | 'at' | 'to' | 'replyTo' | 'subject' | 'text'>,
  { name, address, mark, language }: Sender,
): Message {
  return {
    from: { name, address },
    to: { name: '', address: to },
    ...(replyTo !== null && { replyTo: { name: '', address: replyTo } }),
    subject: subject.replace(/\s+/g, ' ').trim(),
    text,
    html: asHtml(text, language),
    date: at,
    messageId: `<${id}.${mark}@${address.slice(address.lastIndexOf('@') + 1)}>`,
    headers: { 'Auto-Submitted': 'auto-generated' },
  };
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (one) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[one] ?? one);

const STYLE =
  'font: 16px/1.6 Georgia, serif; color: #1b2530; max-width: 36em; margin: 0 auto; padding: 1.5em 1em';

/** Paragraphs as they stand, with addresses that can be followed. */
export function asHtml(text: string, language: string): string {
  const part = (one: string, at: number) =>
    at % 2 === 1 ? `<a href="${escaped(one)}">${escaped(one)}</a>` : escaped(one).replaceAll('\n', '<br>');
  const paragraphs = paragraphsOf(text).map((parts) => `<p>${parts.map(part).join('')}</p>`);
  return `<!doctype html><html lang="${escaped(language)}"><body style="${STYLE}">${paragraphs.join('')}</body></html>`;
}
