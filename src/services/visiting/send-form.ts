/** Sending a form that stands on a page. Whoever may not see it can't send it. */
import { asId, type ItemId, type Messages, pageOf } from '@/core';
import { type FormField, putIntoOutbox } from '@/store';
import { messagesOf, type Trivet } from '../running';
import { contentOf, opens, type ViewContext } from '../view';

export type FormAnswer =
  | { readonly kind: 'sent'; readonly thanks: string; readonly back: string; readonly title: string }
  | {
      readonly kind: 'wrong';
      readonly fields: readonly FormField[];
      readonly button: string;
      readonly title: string;
      readonly values: readonly string[];
      readonly problems: readonly (string | undefined)[];
    }
  /** There is no such form, as far as this visitor can tell. */
  | { readonly kind: 'missing' };

const LONGEST = 5000;

/** Checks what was filled in and puts it into the outbox. */
export async function sendForm(
  trivet: Trivet,
  context: ViewContext,
  id: string,
  given: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<FormAnswer> {
  const item = context.state.outline.items.get(asId<ItemId>(id));
  const form = item && contentOf(context.state, item.id).section;
  const page = item && pageOf(context.state.outline, item);
  if (item?.kind !== 'section' || form?.type !== 'form' || !opens(context, item.id))
    return { kind: 'missing' };
  const values = form.fields.map((_, index) => {
    const value = given[`f${index}`];
    return typeof value === 'string' ? value.trim().slice(0, LONGEST) : '';
  });
  const { form: words } = messagesOf(context.state);
  const problems = form.fields.map((field, index) => problemWith(field, values[index] ?? '', words));
  if (problems.some((problem) => problem !== undefined))
    return { kind: 'wrong', fields: form.fields, button: form.button, title: item.title, values, problems };
  const lines = form.fields.map((field, index) => `${field.label}: ${values[index] || '—'}`);
  const who = context.person ? `${context.person.name} <${context.person.email}>` : 'a guest';
  const typed = form.fields.flatMap(({ type }, index) => (type === 'mail' && values[index]) || []);
  await putIntoOutbox(trivet.db, {
    to: form.mailTo,
    replyTo: typed[0] ?? context.person?.email ?? null,
    subject: page ? `${page.title}: ${item.title}` : item.title,
    text: `${lines.join('\n')}\n\nSent by ${who}.`,
    at: now,
  });
  return { kind: 'sent', thanks: form.thanks, back: page?.address ?? '/', title: item.title };
}

function problemWith(
  { type, required, choices }: FormField,
  value: string,
  words: Messages['form'],
): string | undefined {
  if (value === '') return required ? (type === 'tick' ? words.tick : words.fillIn) : undefined;
  if (type === 'mail' && !/^[^@\s]+@[^@\s]+\.[^@\s]+$/.test(value)) return words.email;
  if (type === 'choice' && !choices.includes(value)) return words.choice;
  return undefined;
}
