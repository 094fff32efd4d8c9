/** Markdown (CommonMark with GFM) to HTML that is safe to put on a page. */
import GithubSlugger, { slug } from 'github-slugger';
import type { Element, Root, RootContent } from 'hast';
import type { Root as MarkdownTree } from 'mdast';
import { toString as textOf } from 'mdast-util-to-string';
import rehypeSanitize, { defaultSchema } from 'rehype-sanitize';
import rehypeStringify from 'rehype-stringify';
import remarkGfm from 'remark-gfm';
import remarkParse from 'remark-parse';
import remarkRehype from 'remark-rehype';
import { unified } from 'unified';
import { replaceOwnWords } from '@/core';
import { wordsIn } from './words-in';

/**
 * Stands before every address on this site in rendered HTML, to be replaced by where the site is being looked at from:
 * nothing for visitors, the walk's own address on a walk. A private-use character, which no text keeps.
 */
export const BASE_MARK = '\uE000';

/**
 * Stands around the number of an own word in rendered HTML, to be replaced by what its reader gets: the words of a text
 * count from 0. A private-use character as well, and a letter as far as Markdown is concerned.
 */
export const OWN_MARK = '\uE001';

/** A text without the characters that marks are made of. */
const unmarked = (markdown: string): string => markdown.replace(/[\uE000\uE001]/g, '');

const MARKED = new RegExp(`${OWN_MARK}(\\d+)${OWN_MARK}`, 'g');

/** In code, in addresses and in descriptions nothing is shown of anybody: there an own word stands as it was written. */
function restore(node: object, sources: readonly string[]): void {
  for (const [key, value] of Object.entries(node)) {
    if (key === 'type' || (key === 'value' && 'type' in node && node.type === 'text')) continue;
    if (typeof value === 'string')
      Object.assign(node, { [key]: value.replace(MARKED, (_, at: string) => sources[Number(at)] ?? '') });
    else if (key === 'children') for (const child of value as object[]) restore(child, sources);
  }
}

const ON_THIS_SITE = /^\/(?!\/)/;

/** What a text allows beside what is safe anyhow: addresses that ring somebody up, or put a day into a calendar. */
const allowed = {
  ...defaultSchema,
  // Ids are made here, each with a prefix of its own; a text can't bring any.
  clobberPrefix: '',
  protocols: {
    ...defaultSchema.protocols,
    href: [...(defaultSchema.protocols?.href ?? []), 'tel', 'sms', 'webcal'],
  },
};

/** Stands before the ids within a text, to be replaced by something that is the text's own. */
const ID_MARK = 'i-am-a-note-';

const NOTES = 'footnote-label';

/** A short text that is the same for the same Markdown: notes of two texts on one page don't get each other's ids. */
const signOf = (markdown: string): string => {
  // FNV-1a, 32 bits (http://www.isthe.com/chongo/tech/comp/fnv/).
  let hash = 0x811c9dc5;
  for (let at = 0; at < markdown.length; at++) hash = Math.imul(hash ^ markdown.charCodeAt(at), 0x01000193);
  return (hash >>> 0).toString(36);
};

/** What stands beside a box of a task list, for those who can't see how it is ticked. */
function labelled(node: Element): void {
  const box = node.children
    .flatMap((child) => (child.type === 'element' && child.tagName === 'p' ? child.children : [child]))
    .find((child) => child.type === 'element');
  if (box?.type === 'element' && box.tagName === 'input')
    box.properties.ariaLabel = box.properties.checked ? 'done' : 'to be done';
}

/** An own word's mark, which no anchor holds: it would be another for each reader. */
const ANY_MARK = new RegExp(`${OWN_MARK}(?:\\d+${OWN_MARK})?`, 'g');

/** Gives every heading an anchor, made of its words; the second of two that are alike gets a number. */
function anchor(node: Root | RootContent, slugger: GithubSlugger): void {
  if (node.type === 'element' && /^h[1-6]$/.test(node.tagName) && node.properties.id === undefined)
    node.properties.id = anchorOf(wordsIn(node), slugger);
  if ('children' in node) for (const child of node.children) anchor(child, slugger);
}

/** The anchor of a heading with these words, within a text whose anchors this slugger has given so far. */
export function anchorOf(words: string, slugger: GithubSlugger): string {
  const plain = words.replace(ANY_MARK, '').trim();
  return slugger.slug(slug(plain) === '' ? 'part' : plain);
}

/** Marks addresses of this site, and makes plain cells of head cells with nothing in them, which head nothing. */
function finish(node: Root | RootContent): void {
  if (node.type === 'element') {
    if (node.tagName === 'li') labelled(node);
    // The one id that notes have beside their own: of the heading over them.
    if (node.properties.id === NOTES) node.properties.id = ID_MARK + NOTES;
    if (node.properties.ariaDescribedBy !== undefined) node.properties.ariaDescribedBy = [ID_MARK + NOTES];
    for (const name of ['href', 'src']) {
      const address = node.properties[name];
      if (typeof address === 'string' && ON_THIS_SITE.test(address))
        node.properties[name] = BASE_MARK + address;
    }
    if (node.tagName === 'th' && node.children.length === 0) node.tagName = 'td';
  }
  if ('children' in node) for (const child of node.children) finish(child);
}

