/** What a sitemap names (sitemaps.org 0.9): pages, or further sitemaps. */
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { yielder } from '../running';

export const LARGEST_SITEMAP = 20_000_000;

const unpacked = promisify(gunzip);

export type SitemapRead =
  | { readonly kind: 'pages' | 'sitemaps'; readonly urls: readonly string[] }
  | { readonly problem: string };

/** Reads a sitemap, packed or not. */
export async function readSitemap(bytes: Uint8Array): Promise<SitemapRead> {
  let text: string;
  try {
    const packed = bytes[0] === 0x1f && bytes[1] === 0x8b;
    const plain = packed ? await unpacked(bytes, { maxOutputLength: LARGEST_SITEMAP }) : bytes;
    text = new TextDecoder('utf-8', { fatal: true }).decode(plain);
  } catch {
    return { problem: 'It can’t be read: it is damaged, too large, or not UTF-8.' };
  }
  const root = /<(?:\w{1,20}:)?(urlset|sitemapindex)[\s>]/.exec(text)?.[1];
  if (root === undefined)
    return { problem: 'It is no sitemap: it begins with neither <urlset> nor <sitemapindex>.' };
  const rest = yielder();
  const urls = new Set<string>();
  // Bounded, so that what is no sitemap takes no longer than what is one; no address holds a “<”.
  for (const [, raw = '', plain] of text.matchAll(
    /<(?:\w{1,20}:)?loc>([^<]{0,3000})(?:<!\[CDATA\[([^\]<]{0,3000})\]\]>)?/g,
  )) {
    const url = plain?.trim() ?? withoutEntities(raw.trim());
    if (url !== '') urls.add(url);
    await rest();
  }
  return { kind: root === 'urlset' ? 'pages' : 'sitemaps', urls: [...urls] };
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

const withoutEntities = (text: string): string =>
  text.replace(/&(?:(amp|lt|gt|quot|apos)|#(\d{1,6})|#x([\da-f]{1,5}));/gi, (_, name, decimal, hex) =>
    name
      ? (ENTITIES[String(name).toLowerCase()] ?? '')
      : String.fromCodePoint(decimal ? Number(decimal) : Number.parseInt(hex, 16)),
  );
