/** The handbook as the desk shows it: the same Markdown that stands in `docs/handbook`. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { BASE_MARK, renderedHtml } from '../texts';

export interface HandbookPage {
  /** The last part of its address at the desk. */
  readonly name: string;
  readonly title: string;
  readonly html: string;
}

const FOLDER = join('docs', 'handbook');
const PICTURES = join('docs', 'screenshots');

interface Handbook {
  readonly pages: readonly HandbookPage[];
  /** The pictures that its pages show, by file name. */
  readonly pictures: ReadonlySet<string>;
}

let known: Promise<Handbook> | null = null;

function read(): Promise<Handbook> {
  known ??= readAll();
  known.catch(() => {
    known = null;
  });
  return known;
}

async function readAll(): Promise<Handbook> {
  const contents = await readFile(join(FOLDER, 'README.md'), 'utf8');
  const names = [...contents.matchAll(/^\d+\. \[[^\]]+\]\(([a-z]+)\.md\)$/gm)].map(([, name = '']) => name);
  const pictures = new Set<string>();
  const pages = await Promise.all(
    names.map(async (name): Promise<HandbookPage> => {
      const text = await readFile(join(FOLDER, `${name}.md`), 'utf8');
      const here = text
        .replace(/\]\(\.\.\/screenshots\/([a-z-]+\.png)\)/g, (_, picture: string) => {
          pictures.add(picture);
          return `](/desk/api/help/${picture})`;
        })
        .replace(/\]\(([a-z]+)\.md\)/g, '](/desk/help/$1)');
      return {
        name,
        title: /^# (.+)$/m.exec(text)?.[1] ?? name,
        html: renderedHtml(here).replaceAll(BASE_MARK, ''),
      };
    }),
  );
  return { pages, pictures };
}

/** The pages of the handbook, in order. */
export async function handbook(_: Trivet, administrator: Administrator): Promise<readonly HandbookPage[]> {
  requirePermission(administrator, 'look');
  return (await read()).pages;
}

/** A picture that a page of the handbook shows (PNG); null where none shows it. */
export async function handbookPicture(
  _: Trivet,
  administrator: Administrator,
  name: string,
): Promise<Uint8Array<ArrayBuffer> | null> {
  requirePermission(administrator, 'look');
  const { pictures } = await read();
  return pictures.has(name) ? new Uint8Array(await readFile(join(PICTURES, name))) : null;
}
