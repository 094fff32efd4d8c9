/** A branch of the site once more: its pages, what stands on them, and what they say of one another. */
import { randomUUID } from 'node:crypto';
import slugify from '@sindresorhus/slugify';
import {
  type Address,
  asId,
  below,
  type Copy,
  changeRegions,
  copiedCondition,
  type Item,
  type ItemId,
  isAddressed,
  type LinkTarget,
  pathOf,
  type Vocabulary,
} from '@/core';
import type { Content, SectionContent, StoredItem } from '@/store';
import type { SiteState } from '../running';
import { contentOf } from '../view';
import { startOf } from '../writing';

/** A branch, and what is to become of it in a copy. */
export interface Copying {
  /** The page at its top. */
  readonly source: ItemId;
  /** What the copy is called. */
  readonly name: string;
  /** Whether that stands wherever the original's title stands in titles and texts. */
  readonly renames: boolean;
  readonly parent: ItemId;
  readonly rank: number;
  readonly groups: Copy['groups'];
  /** Gives an address that nothing has, like the one that is wanted. */
  readonly addressLike: (wanted: string) => Address;
}

export interface Copied {
  readonly stored: readonly StoredItem[];
  /** The copies by what they are copies of. */
  readonly items: ReadonlyMap<ItemId, ItemId>;
}

/** Copies a branch. What is being written and is not on the site yet stays behind, and so do addresses of before. */
export function copyBranch(state: SiteState, copying: Copying): Copied {
  const { outline } = state;
  const { source, name, parent, rank, groups, addressLike } = copying;
  const originals = below(outline, source);
  const items = new Map(originals.map(({ id }) => [id, asId<ItemId>(randomUUID())]));
  const copy: Copy = { items, groups };
  const [top] = originals;
  if (!top || !isAddressed(top)) throw new Error('A branch that is copied begins with a page.');
  const called = copying.renames ? renaming(top.title, name) : AS_IT_IS;
  // What stands beside the original has an address beside its.
  const start =
    top.parent === parent ? top.address.slice(0, top.address.lastIndexOf('/')) : startOf(outline, parent);
  const address = addressLike(`${start}/${slugify(name)}`);
  const copies = originals.map((item): Item => {
    const id = items.get(item.id) as ItemId;
    const { within: _, ...rest } = item;
    const base = {
      ...rest,
      ...factsIn(item, copy),
      id,
      ...(item.id === source
        ? { parent, rank, title: name, published: true }
        : { parent: (item.parent && items.get(item.parent)) ?? parent, title: called.inTitle(item.title) }),
      ...(isAddressed(item) && {
        address: item.id === source ? address : addressLike(addressBelow(item.address, top.address, address)),
      }),
    };
    return base as Item;
  });
  const paths = new Map<string, string>();
  for (const [at, original] of originals.entries()) {
    const [from, to] = [pathOf(original), pathOf(copies[at])];
    if (from !== null && to !== null) paths.set(from, to);
  }
  const { vocabulary } = state.live.compiled;
  return {
    items,
    stored: copies.map((item, at) => ({
      item,
      content: copiedContent(contentOf(state, (originals[at] as Item).id), copy, vocabulary, (text) =>
        called.inText(withPaths(text, paths)),
      ),
    })),
  };
}

/** Where something of a branch is in a copy: below the copy, as it was below the original. */
const addressBelow = (address: Address, top: Address, copy: Address): string =>
  address.startsWith(`${top}/`)
    ? copy + address.slice(top.length)
    : `${copy}/${address.slice(address.lastIndexOf('/') + 1)}`;

function factsIn({ facts }: Item, { items, groups }: Copy): Pick<Item, 'facts'> | object {
  if (!facts) return {};
  const { owner: _, group, picture, ...rest } = facts;
  return {
    facts: {
      ...rest,
      ...(group !== undefined && { group: groups.get(group) ?? group }),
      ...(picture !== undefined && { picture: items.get(picture) ?? picture }),
    },
  };
}

function copiedContent(
  content: Content,
  copy: Copy,
  vocabulary: Vocabulary,
  said: (text: string) => string,
): Content {
  const { section, enrolling } = content;
  return {
    ...content,
    summary: said(content.summary),
    body: changeRegions(said(content.body), vocabulary, 'by id', (condition) =>
      copiedCondition(condition, copy),
    ),
    ...(section && { section: copiedSection(section, copy) }),
    ...(enrolling && {
      enrolling: {
        ...enrolling,
        groups: enrolling.groups.map((one) => ({ ...one, group: copy.groups.get(one.group) ?? one.group })),
      },
    }),
  };
}

function copiedSection(section: SectionContent, { items, groups }: Copy): SectionContent {
  const item = (id: string) => items.get(asId<ItemId>(id)) ?? id;
  switch (section.type) {
    case 'picture':
      return { ...section, file: section.file && item(section.file) };
    case 'video':
      return {
        ...section,
        file: section.file && item(section.file),
        ...(section.captions && { captions: item(section.captions) }),
      };
    case 'call':
      return { ...section, to: copiedLink(section.to, items) };
    case 'outline':
      return { ...section, course: item(section.course) };
    case 'follow':
      return { ...section, group: groups.get(asId(section.group)) ?? section.group };
    case 'form':
    case 'posts':
    case 'files':
    case 'prices':
      return section;
    default:
      return section satisfies never;
  }
}

const copiedLink = (to: LinkTarget, items: Copy['items']): LinkTarget =>
  to.kind === 'item' ? { ...to, item: items.get(to.item) ?? to.item } : to;

// Where a Markdown link, or what one refers to, says where it leads.
const LEADS = /(\]\(\s*<?|^\s{0,3}\[[^\]\n]{1,500}\]:\s*<?)(\/[^\s)>#?"]*)/gm;

/** A text whose links to the branch lead to the copy. */
const withPaths = (text: string, paths: ReadonlyMap<string, string>): string =>
  text.replace(LEADS, (whole, lead: string, path: string) => {
    const to = paths.get(path) ?? paths.get(decodedPath(path));
    return to === undefined ? whole : lead + to;
  });

function decodedPath(path: string): string {
  try {
    return decodeURI(path);
  } catch {
    return path;
  }
}

const AS_IT_IS = { inTitle: (title: string) => title, inText: (text: string) => text };

/** How often the title of a branch stands in the titles and texts of what is in it, its own title apart. */
export function namedIn(state: SiteState, source: ItemId): number {
  const [top, ...others] = below(state.outline, source);
  if (!top) return 0;
  const word = asWord(top.title);
  const count = (text: string) => text.match(word)?.length ?? 0;
  const texts = [top, ...others].flatMap(({ id }) => {
    const { body, summary } = contentOf(state, id);
    return [body, summary];
  });
  return [...texts, ...others.map(({ title }) => title)].reduce((sum, text) => sum + count(text), 0);
}

const asWord = (name: string) =>
  new RegExp(`(?<![\\p{L}\\p{N}])${name.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&')}(?![\\p{L}\\p{N}])`, 'gu');

/** Another name wherever a name stands as a word of its own. */
function renaming(before: string, after: string) {
  const word = asWord(before);
  const written = after.replace(/[\\`*_[\]<>#|~&]/g, '\\$&');
  return {
    inTitle: (title: string) => title.replace(word, () => after).slice(0, 200),
    // What is asked stands in lines of their own, and is no text.
    inText: (text: string) =>
      text
        .split('\n')
        .map((line) => (line.startsWith(':::') ? line : line.replace(word, () => written)))
        .join('\n'),
  };
}
