/**
 * Feeds: RSS 2.0 (https://www.rssboard.org/rss-specification) and JSON Feed 1.1 (https://www.jsonfeed.org/version/1.1/). A
 * member's own feed has a key in its address, so that a reader without cookies gets what they get.
 */
import { XMLBuilder } from 'fast-xml-parser';
import { guest } from '@/core';
import { type Feed, feedOf, type Look, personWithKey } from '@/services';
import { PRIVATE } from '../_http/response';
import type { Ask, Door } from './door';
import { missing } from './page';

const xml = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  cdataPropName: '#cdata',
  format: true,
});

/** Whose feed it is: the key's, or that of whoever asks; null for a key that is good for nothing. */
async function lookIn(ask: Ask): Promise<Look | null> {
  const key = ask.url.searchParams.get('key');
  if (key === null) return ask.look;
  const person = await personWithKey(ask.trivet, key, 'feed');
  return person && { ...ask.look, person, facts: person.facts ?? guest };
}

const feedDoor = (write: (feed: Feed, ask: Ask) => string, type: string): Door => ({
  GET: async (ask) => {
    const look = await lookIn(ask);
    if (look === null || ask.rest.length > 0 || ask.delivery.walk) return missing(ask);
    const feed = feedOf(look, ask.url.searchParams.get('category'));
    return new Response(write(feed, ask), {
      headers: {
        'Content-Type': `${type}; charset=utf-8`,
        'Cache-Control': PRIVATE,
        'X-Content-Type-Options': 'nosniff',
      },
    });
  },
});

/** Without what XML 1.0 can't hold (its production Char). */
const clean = (text: string): string =>
  text.replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '');
const absolute = (html: string, origin: string): string => html.replace(/(href|src)="\//g, `$1="${origin}/`);

export const feedXml = feedDoor((feed, { delivery: { origin } }) => {
  const channel = {
    title: clean(feed.title),
    link: `${origin}/`,
    description: clean(feed.description),
    'atom:link': { '@href': `${origin}/feed.xml`, '@rel': 'self', '@type': 'application/rss+xml' },
    item: feed.items.map((item) => ({
      title: clean(item.title),
      link: origin + item.address,
      guid: { '@isPermaLink': 'false', '#text': item.id },
      ...(item.date && { pubDate: new Date(`${item.date}T00:00:00Z`).toUTCString() }),
      ...(item.author && { 'dc:creator': clean(item.author) }),
      category: [item.category, ...item.tags].filter((one) => one !== null).map(clean),
      description: clean(item.summary),
      ...(item.html && { 'content:encoded': clean(absolute(item.html, origin)) }),
    })),
  };
  return xml.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    rss: {
      '@version': '2.0',
      '@xmlns:atom': 'http://www.w3.org/2005/Atom',
      '@xmlns:content': 'http://purl.org/rss/1.0/modules/content/',
      '@xmlns:dc': 'http://purl.org/dc/elements/1.1/',
      channel,
    },
  }) as string;
}, 'application/rss+xml');

export const feedJson = feedDoor(
  (feed, { delivery: { origin } }) =>
    JSON.stringify({
      version: 'https://jsonfeed.org/version/1.1',
      title: feed.title,
      description: feed.description,
      home_page_url: `${origin}/`,
      feed_url: `${origin}/feed.json`,
      items: feed.items.map((item) => ({
        id: item.id,
        url: origin + item.address,
        title: item.title,
        summary: item.summary,
        // One of the two has to be there, if only the summary again.
        ...(item.html ? { content_html: absolute(item.html, origin) } : { content_text: item.summary }),
        ...(item.date && { date_published: `${item.date}T00:00:00Z` }),
        ...(item.author && { authors: [{ name: item.author }] }),
        tags: [item.category, ...item.tags].filter((one) => one !== null),
      })),
    }),
  'application/feed+json',
);
