/** A folder that was sent as a ZIP archive. Nothing is unpacked onto a disk: each file is read when it is asked for. */
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { LARGEST_FILE } from '../forms';
import { LARGEST_TEXT, TEXT_ENDS, type TextKind } from '../texts';
import { type LeftOut, MOST_TEXTS, type Source, type SourceText } from './source';

/** The most that an archive holds, packed and unpacked, in bytes. */
export const LARGEST_ARCHIVE = 300_000_000;
const LARGEST_WHOLE = 1_000_000_000;
const MOST_ENTRIES = 20_000;
const LONGEST_PATH = 1000;

/** Stands for the place of a folder: an address that nothing has (RFC 6761 §6.4). */
const NOWHERE = new URL('https://folder.invalid/');

/** Why an archive is not taken at all. */
class Refused extends Error {}

/** Opens an archive that lies at a path; or says why it can't be taken. */
export async function openArchive(at: string, name: string): Promise<Source | { readonly problem: string }> {
  let zip: ZipFile;
  try {
    zip = await opened(at);
  } catch {
    return { problem: 'That can’t be read as a ZIP archive.' };
  }
  try {
    return sourceOf(zip, await entriesOf(zip), name);
  } catch (error) {
    zip.close();
    const why = error instanceof Refused ? error.message : brokenOf(String((error as Error).message));
    return { problem: why };
  }
}

const brokenOf = (message: string): string => {
  const [, path] = /^(?:invalid relative path|absolute path): (.*)$/.exec(message) ?? [];
  return path === undefined
    ? 'The archive is damaged: its list of files can’t be read.'
    : `The archive holds a path that leads out of it: ${path.slice(0, 100)}. Nothing of it is taken.`;
};

const opened = (at: string): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.open(at, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) =>
      zip ? resolve(zip) : reject(error),
    ),
  );

function entriesOf(zip: ZipFile): Promise<readonly Entry[]> {
  if (zip.entryCount > MOST_ENTRIES)
    throw new Refused(
      `The archive holds ${zip.entryCount} files, and at most ${MOST_ENTRIES} are taken. Cut it into several.`,
    );
  const entries: Entry[] = [];
  let whole = 0;
  return new Promise((resolve, reject) => {
    zip.on('entry', (entry: Entry) => {
      whole += entry.uncompressedSize;
      if (whole > LARGEST_WHOLE)
        return reject(
          new Refused(
            `Unpacked, the archive is larger than ${LARGEST_WHOLE / 1_000_000} MB. Cut it into several.`,
          ),
        );
      // A path that no file system has is not held, but told.
      if (entry.fileName.length > LONGEST_PATH) entry.fileName = `${entry.fileName.slice(0, LONGEST_PATH)}…`;
      entries.push(entry);
      zip.readEntry();
    });
    zip.on('end', () => resolve(entries));
    zip.on('error', reject);
    zip.readEntry();
  });
}

const HIDDEN = /(?:^|\/)(?:\.|__MACOSX(?:\/|$)|Thumbs\.db$|desktop\.ini$|node_modules(?:\/|$))/i;

const CONTROL = /\p{Cc}/u;

const LINK_BITS = 0o120000;
const KIND_BITS = 0o170000;

/** Why an entry is not taken, or null. */
function whyNot({
  fileName,
  externalFileAttributes,
  generalPurposeBitFlag,
  uncompressedSize,
}: Entry): string | null {
  if (fileName.length > LONGEST_PATH) return `Its path has more than ${LONGEST_PATH} letters.`;
  if (CONTROL.test(fileName)) return 'Its name holds characters that no address has.';
  if (((externalFileAttributes >>> 16) & KIND_BITS) === LINK_BITS)
    return 'It is a link, and those are not followed.';
  if (generalPurposeBitFlag & 1) return 'It is encrypted.';
  if (uncompressedSize > LARGEST_FILE)
    return `It has ${Math.ceil(uncompressedSize / 1_000_000)} MB, and a file at most ${LARGEST_FILE / 1_000_000}.`;
  return null;
}

export const textKindOf = (path: string): TextKind | null => {
  const end = /\.([a-z]+)$/i.exec(path)?.[1]?.toLowerCase() ?? '';
  return Object.hasOwn(TEXT_ENDS, end) ? TEXT_ENDS[end as keyof typeof TEXT_ENDS] : null;
};

function sourceOf(zip: ZipFile, all: readonly Entry[], name: string): Source {
  const leftOut: LeftOut[] = [];
  const entries = new Map<string, Entry>();
  let hidden = 0;
  const visible = all.filter(({ fileName }) => {
    if (fileName.endsWith('/')) return false;
    if (!HIDDEN.test(fileName)) return true;
    hidden += 1;
    return false;
  });
  const within = commonFolder(visible.map(({ fileName }) => fileName));
  for (const entry of visible) {
    const path = entry.fileName.slice(within.length).normalize('NFC');
    const why = entries.has(path) ? 'It stands in the archive twice; the first was taken.' : whyNot(entry);
    if (why === null) entries.set(path, entry);
    else leftOut.push({ path, why });
  }
  if (hidden > 0)
    leftOut.push({
      path: `${hidden} hidden ${hidden === 1 ? 'file' : 'files'}`,
      why: 'What an operating system or a tool keeps for itself.',
    });
  const texts = [...entries].flatMap(([path, entry]): readonly SourceText[] => {
    const kind = textKindOf(path);
    if (kind === null) return [];
    if (entry.uncompressedSize > LARGEST_TEXT) {
      leftOut.push({ path, why: `A text has at most ${LARGEST_TEXT / 1_000_000} MB.` });
      return [];
    }
    return [
      {
        path,
        read: async () => {
          const bytes = await bytesOf(zip, entry);
          return bytes === null ? { problem: DAMAGED } : { bytes, kind, charset: null };
        },
      },
    ];
  });
  if (texts.length > MOST_TEXTS)
    throw new Refused(
      `The archive holds ${texts.length} texts, and at most ${MOST_TEXTS} are taken in at once. Cut it into several.`,
    );
  if (texts.length === 0)
    throw new Refused('There is no page in it: none of its files ends in .md, .markdown, .html or .htm.');
  const known = new Set(texts.map(({ path }) => path));
  return {
    name,
    kind: 'folder',
    base: NOWHERE,
    texts,
    leftOut,
    files: [...entries.keys()].filter((path) => !known.has(path)),
    file: async (path) => {
      const entry = entries.get(path);
      if (!entry || known.has(path)) return null;
      const bytes = await bytesOf(zip, entry);
      return bytes === null ? { problem: DAMAGED } : { bytes };
    },
    close: async () => zip.close(),
  };
}

const DAMAGED = 'It is damaged, or packed in a way that is not read.';

/** The folder that everything stands in, with a slash; nothing where there is none. */
function commonFolder(paths: readonly string[]): string {
  let within = '';
  for (;;) {
    const next = /^[^/]+\//.exec((paths[0] ?? '').slice(within.length))?.[0];
    if (next === undefined || !paths.every((path) => path.startsWith(within + next))) return within;
    within += next;
  }
}

/** What an entry holds; null where that is something else than it says. */
const bytesOf = (zip: ZipFile, entry: Entry): Promise<Uint8Array | null> =>
  new Promise((resolve) =>
    zip.openReadStream(entry, (_, stream) => {
      if (!stream) return resolve(null);
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('error', () => resolve(null));
      stream.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    }),
  );
