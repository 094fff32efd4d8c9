/** Which way imports go: layers, the rooms of services, the folders of core. By whatever path they are written. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, it } from 'vitest';

/** Each may import those it names, by their index. */
const LAYERS: Readonly<Record<string, readonly string[]>> = {
  core: [],
  store: ['core'],
  services: ['store', 'core'],
  ui: [],
  site: ['services', 'core', 'ui'],
  desk: ['services', 'core', 'ui'],
  app: ['services', 'core', 'site', 'desk', 'ui'],
};

/** The rooms of services: each may import those before it. */
const ROOMS = [
  'texts',
  'forms',
  'running',
  'till',
  'mail',
  'people',
  'policy',
  'view',
  'visiting',
  'selling',
  'learning',
  'checking',
  'writing',
  'quiz-package',
  'leak-check',
  'areas',
  'taking-in',
  'site-file',
  'beginning',
  'keeping',
  'desk',
] as const;

// The migration tool follows imports and knows no aliases, so the shapes that the schema names are taken past core's index.
const FOR_THE_SCHEMA = [
  'types',
  'area-step',
  'person-record',
  'removed-items',
  'section-content',
  'taken-over',
  'site-wishes',
  'content',
  'schema',
].map((name) => `src/store/${name}.ts`);

interface Import {
  readonly from: string;
  readonly to: string;
  /** Whether it is gone when the program runs. */
  readonly type: boolean;
}

const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .map((path) => join('src', path))
  .filter((path) => /\.tsx?$/.test(path) && !/\.test\.|\/testing/.test(path));

function found(from: string, written: string): string | null {
  if (!/^(?:@\/|\.)/.test(written)) return null;
  const path = written.startsWith('@/') ? join('src', written.slice(2)) : join(dirname(from), written);
  return [`${path}.ts`, `${path}.tsx`, join(path, 'index.ts')].find(existsSync) ?? null;
}

const imports: readonly Import[] = files.flatMap((from) => {
  const text = readFileSync(from, 'utf8');
  return [...text.matchAll(/^(?:import|export) (type )?[^;]*?from '([^']+)';/gm)].flatMap((match) => {
    const to = found(from, match[2] ?? '');
    const names = /\{([^}]*)\}/
      .exec(match[0])?.[1]
      ?.split(',')
      .filter((name) => name.trim() !== '');
    const type = match[1] !== undefined || (names?.every((name) => name.trim().startsWith('type ')) ?? false);
    return to === null ? [] : [{ from, to, type }];
  });
});

const layerOf = (path: string) => path.split('/')[1] ?? '';
const said = ({ from, to }: Import) => `${from} imports ${to}`;

it('reads every import of the house', () => {
  expect(imports.length).toBeGreaterThan(1500);
});

it('goes from layer to layer as ARCHITECTURE.md says, and in by the index', () => {
  const wrong = imports.filter(({ from, to }) => {
    const [here, there] = [layerOf(from), layerOf(to)];
    if (here === there || from === 'src/proxy.ts') return false;
    if (here === 'store' && there === 'core' && FOR_THE_SCHEMA.includes(from)) return false;
    return !LAYERS[here]?.includes(there) || !/^src\/\w+\/index\.ts$/.test(to);
  });
  expect(wrong.map(said)).toEqual([]);
});

it('goes from room to room of services in one direction, and in by the index', () => {
  const roomOf = (path: string) => /^src\/services\/([\w-]+)\//.exec(path)?.[1];
  const wrong = imports.filter(({ from, to }) => {
    const [here, there] = [roomOf(from), roomOf(to)];
    if (here === undefined || there === undefined || here === there) return false;
    const order: readonly string[] = ROOMS;
    return order.indexOf(there) >= order.indexOf(here) || !to.endsWith('/index.ts');
  });
  expect(wrong.map(said)).toEqual([]);
  const rooms = new Set(files.flatMap((path) => roomOf(path) ?? []));
  expect([...rooms].sort()).toEqual([...ROOMS].sort());
});

it('has no circles', () => {
  const next = new Map<string, Set<string>>();
  for (const { from, to, type } of imports) if (!type) next.set(from, (next.get(from) ?? new Set()).add(to));
  const done = new Set<string>();
  const path: string[] = [];
  const circles: string[] = [];
  const visit = (file: string): void => {
    const at = path.indexOf(file);
    if (at >= 0) circles.push([...path.slice(at), file].join(' → '));
    if (at >= 0 || done.has(file)) return;
    path.push(file);
    for (const one of next.get(file) ?? []) visit(one);
    path.pop();
    done.add(file);
  };
  for (const file of files) visit(file);
  expect(circles).toEqual([]);
});

it.each(['core', 'services'])('offers from %s what others use, and nothing else', (layer) => {
  const offered = [...readFileSync(`src/${layer}/index.ts`, 'utf8').matchAll(/\{([^}]*)\}/g)].flatMap(
    (match) => (match[1] ?? '').split(',').flatMap((name) => name.replace(/^\s*type /, '').trim() || []),
  );
  const others = ['src', 'scripts', 'bench', 'demo', 'e2e', 'till']
    .flatMap((folder) =>
      readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((path) => join(folder, path)),
    )
    .filter((path) => /\.tsx?$/.test(path) && !path.startsWith(`src/${layer}/`));
  const from = new RegExp(`\\{([^}]*)\\}\\s*from '(?:@/|(?:\\.\\./)+(?:src/)?)${layer}'`, 'g');
  const used = new Set(
    others.flatMap((path) =>
      [...readFileSync(path, 'utf8').matchAll(from)].flatMap((match) =>
        (match[1] ?? '').split(',').map(
          (name) =>
            name
              .replace(/^\s*type /, '')
              .trim()
              .split(' as ')[0],
        ),
      ),
    ),
  );
  expect(offered.filter((name) => !used.has(name))).toEqual([]);
  expect(offered.length).toBeGreaterThan(100);
});
