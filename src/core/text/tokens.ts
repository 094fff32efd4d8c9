/** The text form cut into tokens. Takes time in proportion to the text. */

export interface Token {
  readonly kind: 'word' | 'quoted' | 'number' | 'day' | 'time' | 'mark' | 'odd' | 'end';
  /** The value: a word in small letters, a quoted text without its quotes, anything else as it stands. */
  readonly value: string;
  /** As it stands. */
  readonly raw: string;
  readonly from: number;
  readonly to: number;
  /** For a token that can't be read: what is wrong with it. */
  readonly problem?: string;
}

const BLANK = /\s+/y;
const SHAPES: readonly (readonly [Token['kind'], RegExp])[] = [
  ['day', /\d{4}-\d{2}-\d{2}(?![\p{L}\p{N}_])/uy],
  ['time', /\d{2}:\d{2}(?![\p{L}\p{N}_])/uy],
  ['number', /-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/y],
  ['word', /[\p{L}_][\p{L}\p{M}\p{N}_'’-]*/uy],
  ['mark', /[(),]/y],
];
const QUOTED = /"((?:[^"\\]|\\["\\])*)"/y;
const OPEN_QUOTE = /"(?:[^"\\]|\\["\\])*/y;

/** The tokens of a text, the last of them its end. */
export function tokensOf(text: string): readonly Token[] {
  const tokens: Token[] = [];
  let at = 0;
  const take = (shape: RegExp): RegExpExecArray | null => {
    shape.lastIndex = at;
    return shape.exec(text);
  };
  const push = (kind: Token['kind'], raw: string, value: string, problem?: string) => {
    tokens.push({ kind, raw, value, from: at, to: at + raw.length, ...(problem && { problem }) });
    at += raw.length;
  };
  while (at < text.length) {
    const blank = take(BLANK);
    if (blank) {
      at += blank[0].length;
      continue;
    }
    if (text[at] === '"') {
      const quoted = take(QUOTED);
      if (quoted) push('quoted', quoted[0], (quoted[1] ?? '').replace(/\\(["\\])/g, '$1'));
      else {
        const open = take(OPEN_QUOTE)?.[0] ?? '"';
        const problem =
          at + open.length < text.length
            ? 'A backslash in quotes stands before " or another backslash only.'
            : 'The quotes that begin here do not end. Put " behind the text.';
        push('odd', open, open.slice(1), problem);
      }
      continue;
    }
    const shape = SHAPES.map(([kind, regexp]) => [kind, take(regexp)?.[0]] as const).find(([, raw]) => raw);
    if (shape?.[1]) push(shape[0], shape[1], shape[0] === 'word' ? shape[1].toLowerCase() : shape[1]);
    else {
      const odd = String.fromCodePoint(text.codePointAt(at) ?? 0);
      push('odd', odd, odd, `“${odd}” has no meaning here. Put names and texts in straight quotes.`);
    }
  }
  push('end', '', '');
  return tokens;
}
