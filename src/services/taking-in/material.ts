/** Everything of a source, read: its texts, and the files that they show and link to. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type ReadFile, readFile } from '../forms';
import { yielder } from '../running';
import { type FoundDocument, readFound } from '../texts';
import { type LeftOut, MOST_FILES, type Source, type SourceText, saidOf, stopIf, targetOf } from './source';

/** How many are read, or asked for, at the same time. */
const AT_ONCE = 4;

/** In bytes, as they will be kept. */
const MOST_BYTES = 500_000_000;

export interface FoundText {
  readonly path: string;
  /** The path under which it was asked for, where that leads on to this one. */
  readonly formerPath: string | null;
  readonly document: FoundDocument;
}

/** A file as it will be kept; its bytes lie in a folder of their own until then. */
export type FoundFile = Omit<ReadFile, 'bytes'> & {
  readonly path: string;
  readonly size: number;
  readonly at: string;
};

export interface Material {
  readonly name: string;
  readonly kind: Source['kind'];
  readonly base: URL;
  readonly texts: readonly FoundText[];
  readonly files: ReadonlyMap<string, FoundFile>;
  readonly leftOut: readonly LeftOut[];
}

/** How far reading is. */
export interface Reading {
  readonly what: 'pages' | 'files';
  readonly done: number;
  readonly of: number;
}

/** Reads all of a source. Files are drawn anew, and written into the folder. */
export async function readSource(
  source: Source,
  folder: string,
  signal: AbortSignal,
  onProgress: (reading: Reading) => void,
): Promise<Material> {
  const leftOut = [...source.leftOut];
  const texts = await readTexts(source, signal, leftOut, onProgress);
  const files = await readFiles(source, texts, folder, signal, leftOut, onProgress);
  const { name, kind, base } = source;
  return { name, kind, base, texts, files, leftOut };
}

/** Runs a work for each of a list, so many at the same time. */
async function each<T>(
  list: readonly T[],
  atOnce: number,
  work: (one: T, at: number) => Promise<void>,
): Promise<void> {
  let next = 0;
  const worker = async () => {
    while (next < list.length) {
      const at = next++;
      await work(list[at] as T, at);
    }
  };
  await Promise.all(Array.from({ length: atOnce }, worker));
}

async function readTexts(
  source: Source,
  signal: AbortSignal,
  leftOut: LeftOut[],
  onProgress: (reading: Reading) => void,
): Promise<readonly FoundText[]> {
  const found = new Map<string, FoundText & { readonly order: number }>();
  // Several are read at the same time; what is told of them keeps the order of the source.
  const refused: (LeftOut & { readonly order: number })[] = [];
  const refuse = (text: SourceText, order: number, why: string) =>
    refused.push({ path: saidOf(source.kind, text.path), why, order });
  let done = 0;
  onProgress({ what: 'pages', done, of: source.texts.length });
  const readOne = async (text: SourceText, order: number) => {
    stopIf(signal);
    const had = await text.read();
    stopIf(signal);
    const read = 'problem' in had ? had : await readFound(had, source.texts.length);
    const path = ('path' in had && had.path) || text.path;
    if ('problem' in read) refuse(text, order, read.problem);
    else if (found.has(path)) refuse(text, order, `It leads on to /${path}, which is taken in.`);
    else
      found.set(path, {
        path,
        formerPath: path === text.path ? null : text.path,
        document: read.document,
        order,
      });
    onProgress({ what: 'pages', done: ++done, of: source.texts.length });
  };
  await each(source.texts, AT_ONCE, readOne);
  const inOrder = (a: { readonly order: number }, b: { readonly order: number }) => a.order - b.order;
  leftOut.push(...refused.toSorted(inOrder).map(({ path, why }) => ({ path, why })));
  return [...found.values()].toSorted(inOrder);
}

async function readFiles(
  source: Source,
  texts: readonly FoundText[],
  folder: string,
  signal: AbortSignal,
  leftOut: LeftOut[],
  onProgress: (reading: Reading) => void,
): Promise<ReadonlyMap<string, FoundFile>> {
  const wanted = wantedFiles(source, texts);
  const files = new Map<string, FoundFile>();
  const taken = wanted.slice(0, MOST_FILES);
  for (const path of wanted.slice(MOST_FILES))
    leftOut.push({ path, why: `At most ${MOST_FILES} files are taken in at once.` });
  let done = 0;
  let bytes = 0;
  await each(taken, AT_ONCE, async (path, at) => {
    stopIf(signal);
    const had = await source.file(path);
    stopIf(signal);
    if (had && 'bytes' in had) {
      const read = await readFile(had.bytes, nameIn(path));
      if ('problem' in read) leftOut.push({ path: saidOf(source.kind, path), why: read.problem });
      else if (bytes + read.bytes.length > MOST_BYTES)
        leftOut.push({
          path,
          why: `Files of more than ${MOST_BYTES / 1_000_000} MB are not taken in at once.`,
        });
      else {
        bytes += read.bytes.length;
        const place = join(folder, String(at));
        await writeFile(place, read.bytes);
        const { bytes: _, ...rest } = read;
        files.set(path, { ...rest, path, size: read.bytes.length, at: place });
      }
    } else if (had) leftOut.push({ path: saidOf(source.kind, path), why: had.problem });
    onProgress({ what: 'files', done: ++done, of: taken.length });
  });
  const used = new Set(wanted);
  const rest = yielder();
  for (const path of source.files) {
    if (!used.has(path)) leftOut.push({ path, why: 'No page shows it or links to it.' });
    await rest();
  }
  return files;
}

const nameIn = (path: string): string => path.replace(/\?.*$/s, '').split('/').at(-1) || 'file';

/** The files that texts show or link to, in the order in which they are met. */
function wantedFiles({ files, base, kind }: Source, texts: readonly FoundText[]): readonly string[] {
  const there = new Set(files);
  const pages = new Set(texts.flatMap(({ path, formerPath }) => [path, formerPath ?? path]));
  const wanted = new Set<string>();
  for (const { path: from, document } of texts)
    for (const spot of document.spots) {
      const target = targetOf(spot.url, from, base);
      if (!target || pages.has(target.path)) continue;
      // On the web it shows only when it is asked for; a link to something without an end is a link to a page.
      const isFile =
        kind === 'web'
          ? spot.kind === 'picture' || FILE_ENDS.test(target.path.replace(/\?.*$/s, ''))
          : there.has(target.path);
      if (isFile) wanted.add(target.path);
    }
  return [...wanted];
}

const FILE_ENDS = /\.(?:pdf|mp4|webm|mkv|mp3|jpe?g|png|webp|gif|avif|txt|csv|vtt)$/i;
