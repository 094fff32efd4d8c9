/**
 * Files from outside. What a file is, its content says and not its name; pictures are drawn anew, so that nothing but the
 * picture comes through; what a browser could run is not taken.
 */
import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import { english, type Messages } from '@/core';
import type { Content } from '@/store';

/** The largest file that is taken, in bytes. */
export const LARGEST_FILE = 20_000_000;
const MOST_PIXELS = 60_000_000;
const LONGEST_SIDE = 2400;
// At this size a page of print is a grey smudge and a face is a few dots.
const COARSE_SIDE = 14;

/** A file that was read. */
export interface ReadFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
  readonly picture: Omit<NonNullable<Content['picture']>, 'alt'> | null;
}

const PICTURES = ['image/jpeg', 'image/png', 'image/webp', 'image/gif', 'image/avif'];
const OTHERS: Readonly<Record<string, string>> = {
  'application/pdf': 'pdf',
  'video/mp4': 'mp4',
  'video/webm': 'webm',
  'video/matroska': 'webm',
  'audio/mpeg': 'mp3',
};
const TEXTS: Readonly<Record<string, string>> = {
  txt: 'text/plain',
  csv: 'text/csv',
  md: 'text/markdown',
  vtt: 'text/vtt',
};

const known = new LRUCache<string, ReadFile>({ max: 100 });

/** Reads a file, or says why it is not taken. */
export async function readFile(
  bytes: Uint8Array,
  name: string,
  { files: words }: Messages = english,
): Promise<ReadFile | { readonly problem: string }> {
  if (bytes.length === 0) return { problem: words.empty };
  if (bytes.length > LARGEST_FILE) return { problem: words.large(LARGEST_FILE / 1_000_000) };
  // The same bytes are read alike; loading the demo again and again need not draw its pictures again.
  const key = createHash('sha256').update(bytes).update(name).digest('hex');
  const found = known.get(key);
  if (found) return found;
  const read = await readAnew(bytes, name, words);
  if (!('problem' in read) && bytes.length < 1_000_000) known.set(key, read);
  return read;
}

async function readAnew(
  bytes: Uint8Array,
  name: string,
  words: Messages['files'],
): Promise<ReadFile | { readonly problem: string }> {
  const found = await fileTypeFromBuffer(bytes);
  if (found && PICTURES.includes(found.mime))
    return readPicture(bytes, name, found.mime === 'image/gif', words);
  const extension = found && OTHERS[found.mime];
  if (found && extension) {
    const mediaType = extension === 'webm' ? 'video/webm' : found.mime;
    return { name: safeName(name, extension), mediaType, bytes, picture: null };
  }
  // Captions are texts, and are read like one.
  if (found && found.mime !== 'text/vtt') return { problem: words.otherKind(found.mime, words.taken) };
  return readText(bytes, name, words);
}

async function readPicture(
  bytes: Uint8Array,
  name: string,
  moves: boolean,
  words: Messages['files'],
): Promise<ReadFile | { readonly problem: string }> {
  try {
    const { data, info } = await sharp(bytes, {
      limitInputPixels: MOST_PIXELS,
      animated: moves,
      failOn: 'error',
    })
      .autoOrient()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      // Twice as fast as what is usual, for a few bytes more.
      .webp({ quality: 82, effort: 2 })
      .toBuffer({ resolveWithObject: true });
    const coarse = await sharp(data)
      .resize({ width: COARSE_SIDE, height: COARSE_SIDE, fit: 'inside' })
      .blur(0.8)
      .webp({ quality: 40 })
      .toBuffer();
    return {
      name: safeName(name, 'webp'),
      mediaType: 'image/webp',
      bytes: new Uint8Array(data),
      picture: {
        width: info.width,
        height: info.pageHeight ?? info.height,
        coarse: `data:image/webp;base64,${coarse.toString('base64')}`,
      },
    };
  } catch {
    return { problem: words.damaged };
  }
}

function readText(
  bytes: Uint8Array,
  name: string,
  words: Messages['files'],
): ReadFile | { readonly problem: string } {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return { problem: words.unknown(words.taken) };
  }
  // biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for
  if (/[\u0000-\u0008\u000e-\u001f]/.test(text)) return { problem: words.unknown(words.taken) };
  if (/^\s*(<|%!PS)/.test(text)) return { problem: words.markup };
  const extension = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? 'txt';
  // Captions begin so (WebVTT §4); what does not is a text, whatever it is called.
  const isCaptions = /^\uFEFF?WEBVTT(?:[ \t\n\r]|$)/.test(text);
  if (extension === 'vtt' && !isCaptions) return { problem: words.noCaptions };
  const kept = isCaptions ? 'vtt' : TEXTS[extension] ? extension : 'txt';
  return { name: safeName(name, kept), mediaType: TEXTS[kept] ?? 'text/plain', bytes, picture: null };
}

/** A name that is safe in an address and in any file system, with the extension that fits the content. */
export function safeName(name: string, extension: string): string {
  const last = name.split(/[/\\]/).at(-1) ?? '';
  const stem = last
    .normalize('NFC')
    .toLowerCase()
    .replace(/\.[^.]*$/, '')
    .replace(/[^\p{L}\p{N}_-]+/gu, '-')
    .replace(/^[-_]+|[-_]+$/g, '')
    .slice(0, 80);
  return `${stem || 'file'}.${extension}`;
}
