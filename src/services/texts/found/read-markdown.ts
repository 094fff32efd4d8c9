/** Markdown with front matter, as a text that a site can hold. */
import type { Root } from 'mdast';
import { toString as textOf } from 'mdast-util-to-string';
import rehypeRaw from 'rehype-raw';
import remarkRehype from 'remark-rehype';
import { unified } from 'unified';
import { markdownProblem } from '../markdown';
import type { DocumentRead, FoundDocument, Note } from './document';
import { hasMarkup, parser, spotsIn, withoutOurs } from './finish-body';
import { frontMatterOf } from './front-matter';
import { markdownOfHtml } from './markdown-of-html';

// Markup in Markdown can span several pieces of it, so the whole is read as a browser would.
const toHtml = unified().use(remarkRehype, { allowDangerousHtml: true }).use(rehypeRaw).freeze();

/** Reads a Markdown text. */
export function readMarkdown(text: string): DocumentRead {
  const { about, body, skipped, notes } = frontMatterOf(text);
  const at = (line: number) => line + skipped;
  const problem = markdownProblem(body);
  if (problem) return { problem: `Line ${at(problem.line)}: ${problem.message}` };
  const tree = parser.parse(body) as Root;
  const all: Note[] = [...notes, ...templatesIn(body, at)];
  const marked = hasMarkup(tree);
  const converted = marked ? markdownOfHtml(toHtml.runSync(tree) as never) : null;
  if (converted) {
    all.push(...converted.notes);
    if (/^\[\^[^\]]+\]:/m.test(body))
      all.push({ line: null, message: 'With markup in it, its footnotes became a list at its end.' });
  }
  const plain = withoutOurs(converted?.body ?? body);
  all.push(
    ...plain.notes.map((one) => ({ ...one, line: converted || one.line === null ? null : at(one.line) })),
  );
  return finished(
    { ...about, title: about.title ?? titleIn(tree) },
    plain.body,
    converted?.anchors ?? {},
    all,
  );
}

/** What makes a document of a body, whichever way that came about. */
export function finished(
  about: Omit<FoundDocument, 'body' | 'spots' | 'anchors' | 'notes'>,
  body: string,
  anchors: Readonly<Record<string, string>>,
  notes: readonly Note[],
): DocumentRead {
  const trimmed = body.replace(/^\n+|\s+$/g, '');
  const problem = markdownProblem(trimmed);
  if (problem) return { problem: problem.message };
  return { document: { ...about, body: trimmed, spots: spotsIn(trimmed), anchors, notes } };
}

/** The words of the heading that a text begins with. */
function titleIn(tree: Root): string | null {
  const first = tree.children.find(({ type }) => type !== 'html');
  if (first?.type !== 'heading') return null;
  const words = textOf(first, { includeHtml: false }).replace(/\s+/g, ' ').trim();
  return words === '' ? null : words.slice(0, 200);
}

const MOST_TOLD = 5;

/** Where something stands that a program would have filled in. */
function templatesIn(body: string, at: (line: number) => number): readonly Note[] {
  const found = body
    .split('\n')
    .flatMap((line, index) => (/\{[{%][^}]*[}%]\}/.test(line) ? [at(index + 1)] : []));
  return found.slice(0, MOST_TOLD).map((line) => ({
    line,
    message: 'Something stands here in braces that a program filled in. It is kept as it is written.',
  }));
}
