/** Markdown (CommonMark with GFM) to HTML that is safe to put on a page. */
import type { Root, RootContent } from 'hast';
import { toString as textOf } from 'mdast-util-to-string';
import rehypeSanitize from 'rehype-sanitize';
import rehypeStringify from 'rehype-stringify';
import remarkGfm from 'remark-gfm';
import remarkParse from 'remark-parse';
import remarkRehype from 'remark-rehype';
import { unified } from 'unified';

/**
 * Stands before every address on this site in rendered HTML, to be replaced by where the site is being looked at from:
 * nothing for visitors, the walk's own address on a walk. A private-use character, which no text keeps.
 */
export const BASE_MARK = '\uE000';

const ON_THIS_SITE = /^\/(?!\/)/;

/** Marks addresses of this site, and makes plain cells of head cells with nothing in them, which head nothing. */
function finish(node: Root | RootContent): void {
  if (node.type === 'element') {
    for (const name of ['href', 'src']) {
      const address = node.properties[name];
      if (typeof address === 'string' && ON_THIS_SITE.test(address))
        node.properties[name] = BASE_MARK + address;
    }
    if (node.tagName === 'th' && node.children.length === 0) node.tagName = 'td';
  }
  if ('children' in node) for (const child of node.children) finish(child);
}

const parser = unified().use(remarkParse).use(remarkGfm).freeze();

const processor = unified()
  .use(remarkParse)
  .use(remarkGfm)
  .use(remarkRehype)
  .use(rehypeSanitize)
  .use(() => (tree: Root) => {
    finish(tree);
    // A page has one first heading: its title, or what its text begins with.
    for (const [index, node] of tree.children.entries())
      if (index > 0 && node.type === 'element' && node.tagName === 'h1') node.tagName = 'h2';
  })
  .use(rehypeStringify)
  .freeze();

/** What a text has to be for its Markdown to be read in reasonable time. */
const MOST_MARKS_IN_A_LINE = 200;
const LONGEST = 200_000;

/**
 * Why a text can't be read as Markdown, or null. Texts that nest hundreds deep (quotations, lists, emphasis) are no texts;
 * reading them takes longer the deeper they are.
 */
export function markdownProblem(
  markdown: string,
): { readonly line: number; readonly message: string } | null {
  if (markdown.length > LONGEST) return { line: 1, message: `A text has at most ${LONGEST} characters.` };
  for (const [index, line] of markdown.split('\n').entries()) {
    const marks = line.match(/[>*_[\]`~<|!(]/g)?.length ?? 0;
    const leading = /^[\s>*+-]*/.exec(line)?.[0].replace(/\s/g, '').length ?? 0;
    if (marks > MOST_MARKS_IN_A_LINE * 5 || leading > MOST_MARKS_IN_A_LINE / 4)
      return { line: index + 1, message: 'This line has more marks than text. Take some of them out.' };
  }
  return null;
}

const escaped = (text: string): string =>
  `<p>${text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')}</p>`;

/** The HTML of a Markdown text, with {@link BASE_MARK} before addresses of this site. Markup in the text is dropped. */
export const htmlOf = (markdown: string): string =>
  markdownProblem(markdown) === null
    ? String(processor.processSync(markdown.replaceAll(BASE_MARK, '')))
    : escaped(markdown.replaceAll(BASE_MARK, ''));

/** The words of a Markdown text, block by block, without marks, pictures' descriptions and markup. */
export const plainTextOf = (markdown: string): string =>
  markdownProblem(markdown) === null
    ? parser
        .parse(markdown.replaceAll(BASE_MARK, ''))
        .children.filter(({ type }) => type !== 'html')
        .map((block) => textOf(block, { includeImageAlt: false, includeHtml: false }))
        .filter((text) => text !== '')
        .join('\n')
    : markdown;
