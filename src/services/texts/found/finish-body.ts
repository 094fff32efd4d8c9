/** What becomes of a Markdown text once it is to be one of a site's: where addresses stand in it, and what would be read as ours. */
import type { Definition, Image, Link, Nodes, Root } from 'mdast';
import { CONTINUE, EXIT, visit } from 'unist-util-visit';
import { regionMarkIn } from '@/core';
import type { Note, Spot } from './document';

/** The same text, in which nothing is a region or an own word. A line that begins with colons is kept by a backslash. */
export function withoutOurs(body: string): { readonly body: string; readonly notes: readonly Note[] } {
  const notes: Note[] = [];
  let fence: string | null = null;
  const lines = body.split('\n').map((line, index) => {
    const fenced = /^\s*(`{3,}|~{3,})/.exec(line)?.[1] ?? null;
    if (fenced !== null && (fence === null || fenced.startsWith(fence)))
      fence = fence === null ? fenced : null;
    const mark = regionMarkIn(line);
    if (mark === null) return line;
    if (fence !== null)
      notes.push({
        line: index + 1,
        message:
          'A line of code begins with colons, which mean something else here. A backslash stands before them now.',
      });
    // A wide colon is none that a backslash makes a letter of.
    return `${line.slice(0, mark)}${line[mark] === '：' ? '&#xFF1A;' : '\\:'}${line.slice(mark + 1)}`;
  });
  return { body: lines.join('\n').replace(/(?<!\\):own\[/g, '\\:own['), notes };
}

/** The places where addresses stand in a text that was read, in their order. */
export function spotsIn(tree: Root, body: string): readonly Spot[] {
  const spots: Spot[] = [];
  visit(tree, (node) => {
    const spot = spotOf(node, body);
    if (spot) spots.push(spot);
  });
  return spots.toSorted((a, b) => a.from - b.from);
}

function spotOf(node: Nodes, body: string): Spot | null {
  switch (node.type) {
    case 'link':
      return spotOfLink(node, body);
    case 'image':
      return spotOfImage(node);
    case 'definition':
      return spotOfDefinition(node, body);
    default:
      return null;
  }
}

const offsets = ({ position }: Nodes) => ({
  from: position?.start.offset ?? 0,
  to: position?.end.offset ?? 0,
});

const titled = (title: string | null | undefined): string =>
  title ? ` "${title.replace(/["\\]/g, '\\$&')}"` : '';

/** The end of a link: its words stay as they were written, with pictures in them. */
function spotOfLink(node: Link, body: string): Spot | null {
  const { from, to } = offsets(node);
  // An address that stands for itself is a whole one, and leads elsewhere.
  if (body[from] !== '[') return null;
  const last = node.children.at(-1);
  const tail = last ? offsets(last).to : from + 1;
  return { kind: 'link', from: tail, to, before: '](', after: `${titled(node.title)})`, url: node.url };
}

function spotOfImage(node: Image): Spot {
  const { from, to } = offsets(node);
  const alt = (node.alt ?? '').replace(/[[\]\\]/g, '\\$&').replace(/\s+/g, ' ');
  return { kind: 'picture', from, to, before: `![${alt}](`, after: `${titled(node.title)})`, url: node.url };
}

function spotOfDefinition(node: Definition, body: string): Spot | null {
  const { from, to } = offsets(node);
  const label = /^\[(?:[^\]\\]|\\.)*\]:/.exec(body.slice(from, to))?.[0];
  if (label === undefined) return null;
  return { kind: 'link', from, to, before: `${label} `, after: titled(node.title), url: node.url };
}

/** Whether a text has markup in it that is more than a remark. */
export function hasMarkup(tree: Root): boolean {
  let found = false;
  visit(tree, 'html', ({ value }) => {
    if (/^\s*(?:<!--[\s\S]*?-->\s*)+$/.test(value)) return CONTINUE;
    found = true;
    return EXIT;
  });
  return found;
}
