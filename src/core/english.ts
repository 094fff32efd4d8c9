/** Joining words into English. */

/** "a", "a and b", "a, b and c". */
export function listed(parts: readonly string[], word: 'and' | 'or' = 'and'): string {
  if (parts.length < 2) return parts[0] ?? '';
  return `${parts.slice(0, -1).join(', ')} ${word} ${parts.at(-1)}`;
}

/** "1 member", "2 members". */
export const counted = (count: number, one: string, many = plural(one)): string =>
  `${count} ${count === 1 ? one : many}`;

/** The plural of a name, well enough for the names of levels and roles. */
export const plural = (name: string): string =>
  /(s|x|z|ch|sh)$/i.test(name)
    ? `${name}es`
    : /[^aeiou]y$/i.test(name)
      ? `${name.slice(0, -1)}ies`
      : `${name}s`;

/** With its article: "a page", "an activity". */
export const indefinite = (name: string): string => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`;

/** With a capital at the start. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
