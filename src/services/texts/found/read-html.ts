/** A page of HTML, as a text that a site can hold: what stands in its main part. */

import type { Element, Root, RootContent } from 'hast';
import rehypeParse from 'rehype-parse';
import { unified } from 'unified';
import { type Day, isDay } from '@/core';
import { wordsIn } from '../words-in';
import { cut } from './cut';
import type { DocumentRead, Note } from './document';
import { withoutOurs } from './finish-body';
import { NOTHING_SAID } from './front-matter';
import { markdownOfHtml } from './markdown-of-html';
import { finished } from './read-markdown';

const parser = unified().use(rehypeParse).freeze();

/** Reads a page of HTML. */
export function readHtml(html: string): DocumentRead {
  const tree = parser.parse(html) as Root;
  const found = (test: (element: Element) => boolean) => firstIn(tree, test);
  const meta = (...names: readonly string[]): string | null => {
    const one = found(
      ({ tagName, properties }) =>
        tagName === 'meta' &&
        names.includes(String(properties.name ?? properties.property ?? '').toLowerCase()),
    );
    const content = one?.properties.content;
    return typeof content === 'string' && content.trim() !== '' ? oneLine(content) : null;
  };
  const main = mainOf(tree);
  const heading = firstIn(main, ({ tagName }) => tagName === 'h1');
  const title =
    (heading && oneLine(wordsIn(heading))) || titleOf(found(({ tagName }) => tagName === 'title'));
  const notes: Note[] = [];
  const robots = meta('robots');
  if (robots && /noindex/i.test(robots))
    notes.push({ line: null, message: 'It asks search engines to leave it out; that is not kept.' });
  const refresh = found(
    ({ tagName, properties }) =>
      tagName === 'meta' && String(properties.httpEquiv ?? '').toLowerCase() === 'refresh',
  );
  if (refresh)
    notes.push({ line: null, message: 'It sends its readers on to another page; that is not kept.' });
  const author = meta('author');
  const { body, anchors, notes: told } = markdownOfHtml(main);
  const plain = withoutOurs(body);
  const published = meta('article:published_time', 'date', 'dcterms.created');
  const day = published?.slice(0, 10) ?? null;
  return finished(
    {
      ...NOTHING_SAID,
      title: title === '' ? null : cut(title, 200),
      date: day !== null && isDay(day) ? (day as Day) : null,
      author: author === null ? null : cut(author, 200),
      summary: cut(meta('description') ?? '', 2000),
    },
    plain.body.trim(),
    anchors,
    [...notes, ...told, ...plain.notes.map((one) => ({ ...one, line: null }))],
  );
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();
const titleOf = (element: Element | null): string => (element ? oneLine(wordsIn(element)) : '');

function firstIn(node: Root | RootContent, test: (element: Element) => boolean): Element | null {
  if (node.type === 'element' && test(node)) return node;
  if (!('children' in node)) return null;
  for (const child of node.children) {
    const found = firstIn(child, test);
    if (found) return found;
  }
  return null;
}

const AROUND = new Set(['header', 'nav', 'footer', 'aside']);

/** What of a page is its own: its main part, else its one article, else its body without what stands around it. */
function mainOf(tree: Root): Root {
  const main =
    firstIn(tree, ({ tagName, properties }) => tagName === 'main' || properties.role === 'main') ??
    firstIn(tree, ({ tagName }) => tagName === 'article');
  if (main) return { type: 'root', children: main.children };
  const body = firstIn(tree, ({ tagName }) => tagName === 'body');
  return {
    type: 'root',
    children: (body?.children ?? []).filter((one) => one.type !== 'element' || !AROUND.has(one.tagName)),
  };
}
