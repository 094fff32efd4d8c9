/** Texts of questions between Markdown and the elements that the body of a QTI item may hold. */
import type { ElementContent, Root, RootContent } from 'hast';
import rehypeRemark from 'rehype-remark';
import rehypeSanitize from 'rehype-sanitize';
import rehypeStringify from 'rehype-stringify';
import remarkGfm from 'remark-gfm';
import remarkParse from 'remark-parse';
import remarkRehype from 'remark-rehype';
import remarkStringify from 'remark-stringify';
import { unified } from 'unified';
import type { XmlNode } from './xml';

/** The elements of text that both have (QTI 3.0, HTML5 content of item bodies). */
const KEPT = new Set(
  'p em strong ul ol li blockquote code pre br hr h1 h2 h3 h4 h5 h6 a table thead tbody tr th td'.split(' '),
);
/** What says the same in other words. */
const SAME: Readonly<Record<string, string>> = { b: 'strong', i: 'em', tt: 'code' };

const schema = {
  tagNames: [...KEPT],
  attributes: { a: ['href'], ol: ['start'] },
  protocols: { href: ['http', 'https', 'mailto', 'tel'] },
};

const toBody = unified()
  .use(remarkParse)
  .use(remarkGfm)
  .use(remarkRehype)
  .use(rehypeSanitize, schema)
  .use(() => withoutDeadLinks)
  // As XML wants it: every element closed, and no characters called by names.
  .use(rehypeStringify, {
    closeSelfClosing: true,
    closeEmptyElements: true,
    characterReferences: { useNamedReferences: false },
  });

/** Whether an address leads to somewhere from wherever a package is. */
const leadsOut = (href: unknown): boolean =>
  typeof href === 'string' && /^(https?:|mailto:|tel:)/i.test(href);

/** A link that leads nowhere is its words: what it led to could not be kept. */
function withoutDeadLinks(node: Root | RootContent): void {
  if (!('children' in node)) return;
  for (const child of node.children) withoutDeadLinks(child);
  node.children = node.children.flatMap((child) =>
    child.type === 'element' && child.tagName === 'a' && !leadsOut(child.properties.href)
      ? child.children
      : [child],
  ) as typeof node.children;
}

/** Markdown as elements of an item's body, in XML. */
export const bodyOf = (markdown: string): string => String(toBody.processSync(markdown)).trim();

const toMarkdown = unified()
  .use(rehypeRemark)
  .use(remarkGfm)
  .use(remarkStringify, { emphasis: '*', bullet: '-', fences: true, rule: '-', resourceLink: true });

/** A text that came in, with what of it could not be kept, by the names of the elements. */
export interface TextRead {
  readonly markdown: string;
  readonly lost: readonly string[];
}

/** The text of some elements, as Markdown. */
export function markdownOf(nodes: readonly XmlNode[]): TextRead {
  const lost = new Set<string>();
  const root: Root = {
    type: 'root',
    children: nodes.flatMap((node) => elementOf(node, lost)) as RootContent[],
  };
  const tree = toMarkdown.runSync(root);
  return { markdown: toMarkdown.stringify(tree).trim(), lost: [...lost] };
}

function elementOf(node: XmlNode, lost: Set<string>): readonly ElementContent[] {
  if (node.kind === 'text') return node.text === '' ? [] : [{ type: 'text', value: node.text }];
  const children = () => node.children.flatMap((child) => elementOf(child, lost));
  const tagName = SAME[node.name] ?? node.name;
  if (!KEPT.has(tagName)) {
    if (node.children.length === 0) lost.add(node.name);
    return children();
  }
  const href = tagName === 'a' ? node.attributes.href : undefined;
  if (tagName !== 'a') return [{ type: 'element', tagName, properties: {}, children: children() }];
  return leadsOut(href)
    ? [{ type: 'element', tagName, properties: { href }, children: children() }]
    : children();
}

/** The words of some elements, on one line. */
export const wordsOf = (nodes: readonly XmlNode[]): string =>
  nodes
    .map((node) => (node.kind === 'text' ? node.text : ` ${wordsOf(node.children)} `))
    .join('')
    .replace(/\s+/g, ' ')
    .trim();
