/** A folder of this machine as one archive, made where it is: files are stored as they are, read one after the other. */
import { Zip, ZipPassThrough } from 'fflate';

export interface FileInFolder {
  /** With slashes between its parts. */
  readonly path: string;
  readonly file: File;
}

/** What a tool keeps for itself, and can be larger than everything else. */
const KEPT_BY_TOOLS = /(?:^|\/)(?:\.git|node_modules)\//;

/** The files that somebody chose by a folder. */
export const filesChosen = (list: FileList): readonly FileInFolder[] =>
  [...list]
    .map((file) => ({ path: file.webkitRelativePath || file.name, file }))
    .filter(({ path }) => !KEPT_BY_TOOLS.test(path));

/** The files that somebody let fall, in the folders in which they are. */
export async function filesDropped(items: DataTransferItemList): Promise<readonly FileInFolder[]> {
  // Everything is taken before anything is waited for: the list is empty afterwards.
  const entries = [...items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const found: FileInFolder[] = [];
  const walk = async (entry: FileSystemEntry, above: string): Promise<void> => {
    const path = above + entry.name;
    if (KEPT_BY_TOOLS.test(`${path}/`)) return;
    if (entry.isFile) {
      const file = await new Promise<File>((resolve, reject) =>
        (entry as FileSystemFileEntry).file(resolve, reject),
      );
      found.push({ path, file });
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    // It gives some at a time, and none at the end.
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
        reader.readEntries(resolve, reject),
      );
      if (some.length === 0) return;
      for (const one of some) await walk(one, `${path}/`);
    }
  };
  for (const entry of entries) await walk(entry, '');
  return found;
}

/** Packs files into one archive. */
export async function zipOf(files: readonly FileInFolder[]): Promise<Blob> {
  const parts: Uint8Array[] = [];
  const zip = new Zip((error, part) => {
    if (error) throw error;
    parts.push(part);
  });
  for (const { path, file } of files) {
    const entry = new ZipPassThrough(path);
    zip.add(entry);
    entry.push(new Uint8Array(await file.arrayBuffer()), true);
  }
  zip.end();
  return new Blob(parts as BlobPart[], { type: 'application/zip' });
}
