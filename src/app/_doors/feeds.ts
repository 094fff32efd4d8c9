/**
 * Feeds: RSS 2.0 (https://www.rssboard.org/rss-specification) and JSON Feed 1.1 (https://www.jsonfeed.org/version/1.1/). A
 * member's own feed has a key in its address, so that a reader without cookies gets what they get.
 */
import { XMLBuilder } from 'fast-xml-parser';
import { guest } from '@/core';
import { type Feed, feedOf, personWithKey, type ViewContext } from '@/services';
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
async function lookIn(ask: Ask): Promise<ViewContext | null> {
  const key = ask.url.searchParams.get('key');
  if (key === null) return ask.context;
  const person = await personWithKey(ask.trivet, key, 'feed');
  return person && { ...ask.context, person, facts: person.facts ?? guest };
}

const feedDoor = (write: (feed: Feed, ask: Ask) => string, type: string): Door => ({
  GET: async (ask) => {
    const context = await lookIn(ask);
    if (context === null || ask.rest.length > 0 || ask.delivery.walk) return missing(ask);
    const feed = await feedOf(context, ask.url.searchParams.get('category'));
    return {
      status: 200,
      headers: {
        'Content-Type': `${type}; charset=utf-8`,
        'Cache-Control': PRIVATE,
        'X-Content-Type-Options': 'nosniff',
      },
      body: write(feed, ask),
    };
  },
});

/** Without what XML 1.0 can't hold (its production Char). */
const clean = (text: string): string =>
  text.replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '');
/** HTML with whole addresses: a reader shows it far from the page on which they were relative. */
const absolute = (html: string, base: string): string =>
  html.replace(/ (href|src)="([^"]*)"/g, (whole, name: string, value: string) => {
    const to = value.replaceAll('&#x26;', '&');
    return URL.canParse(to, base) ? ` ${name}="${escapeHtml(new URL(to, base).href)}"` : whole;
  });

const escapeHtml = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** Where the feed itself is found: with its category, and with the key by which it is somebody's. */
function ownAddress({ delivery, url }: Ask): string {
  const query = new URLSearchParams(
    ['category', 'key'].flatMap((name) => {
      const value = url.searchParams.get(name);
      return value === null ? [] : [[name, value]];
    }),
  ).toString();
  return `${delivery.origin}${url.pathname}${query && `?${query}`}`;
}

/** The beginning of a day in a time zone, with how far that is from UTC: "2026-11-03T00:00:00+01:00". */
function beginningOf(day: string, timeZone: string): string {
  const noon = new Date(`${day}T12:00:00Z`);
  const name = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'longOffset' })
    .formatToParts(noon)
    .find(({ type }) => type === 'timeZoneName')?.value;
  return `${day}T00:00:00${name === undefined || name === 'GMT' ? '+00:00' : name.replace('GMT', '')}`;
}

/** The same as RFC 822 writes it, which RSS asks for. */
function inMail(day: string, timeZone: string): string {
  const offset = beginningOf(day, timeZone).slice(19).replace(':', '');
  return `${new Date(`${day}T00:00:00Z`).toUTCString().replace(' GMT', '')} ${offset}`;
}

export const feedXml = feedDoor((feed, ask) => {
  const { origin } = ask.delivery;
  const channel = {
    title: clean(feed.title),
    link: `${origin}/`,
    description: clean(feed.description),
    language: feed.language,
    'atom:link': { '@href': ownAddress(ask), '@rel': 'self', '@type': 'application/rss+xml' },
    item: feed.items.map((item) => ({
      title: clean(item.title),
      link: origin + item.address,
      guid: { '@isPermaLink': 'false', '#text': item.id },
      ...(item.date && { pubDate: inMail(item.date, feed.timeZone) }),
      ...(item.author && { 'dc:creator': clean(item.author) }),
      category: [item.category, ...item.tags].filter((one) => one !== null).map(clean),
      // Readers take it for HTML, so what is text is written as that.
      description: escapeHtml(clean(item.summary)),
      ...(item.html && { 'content:encoded': clean(absolute(item.html, origin + item.address)) }),
      ...(item.enclosure && {
        enclosure: {
          '@url': origin + item.enclosure.address,
          '@length': String(item.enclosure.size),
          '@type': item.enclosure.mediaType,
        },
      }),
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

export const feedJson = feedDoor((feed, ask) => {
  const { origin } = ask.delivery;
  return JSON.stringify({
    version: 'https://jsonfeed.org/version/1.1',
    title: feed.title,
    description: feed.description,
    language: feed.language,
    home_page_url: `${origin}/`,
    feed_url: ownAddress(ask),
    items: feed.items.map((item) => ({
      id: item.id,
      url: origin + item.address,
      title: item.title,
      summary: item.summary,
      // One of the two has to be there, if only the summary again.
      ...(item.html
        ? { content_html: absolute(item.html, origin + item.address) }
        : { content_text: item.summary }),
      ...(item.date && { date_published: beginningOf(item.date, feed.timeZone) }),
      ...(item.author && { authors: [{ name: item.author }] }),
      tags: [item.category, ...item.tags].filter((one) => one !== null),
      ...(item.enclosure && {
        image: origin + item.enclosure.address,
        attachments: [
          {
            url: origin + item.enclosure.address,
            mime_type: item.enclosure.mediaType,
            size_in_bytes: item.enclosure.size,
          },
        ],
      }),
    })),
  });
}, 'application/feed+json');
