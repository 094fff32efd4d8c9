/**
 * Files that are not as open as what shows them. A picture that is closed to somebody who gets what it stands in is a hole
 * there; and a file that is open to somebody who gets nothing that shows it is open by its address alone, which is hardly
 * meant: whoever gated the words around it takes the file for gated as well.
 */
import { changedIn, type Item, type ItemId, nameInContext } from '@/core';
import { type SiteState, yielder } from '../running';
import { contentOf, linksIn } from '../view';
import { type Audience, type Audiences, audiencesOf, butFor, joined } from './audiences';
import type { Fault } from './faults';

/** That something shows a file, or links it, to those who get it. */
interface Showing {
  readonly by: Item;
  readonly file: ItemId;
  /** Whether it is seen there, and missed where it is closed. */
  readonly isSeen: boolean;
  readonly to: Audience;
}

/** What is wrong with the files of a site as it is live, today. */
export async function fileFaults(state: SiteState, now: Date): Promise<readonly Fault[]> {
  const { outline } = state;
  if (![...outline.items.values()].some(({ kind }) => kind === 'file')) return [];
  const audiences = await audiencesOf(state, now);
  const { getting } = audiences;
  const faults: Fault[] = [];
  const shown = new Map<ItemId, Audience>();
  const rest = yielder();
  for (const item of outline.items.values()) {
    if (!item.published) continue;
    await rest();
    for (const { by, file, isSeen, to } of showingsIn(state, item, audiences)) {
      shown.set(file, joined(shown.get(file), to));
      const missed = isSeen ? butFor(to, getting(file)) : null;
      if (missed !== null)
        faults.push({
          item: changedIn(outline, by).id,
          section: by.kind === 'section' ? nameInContext(by, outline) : null,
          message: `It shows “${outline.items.get(file)?.title}”, which is closed to ${missed} who get the rest.`,
        });
    }
  }
  // Lists of files show whoever opens them just those that they may open.
  const lists = [...outline.items.values()].flatMap((item) => {
    const content = item.published && item.kind === 'section' ? contentOf(state, item.id).section : undefined;
    return content?.type === 'files' ? [{ category: content.category, to: getting(item.id) }] : [];
  });
  for (const [file, to] of shown) {
    await rest();
    const { facts, published, parent } = outline.items.get(file) ?? {};
    if (!published) continue;
    const all = lists.filter(
      ({ category }) =>
        parent === outline.root && (category === null || category === (facts?.category ?? null)),
    );
    const more = butFor(
      getting(file),
      all.reduce((shownTo, list) => joined(shownTo, list.to), to),
    );
    if (more !== null)
      faults.push({
        item: file,
        section: null,
        message: `It is open at its address to ${more}, who get nothing that shows it.`,
      });
  }
  return faults;
}

/** The files that something shows or links, and to whom. */
function* showingsIn(state: SiteState, item: Item, { getting, textsTo }: Audiences): Generator<Showing> {
  const isFile = (id: string | null | undefined): id is ItemId =>
    state.outline.items.get(id as ItemId)?.kind === 'file';
  const { picture } = item.facts ?? {};
  if (isFile(picture)) yield { by: item, file: picture, isSeen: true, to: getting(item.id) };
  if (item.kind !== 'section') return;
  const { section, body } = contentOf(state, item.id);
  const shows = section?.type === 'picture' || section?.type === 'video';
  // Most texts name no file, and nobody needs to be asked who gets them.
  if (!shows && !body.includes('/files/')) return;
  const to = getting(item.id);
  if (shows) {
    if (isFile(section.file)) yield { by: item, file: section.file, isSeen: true, to };
    if ('captions' in section && isFile(section.captions))
      yield { by: item, file: section.captions, isSeen: false, to };
  }
  for (const { text, to: those } of textsTo(item, body, to))
    for (const { kind, item: linked } of linksIn(state, text))
      if (isFile(linked)) yield { by: item, file: linked, isSeen: kind === 'picture', to: those };
}
