/**
 * What the compiler says once a table has one entry more: the tables are changed in a copy, and everything in it is
 * checked. For docs/adding.md and its test.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';

/** One entry more in a table. */
export interface Addition {
  /** The heading in docs/adding.md. */
  readonly heading: string;
  /** The name of the new entry; in no other name or text. */
  readonly name: string;
  readonly edits: readonly Edit[];
}

/** A piece put into a file before a line. */
interface Edit {
  readonly file: string;
  readonly before: string;
  readonly entry: string;
}

export const ADDITIONS: readonly Addition[] = [
  {
    heading: 'To add a kind of item',
    name: 'kiosk',
    edits: [
      {
        file: 'src/core/site/kinds.ts',
        before: '} as const satisfies Record<string, Kind>;',
        entry: `  kiosk: {
    one: 'a kiosk',
    many: 'kiosks',
    parents: ['site', 'page'],
    address: null,
    contained: false, afterAbove: false,
    part: false,
    byCategory: false,
    ...WHOLE,
  },`,
      },
      {
        file: 'src/core/site/item.ts',
        before: '/** What an item of each kind is. */',
        entry: `export interface Kiosk extends ItemBase { readonly kind: 'kiosk'; }\n`,
      },
      { file: 'src/core/site/item.ts', before: '  readonly file: File;', entry: '  readonly kiosk: Kiosk;' },
    ],
  },
  {
    heading: 'To add a kind of item',
    name: 'ledger',
    edits: [
      {
        file: 'src/core/site/kinds.ts',
        before: '} as const satisfies Record<string, Kind>;',
        entry: `  ledger: {
    one: 'a ledger',
    many: 'ledgers',
    parents: ['site', 'page'],
    address: 'chosen',
    contained: false, afterAbove: false,
    part: false,
    byCategory: false,
    ...WHOLE,
  },`,
      },
      {
        file: 'src/core/site/item.ts',
        before: '/** What an item of each kind is. */',
        entry: `export interface Ledger extends ItemBase { readonly kind: 'ledger'; readonly address: Address; }\n`,
      },
      {
        file: 'src/core/site/item.ts',
        before: '  readonly file: File;',
        entry: '  readonly ledger: Ledger;',
      },
    ],
  },
  {
    heading: 'To add a type of section',
    name: 'poster',
    edits: [
      {
        file: 'src/core/site/kinds.ts',
        before: '} as const satisfies Record<string, SectionKind>;',
        entry: "  poster: { name: 'poster', text: false, shows: null, varies: false },",
      },
      {
        file: 'src/services/writing/section-form.ts',
        before: '} satisfies Record<SectionType, z.ZodObject>;',
        entry: "  poster: z.strictObject({ ...base, type: z.literal('poster'), size: z.int() }),",
      },
      {
        file: 'src/store/section-content.ts',
        before: '/** The types of section that hold nothing beside their text, or nothing at all. */',
        entry: 'interface Parts { readonly poster: { readonly size: number } }',
      },
      {
        file: 'src/services/view/section-view.ts',
        before: "  | ({ readonly kind: 'account' } & AccountView)",
        entry: "  | { readonly kind: 'poster'; readonly size: number }",
      },
    ],
  },
  {
    heading: 'To add a fact',
    name: 'height',
    edits: [
      {
        file: 'src/core/condition/facts/visitor.ts',
        before: '} as const satisfies Record<string, FactEntry>;',
        entry: "  height: { label: 'Height', of: 'visitor', type: 'number', read: () => () => null },",
      },
    ],
  },
  {
    heading: 'To add a turn-away',
    name: 'veil',
    edits: [
      {
        file: 'src/core/gate/turn-aways.ts',
        before: '} as const satisfies Record<string, Entry>;',
        entry: `  veil: {
    outcome: 'veiled',
    offer: 'a veil',
    means: 'Veil: nothing to be made out',
    status: null,
    tells: 'nothing',
    begin: () => ({ kind: 'veil' }),
  },`,
      },
      {
        file: 'src/core/gate/turn-away.ts',
        before: '/** What each turn-away is made of. */',
        entry: `export interface Veil { readonly kind: 'veil' }\n`,
      },
      {
        file: 'src/core/gate/turn-away.ts',
        before: '  readonly locked: Locked;',
        entry: '  readonly veil: Veil;',
      },
    ],
  },
  {
    heading: 'To add a screen of the desk',
    name: 'atlas',
    edits: [
      {
        file: 'src/desk/screens.ts',
        before: '};',
        entry:
          "  atlas: entry({ title: 'Atlas', path: 'atlas', tab: 'Atlas', need: 'look', read: () => ({}) }),",
      },
    ],
  },
];

const ROOT = resolve(import.meta.dirname, '..');
/** What is checked, and what that asks for. */
const FOLDERS = ['src', 'demo', 'till'];
const TESTS = /\.test\.tsx?$/;
/** A line in which the compiler says what is wrong, and where. */
const FOUND = /^(?<file>src\/[^(\n]+)\(\d+,\d+\): error \w+: (?<message>.*(?:\n +.*)*)/gm;

/** The files in which the compiler misses something of an addition, in alphabetical order. */
export function placesLeft(additions: readonly Addition[]): ReadonlyMap<Addition, readonly string[]> {
  mkdirSync(resolve(ROOT, 'test-results'), { recursive: true });
  // Within the folder of the packages, so that they are found from it.
  const copy = mkdtempSync(resolve(ROOT, 'test-results', 'adding-'));
  try {
    for (const folder of FOLDERS)
      cpSync(resolve(ROOT, folder), resolve(copy, folder), {
        recursive: true,
        filter: (path) => !TESTS.test(path),
      });
    for (const { file, before, entry } of additions.flatMap(({ edits }) => edits)) {
      const text = readFileSync(resolve(copy, file), 'utf8');
      const at = text.indexOf(`\n${before}\n`);
      if (at < 0) throw new Error(`${file} has no line "${before}".`);
      writeFileSync(resolve(copy, file), `${text.slice(0, at)}\n${entry}${text.slice(at)}`);
    }
    const settings = {
      extends: '../../tsconfig.json',
      compilerOptions: { incremental: false, paths: { '@/*': ['./src/*'] } },
      include: ['src', '../../next-env.d.ts'],
    };
    writeFileSync(resolve(copy, 'tsconfig.json'), JSON.stringify(settings));
    const compiler = resolve(ROOT, 'node_modules/typescript-native/bin/tsc');
    const { stdout } = spawnSync(process.execPath, [compiler, '--pretty', 'false', '-p', '.'], {
      cwd: copy,
      encoding: 'utf8',
    });
    return placesIn(stdout, additions);
  } finally {
    rmSync(copy, { recursive: true });
  }
}

function placesIn(said: string, additions: readonly Addition[]): ReadonlyMap<Addition, readonly string[]> {
  const found = [...said.matchAll(FOUND)].map(({ groups }) => ({
    file: groups?.file ?? '',
    message: groups?.message?.toLowerCase() ?? '',
  }));
  return new Map(
    additions.map((addition) => {
      const files = found.filter(({ message }) => message.includes(addition.name)).map(({ file }) => file);
      return [addition, [...new Set(files)].sort()];
    }),
  );
}
