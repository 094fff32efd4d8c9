/** Markdown (CommonMark with GFM) to HTML that is safe to put on a page. */
import type { Root, RootContent } from 'hast';
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

/** Marks addresses of this site, and makes plain cells of head cells with nothing in them, which head nothing. */
function finish(node: Root | RootContent): void {
  if (node.type === 'element') {
    const { href } = node.properties;
    if (typeof href === 'string' && /^\/(?!\/)/.test(href)) node.properties.href = BASE_MARK + href;
    if (node.tagName === 'th' && node.children.length === 0) node.tagName = 'td';
  }
  if ('children' in node) for (const child of node.children) finish(child);
}

const processor = unified()
  .use(remarkParse)
  .use(remarkGfm)
  .use(remarkRehype)
  .use(rehypeSanitize)
  .use(() => (tree: Root) => finish(tree))
  .use(rehypeStringify)
  .freeze();

/** The HTML of a Markdown text, with {@link BASE_MARK} before addresses of this site. Markup in the text is dropped. */
export const htmlOf = (markdown: string): string =>
  String(processor.processSync(markdown.replaceAll(BASE_MARK, '')));
