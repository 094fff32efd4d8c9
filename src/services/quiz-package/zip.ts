/** Packages as they travel: files in a ZIP archive. */
import { strToU8, zipSync } from 'fflate';
import yauzl, { type Entry, type ZipFile } from 'yauzl';

/** In bytes. */
const LARGEST_FILE = 500_000;
const LARGEST_WHOLE = 10_000_000;
const MOST_FILES = 1000;

/** Files by their paths, as one archive. The same files are the same bytes. */
export const zipped = (files: Readonly<Record<string, string>>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])), {
    mtime: '1980-01-01T00:00:00',
  });

/**
 * The XML files of an archive by their paths, or why it can't be read. What an archive says of its sizes is held against what
 * comes out of it, piece by piece.
 */
export async function unzipped(
  bytes: Uint8Array,
): Promise<ReadonlyMap<string, string> | { readonly problem: string }> {
  let zip: ZipFile;
  try {
    zip = await opened(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  } catch {
    return { problem: 'That is no package: it can’t be read as a ZIP archive.' };
  }
  try {
    return await filesOf(zip);
  } catch (error) {
    return {
      problem: error instanceof TooMuch ? error.message : 'The package is damaged: it can’t be unpacked.',
    };
  } finally {
    zip.close();
  }
}

class TooMuch extends Error {}

const opened = (buffer: Buffer): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.fromBuffer(buffer, { lazyEntries: true, validateEntrySizes: true }, (error, zip) =>
      zip ? resolve(zip) : reject(error),
    ),
  );

function filesOf(zip: ZipFile): Promise<ReadonlyMap<string, string>> {
  if (zip.entryCount > MOST_FILES)
    throw new TooMuch(`The package holds more than ${MOST_FILES} files. Cut it into several.`);
  const files = new Map<string, string>();
  let whole = 0;
  return new Promise((resolve, reject) => {
    const take = async (entry: Entry) => {
      if (!/\.xml$/i.test(entry.fileName)) return;
      whole += entry.uncompressedSize;
      if (entry.uncompressedSize > LARGEST_FILE || whole > LARGEST_WHOLE)
        throw new TooMuch('What is in the package is too large. Cut it into several.');
      files.set(entry.fileName, await textOf(zip, entry));
    };
    zip.on('entry', (entry: Entry) => void take(entry).then(() => zip.readEntry(), reject));
    zip.on('end', () => resolve(files));
    zip.on('error', reject);
    zip.readEntry();
  });
}

const textOf = (zip: ZipFile, entry: Entry): Promise<string> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => {
      if (!stream) return reject(error);
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('error', reject);
      stream.on('end', () => resolve(Buffer.concat(parts).toString('utf8')));
    }),
  );