/** Reads Markdown as everything here does. */
export const parser = unified().use(remarkParse).use(remarkGfm).freeze();

const processor = unified()
  .use(remarkParse)
  .use(remarkGfm)
  .use(() => (tree: MarkdownTree, file) => {
    const { sources } = file.data as { readonly sources?: readonly string[] };
    if (sources && sources.length > 0) restore(tree, sources);
  })
  .use(remarkRehype, { clobberPrefix: ID_MARK })
  .use(rehypeSanitize, allowed)
  .use(() => (tree: Root) => {
    finish(tree);
    anchor(tree, new GithubSlugger());
    // A page has one first heading: its title, or what its text begins with.
    for (const [index, node] of tree.children.entries())
      if (index > 0 && node.type === 'element' && node.tagName === 'h1') node.tagName = 'h2';
  })
  .use(rehypeStringify)
  .freeze();

/** What a text has to be for its Markdown to be read in reasonable time. */
const MOST_MARKS_IN_A_LINE = 200;
/** Marks are matched with one another within a paragraph: twice as many take four times as long. */
const MOST_MARKS_IN_A_BLOCK = 1200;
const MOST_MARKS = 20_000;
/** Rows that are shorter than a table's head are filled up, so a few letters can become a page of cells. */
const MOST_CELLS = 10_000;
const LONGEST = 200_000;

/**
 * Why a text can't be read as Markdown, or null. Texts that nest hundreds deep (quotations, lists, emphasis) are no texts;
 * reading them takes longer the deeper they are.
 */
export function markdownProblem(
  markdown: string,
): { readonly line: number; readonly message: string } | null {
  if (markdown.length > LONGEST) return { line: 1, message: `A text has at most ${LONGEST} characters.` };
  let inBlock = 0;
  let inAll = 0;
  let columns = 0;
  let cells = 0;
  for (const [index, line] of markdown.split('\n').entries()) {
    const blank = line.trim() === '';
    if (blank) columns = 0;
    if (/^[\s|:-]+$/.test(line) && line.includes('-')) columns = Math.max(columns, line.split('|').length);
    cells += columns;
    const emphases = line.match(/[*_~[\]`!]/g)?.length ?? 0;
    inBlock = blank ? 0 : inBlock + emphases;
    inAll += emphases;
    const problem = (message: string) => ({ line: index + 1, message });
    if (cells > MOST_CELLS)
      return problem(`Up to here the tables have more than ${MOST_CELLS} cells. Make several texts of them.`);
    if (inBlock > MOST_MARKS_IN_A_BLOCK)
      return problem(
        'This paragraph has more marks than can be read. Put blank lines into it, or take some out.',
      );
    if (inAll > MOST_MARKS)
      return problem(`Up to here there are more than ${MOST_MARKS} marks. Make several texts of it.`);
    const marks = line.match(/[>*_[\]`~<|!(]/g)?.length ?? 0;
    const leading = /^[\s>*+-]*/.exec(line)?.[0].replace(/\s/g, '').length ?? 0;
    if (marks > MOST_MARKS_IN_A_LINE * 5 || leading > MOST_MARKS_IN_A_LINE / 4)
      return { line: index + 1, message: 'This line has more marks than text. Take some of them out.' };
  }
  return null;
}

const escaped = (text: string): string =>
  `<p>${text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')}</p>`;

/** The HTML of a Markdown text, with {@link BASE_MARK} before addresses of this site and an {@link OWN_MARK} for every own word. Markup in the text is dropped. */
export function htmlOf(markdown: string): string {
  const plain = unmarked(markdown);
  if (markdownProblem(markdown) !== null) return escaped(plain);
  const sources: string[] = [];
  const value = replaceOwnWords(plain, (at, source) => {
    sources.push(source);
    return `${OWN_MARK}${at}${OWN_MARK}`;
  });
  return String(processor.processSync({ value, data: { sources } })).replaceAll(
    ID_MARK,
    `note-${signOf(markdown)}-`,
  );
}

/**
 * The words of a Markdown text, block by block, without marks, pictures' descriptions and markup. Of its reader it says
 * nothing: what stands for own words is what is said when nothing is known.
 */
export function plainTextOf(markdown: string): string {
  const plain = replaceOwnWords(unmarked(markdown), (_at, _source, or) => or);
  return markdownProblem(markdown) === null ? wordsOfTree(parser.parse(plain)) : plain;
}

/** The same of a text that has been read already, and has no own words. */
export const wordsOfTree = ({ children }: MarkdownTree): string =>
  children
    .filter(({ type }) => type !== 'html')
    .map((block) => textOf(block, { includeImageAlt: false, includeHtml: false }))
    .filter((text) => text !== '')
    .join('\n');
