/** What members see and change of themselves. */
import { type Field, type FieldValue, groupsAt, levelAt, nameOfId } from '@/core';
import { personOfView, type View } from './context';

export interface AccountView {
  readonly name: string;
  readonly email: string;
  readonly level: string | null;
  /** Groups that may be told of. */
  readonly groups: readonly string[];
  /** The fields that members fill in themselves, with what is in them. */
  readonly fields: readonly { readonly field: Field; readonly value: FieldValue | null }[];
  readonly action: string;
  readonly keys: string;
  /** Where the form leads afterwards. */
  readonly back: string;
}

/** The account of whoever looks, or null for guests and stand-ins that are made up. */
export function accountOf(context: View, back: string): AccountView | null {
  const { base } = context;
  const person = personOfView(context);
  if (!person) return null;
  const { vocabulary } = context.compiled;
  // With what their purchases give them today.
  const held = context.ask('own standing', ({ facts, request: { today } }) => ({
    level: levelAt(facts, today, vocabulary.levels),
    groups: groupsAt(facts, today) ?? [],
  }));
  return {
    name: person.name,
    email: person.email,
    level: held.level && nameOfId(vocabulary, 'level', held.level),
    groups: vocabulary.groups
      .filter((group) => !group.private && held.groups.includes(group.id))
      .map(({ name }) => name),
    fields: vocabulary.fields
      .filter(({ editable }) => editable)
      .map((field) => ({ field, value: person.profile[field.id] ?? null })),
    action: `${base}/me`,
    keys: `${base}/me/keys`,
    back,
  };
}
