/** sitemap.xml (https://www.sitemaps.org/protocol.html) and robots.txt (RFC 9309). */
import { XMLBuilder } from 'fast-xml-parser';
import { sitemapOf } from '@/services';
import { PRIVATE } from '../_http/response';
import type { Door } from './door';
import { missing } from './page';

const xml = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });

export const sitemap: Door = {
  GET: (ask) => {
    if (ask.rest.length > 0 || ask.delivery.walk) return missing(ask);
    const { origin } = ask.delivery;
    const text = xml.build({
      '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
      urlset: {
        '@xmlns': 'http://www.sitemaps.org/schemas/sitemap/0.9',
        url: sitemapOf(ask.context).map(({ path, date }) => ({
          loc: origin + path,
          ...(date && { lastmod: date }),
        })),
      },
    }) as string;
    return {
      status: 200,
      headers: { 'Content-Type': 'application/xml; charset=utf-8', 'Cache-Control': PRIVATE },
      body: text,
    };
  },
};

/** Names no address of the site: a list of what is not to be found would be a way to find it. */
export const robots: Door = {
  GET: (ask) => {
    if (ask.rest.length > 0 || ask.delivery.walk) return missing(ask);
    // Each by itself and what is below it: "/me" alone would shut "/members" as well.
    const closed = ['/desk', '/walk', '/me', '/sign-in', '/sign-up', '/reset', '/passphrase', '/search'];
    const lines = [
      'User-agent: *',
      ...closed.flatMap((path) => ['$', '/', '?'].map((end) => `Disallow: ${path}${end}`)),
      '',
      `Sitemap: ${ask.delivery.origin}/sitemap.xml`,
      '',
    ];
    return {
      status: 200,
      headers: { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': 'public, max-age=3600' },
      body: lines.join('\n'),
    };
  },
};
