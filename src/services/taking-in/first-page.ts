/** The site's first page, and another text in the place of its one. */
import { type Address, type Item, type Section, sectionsOf } from '@/core';
import type { StoredItem } from '@/store';
import type { SiteState } from '../running';
import { contentOf } from '../view';

export interface FirstPage {
  readonly page: Item;
  readonly text: Section;
}

/** The site's first page with its one text, which another can take the place of; null where it is more than that. */
export function firstPage({ outline }: SiteState): FirstPage | null {
  const page = outline.addressed.get('/' as Address);
  const children = page ? (outline.children.get(page.id) ?? []) : [];
  const [text, ...more] = page ? sectionsOf(outline, page.id) : [];
  const simple = children.every(({ kind }) => kind === 'section' || kind === 'page' || kind === 'post');
  return page?.kind === 'page' && text?.type === 'text' && more.length === 0 && simple
    ? { page, text }
    : null;
}

/** The first page and its text, before and after. */
export function firstAfter(
  state: SiteState,
  { page, text }: FirstPage,
  body: string,
  summary: string,
): readonly { readonly before: StoredItem; readonly after: StoredItem }[] {
  const before = (item: Item): StoredItem => ({ item, content: contentOf(state, item.id) });
  const ofPage = before(page);
  const ofText = before(text);
  return [
    ...(summary === ''
      ? []
      : [{ before: ofPage, after: { ...ofPage, content: { ...ofPage.content, summary } } }]),
    { before: ofText, after: { ...ofText, content: { ...ofText.content, body } } },
  ];
}
