/** The beginning of a text, at most so many UTF-16 units of it; a character of two is not cut apart. */
export const cut = (text: string, longest: number): string =>
  text.slice(0, longest).replace(/[\ud800-\udbff]$/, '');
