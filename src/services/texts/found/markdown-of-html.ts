/** HTML as Markdown: what a text of ours can say is kept, and what it can't is told. */

import GithubSlugger from 'github-slugger';
import type { Element, ElementContent, Root, RootContent } from 'hast';
import rehypeRemark from 'rehype-remark';
import remarkGfm from 'remark-gfm';
import remarkStringify from 'remark-stringify';
import { unified } from 'unified';
import { counted, listed } from '@/core';
import { anchorOf } from '../markdown';
import { wordsIn } from '../words-in';
import type { Note } from './document';

const toMarkdown = unified()
  .use(rehypeRemark)
  .use(remarkGfm)
  .use(remarkStringify, { emphasis: '*', bullet: '-', fences: true, rule: '-', resourceLink: true })
  .freeze();

/** What is left out, and how it is told: one of them, and several. */
const LEFT_OUT: Readonly<Record<string, readonly [string, string]>> = {
  script: ['script', 'scripts'],
  style: ['style sheet', 'style sheets'],
  form: ['form', 'forms'],
  iframe: ['frame with a page from elsewhere', 'frames with pages from elsewhere'],
  object: ['embedded object', 'embedded objects'],
  embed: ['embedded object', 'embedded objects'],
  applet: ['embedded object', 'embedded objects'],
  canvas: ['drawing', 'drawings'],
  svg: ['drawing', 'drawings'],
  math: ['formula', 'formulas'],
  nav: ['block of navigation', 'blocks of navigation'],
  dialog: ['dialog', 'dialogs'],
  template: ['template', 'templates'],
  button: ['button', 'buttons'],
  input: ['field', 'fields'],
  select: ['field', 'fields'],
  textarea: ['field', 'fields'],
  map: ['picture with areas to click on', 'pictures with areas to click on'],
};

/** What stays as something else. */
const BECOMES: Readonly<Record<string, readonly [string, string]>> = {
  video: ['video became a link', 'videos became links'],
  audio: ['recording became a link', 'recordings became links'],
  details: ['part that folds out is always open', 'parts that fold out are always open'],
};

const isElement = (node: RootContent): node is Element => node.type === 'element';

export interface MarkdownOfHtml {
  readonly body: string;
  readonly notes: readonly Note[];
  /** What its headings are reached at now, by the ids that they had. */
  readonly anchors: Readonly<Record<string, string>>;
}

/** The Markdown of some elements; empties them of what can't be kept. */
export function markdownOfHtml(root: Root): MarkdownOfHtml {
  const left = new Map<string, number>();
  const became = new Map<string, number>();
  const count = (into: Map<string, number>, name: string) => into.set(name, (into.get(name) ?? 0) + 1);
  let merged = false;
  const clean = (children: readonly RootContent[]): ElementContent[] =>
    children.flatMap((node): ElementContent[] => {
      if (node.type === 'comment' || node.type === 'doctype') return [];
      if (!isElement(node)) return [node];
      const { tagName, properties, children: inner } = node;
      if (tagName === 'noscript') return [];
      if (Object.hasOwn(LEFT_OUT, tagName)) {
        count(left, tagName);
        return [];
      }
      if (Object.hasOwn(BECOMES, tagName)) count(became, tagName);
      if (Number(properties.colSpan ?? 1) > 1 || Number(properties.rowSpan ?? 1) > 1) merged = true;
      const kept = { ...node, children: clean(inner) };
      if (tagName === 'summary')
        return [{ ...kept, tagName: 'p', children: [{ ...kept, tagName: 'strong', properties: {} }] }];
      return [kept];
    });
  const cleaned: Root = { type: 'root', children: clean(root.children) };
  const anchors = anchorsIn(cleaned);
  const tree = toMarkdown.runSync(cleaned);
  const lost = [...left].map(([name, many]) => {
    const [one = name, several = name] = LEFT_OUT[name] ?? [];
    return counted(many, one, several);
  });
  const total = lost.length === 1 && [...left.values()][0] === 1 ? 'was' : 'were';
  const message = (text: string): Note => ({ line: null, message: text });
  return {
    body: toMarkdown.stringify(tree),
    anchors,
    notes: [
      ...(lost.length > 0 ? [message(`${listed(lost)} ${total} left out.`)] : []),
      ...[...became].map(([name, many]) => {
        const [one = name, several = name] = BECOMES[name] ?? [];
        return message(`${counted(many, one, several)}.`);
      }),
      ...(merged ? [message('Cells of a table that spanned several are single cells now.')] : []),
    ],
  };
}

const isHeading = ({ tagName }: Element): boolean => /^h[1-6]$/.test(tagName);

/** The anchors that headings will have, by every id from which one came to them. */
function anchorsIn(root: Root): Record<string, string> {
  const slugger = new GithubSlugger();
  const anchors: Record<string, string> = {};
  let latest = '';
  // Ids whose element has begun, and of which the next heading is the first.
  let waiting: string[] = [];
  const walk = (nodes: readonly RootContent[]) => {
    for (const node of nodes) {
      if (!isElement(node)) continue;
      const { id, name } = node.properties;
      const ids = [id, node.tagName === 'a' ? name : undefined].flatMap((one) =>
        typeof one === 'string' && one !== '' ? [one] : [],
      );
      if (isHeading(node)) {
        latest = anchorOf(wordsIn(node).replace(/\s+/g, ' '), slugger);
        for (const one of [...waiting, ...ids, ...idsWithin(node)]) anchors[one] = latest;
        waiting = [];
        continue;
      }
      waiting.push(...ids);
      walk(node.children);
      // What an element with words of its own marks is found under the heading before it.
      if (ids.length > 0 && wordsIn(node).trim() !== '') {
        for (const one of waiting.filter((each) => ids.includes(each))) anchors[one] = latest;
        waiting = waiting.filter((each) => !ids.includes(each));
      }
    }
  };
  walk(root.children);
  for (const one of waiting) anchors[one] = latest;
  return anchors;
}

const idsWithin = (node: Element): readonly string[] =>
  node.children.filter(isElement).flatMap((child) => {
    const { id, name } = child.properties;
    return [id, name].flatMap((one) => (typeof one === 'string' ? [one] : [])).concat(idsWithin(child));
  });
