/** Markdown with front matter, as a text that a site can hold. */
import type { Root } from 'mdast';
import { toString as textOf } from 'mdast-util-to-string';
import rehypeRaw from 'rehype-raw';
import remarkRehype from 'remark-rehype';
import { unified } from 'unified';
import { markdownProblem, parser, wordsOfTree } from '../markdown';
import { cut } from './cut';
import type { About, DocumentRead, Note } from './document';
import { hasMarkup, spotsIn, withoutOurs } from './finish-body';
import { frontMatterOf } from './front-matter';
import { markdownOfHtml } from './markdown-of-html';

// Markup in Markdown can span several pieces of it, so the whole is read as a browser would.
const toHtml = unified().use(remarkRehype, { allowDangerousHtml: true }).use(rehypeRaw).freeze();

/** Reads a Markdown text. */
export function readMarkdown(text: string): DocumentRead {
  const { about, body: whole, skipped, notes } = frontMatterOf(text);
  const blank = /^(?:[ \t]*\n)*/.exec(whole)?.[0] ?? '';
  const body = whole.slice(blank.length).trimEnd();
  const before = skipped + blank.split('\n').length - 1;
  const at = (line: number) => line + before;
  const problem = markdownProblem(body);
  if (problem) return { problem: `Line ${at(problem.line)}: ${problem.message}` };
  const tree = parser.parse(body);
  const titled = { ...about, title: about.title ?? titleIn(tree) };
  const all: Note[] = [...notes, ...templatesIn(body, at)];
  if (hasMarkup(tree)) {
    const converted = markdownOfHtml(toHtml.runSync(tree) as never);
    all.push(...converted.notes);
    if (/^\[\^[^\]]+\]:/m.test(body))
      all.push({ line: null, message: 'With markup in it, its footnotes became a list at its end.' });
    const plain = withoutOurs(converted.body);
    all.push(...plain.notes.map((one) => ({ ...one, line: null })));
    return finished(titled, plain.body.trim(), converted.anchors, all);
  }
  const plain = withoutOurs(body);
  all.push(...plain.notes.map((one) => ({ ...one, line: one.line === null ? null : at(one.line) })));
  return finished(titled, plain.body, {}, all, plain.body === body ? tree : undefined);
}

/** What makes a document of a body, whichever way that came about. */
export function finished(
  about: About,
  body: string,
  anchors: Readonly<Record<string, string>>,
  notes: readonly Note[],
  /** The body as it was read, where it has been. */
  read?: Root,
): DocumentRead {
  const problem = read ? null : markdownProblem(body);
  if (problem) return { problem: problem.message };
  const tree = read ?? parser.parse(body);
  return {
    document: { ...about, body, spots: spotsIn(tree, body), words: wordsOfTree(tree), anchors, notes },
  };
}

/** The words of the heading that a text begins with. */
function titleIn(tree: Root): string | null {
  const first = tree.children.find(({ type }) => type !== 'html');
  if (first?.type !== 'heading') return null;
  const words = textOf(first, { includeHtml: false }).replace(/\s+/g, ' ').trim();
  return words === '' ? null : cut(words, 200);
}

const MOST_TOLD = 5;

/** Where something stands that a program would have filled in. */
function templatesIn(body: string, at: (line: number) => number): readonly Note[] {
  const found = body
    .split('\n')
    .flatMap((line, index) => (/\{[{%][^}]{0,300}[}%]\}/.test(line) ? [at(index + 1)] : []));
  return found.slice(0, MOST_TOLD).map((line) => ({
    line,
    message: 'Something stands here in braces that a program filled in. It is kept as it is written.',
  }));
}
