/**
 * What the compiler says once a table has one entry more: the tables are changed in memory only, and everything is
 * checked as if they were so. For docs/adding.md and its test.
 */
import { readFileSync } from 'node:fs';
import { relative, resolve } from 'node:path';
import ts from 'typescript';

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

/** The files in which the compiler misses something of an addition, in alphabetical order. */
export function placesLeft(additions: readonly Addition[]): ReadonlyMap<Addition, readonly string[]> {
  const texts = new Map<string, string>();
  for (const { file, before, entry } of additions.flatMap(({ edits }) => edits)) {
    const path = resolve(ROOT, file);
    const text = texts.get(path) ?? readFileSync(path, 'utf8');
    const at = text.indexOf(`\n${before}\n`);
    if (at < 0) throw new Error(`${file} has no line "${before}".`);
    texts.set(path, `${text.slice(0, at)}\n${entry}${text.slice(at)}`);
  }
  const config = ts.readConfigFile(resolve(ROOT, 'tsconfig.json'), ts.sys.readFile);
  const { options, fileNames } = ts.parseJsonConfigFileContent(config.config, ts.sys, ROOT);
  const host = ts.createCompilerHost({ ...options, noEmit: true });
  const read = host.readFile;
  host.readFile = (path) => texts.get(resolve(path)) ?? read(path);
  const roots = fileNames.filter((path) => /^src\/(?!.*\.test\.)/.test(relative(ROOT, path)));
  const program = ts.createProgram(roots, { ...options, noEmit: true }, host);
  const found = program.getSemanticDiagnostics().flatMap(({ file, messageText }) => {
    const message = ts.flattenDiagnosticMessageText(messageText, ' ');
    return file ? [{ file: relative(ROOT, file.fileName), message }] : [];
  });
  return new Map(
    additions.map((addition) => {
      const files = found
        .filter(({ message }) => message.toLowerCase().includes(addition.name))
        .map(({ file }) => file);
      return [addition, [...new Set(files)].sort()];
    }),
  );
}
