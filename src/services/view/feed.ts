/** Feeds of the latest posts, as data: RSS 2.0 and JSON Feed 1.1 are written from it. */
import { type Day, type ItemId, siteTitleOf } from '@/core';
import { messagesOf } from '../running';
import { addressIn, type View } from './context';
import { entriesOf } from './entry';
import { named } from './list-view';
import { sectionViews } from './section-view';
import { textsReady } from './texts';

/** A post in a feed; addresses are paths on this site. */
export interface FeedItem {
  readonly id: ItemId;
  readonly title: string;
  readonly address: string;
  readonly date: Day | null;
  readonly author: string | null;
  readonly category: string | null;
  readonly tags: readonly string[];
  /** The summary, or what the teaser shows with its reason. */
  readonly summary: string;
  /** The text, for those who get it all; empty for a teaser. */
  readonly html: string;
  /** Its picture, for those who get that. */
  readonly enclosure: { readonly address: string; readonly mediaType: string; readonly size: number } | null;
}

export interface Feed {
  readonly title: string;
  /** IANA name: days begin at midnight there. */
  readonly timeZone: string;
  /** A tag (BCP 47). */
  readonly language: string;
  readonly description: string;
  readonly items: readonly FeedItem[];
}

const MOST = 30;

function enclosureOf(context: View, id: ItemId): FeedItem['enclosure'] {
  const { items } = context.state.outline;
  const picture = items.get(id)?.facts?.picture;
  const file = picture === undefined ? undefined : items.get(picture);
  if (file?.kind !== 'file') return null;
  const { mediaType, size } = file;
  return { address: addressIn(context, `/files/${file.id}/${file.name}`), mediaType, size };
}

/** The feed as this visitor gets it, of a category if one is named. A category that they get nothing of is an empty feed. */
export async function feedOf(context: View, category: string | null): Promise<Feed> {
  const { outline } = context.state;
  const name = category === null ? null : named(context, 'category', category);
  const unknown = category !== null && name === null;
  const site = siteTitleOf(outline);
  const entries = unknown ? [] : entriesOf(context, { category: name }, MOST);
  for (const { id, teaser } of entries) if (teaser === null) await textsReady(context, id);
  return {
    // Not even the spelling of a category's name is told to those who get nothing of it.
    title: entries.length > 0 && name !== null ? `${site}: ${name}` : site,
    timeZone: context.state.settings.timeZone,
    language: context.state.settings.language,
    description: messagesOf(context.state).lists.latest(site),
    items: entries.map((entry) => ({
      id: entry.id,
      title: entry.title,
      address: entry.address,
      date: entry.date,
      author: entry.author,
      category: entry.category,
      tags: entry.tags,
      summary: [entry.text, entry.teaser?.reason].filter(Boolean).join(' — '),
      html:
        entry.teaser === null
          ? sectionViews(context, entry.id, entry.address)
              .flatMap((section) => (section.kind === 'text' ? [section.html] : []))
              .join('\n')
          : '',
      enclosure: entry.picture && enclosureOf(context, entry.id),
    })),
  };
}
