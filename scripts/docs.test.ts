import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  catalogue,
  DEEPEST,
  DESK_RIGHTS,
  isReserved,
  LONGEST_CONDITION,
  MOST_TESTS,
  normaliseAddress,
  OPERATORS,
  RESERVED,
  SECTIONS,
  TURN_AWAYS,
  valuesOf,
} from '../src/core';
import { SCREEN_KINDS, screenNamed } from '../src/desk/screens';

const read = (path: string) => readFileSync(path, 'utf8');
/** Every file below a folder. */
const below = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((path) => join(folder, path));
const inCode = (text: string): readonly string[] =>
  [...text.matchAll(/`([^`]+)`/g)].map(([, one]) => one ?? '');
const between = (text: string, from: string, to: string) => text.split(from)[1]?.split(to)[0] ?? '';

describe('docs/conditions.md', () => {
  const text = read('docs/conditions.md');

  it('names every fact, and says which can be made up', () => {
    for (const { phrase, fakeable } of catalogue) {
      const line = text.split('\n').find((one) => one.startsWith('|') && one.includes(`\`${phrase}\``));
      expect([phrase, line?.includes('can be made up')]).toEqual([phrase, fakeable]);
    }
  });

  it('names no fact that there is not', () => {
    const table = between(text, '## Facts', 'What can be made up').split('\n').slice(4);
    const facts = table.flatMap((line) => inCode(line.split('|')[1] ?? ''));
    expect([...facts].sort()).toEqual(catalogue.map(({ phrase }) => phrase).sort());
  });

  it('names every operator', () => {
    const words = Object.values(OPERATORS).flatMap((list) =>
      list.flatMap((operator) => [operator.words, operator.suffix ?? '']),
    );
    for (const word of words) if (word !== '') expect(text).toContain(`\`${word}\``);
  });

  it('tells the limits as they are', () => {
    expect(text).toContain(
      `At most ${LONGEST_CONDITION.toLocaleString('en')} characters, ${MOST_TESTS} tests, ${DEEPEST} groups`,
    );
  });
});

describe('docs/http.md', () => {
  const text = read('docs/http.md');

  it('lists the addresses that are reserved', () => {
    const listed = inCode(
      between(text, 'Reserved, so that no item can take them: ', ', and everything below'),
    );
    expect([...listed].sort()).toEqual(RESERVED.map((one) => `/${one}`).sort());
    for (const one of listed) expect(isReserved(normaliseAddress(`${one}/x`) ?? ('/' as never))).toBe(true);
  });

  it('gives every decision its status', () => {
    const table = between(text, '## `GET /<address>`', 'An address that');
    for (const [kind, { status }] of Object.entries(TURN_AWAYS))
      if (status !== null) expect(table).toContain(`| ${kind} | ${status} |`);
  });

  it('lists every screen of the desk', () => {
    const line = text.split('\n').find((one) => one.startsWith("The desk's screens: ")) ?? '';
    const listed = inCode(line).map((one) => one.replace(/^\/desk\/?/, ''));
    const there = SCREEN_KINDS.map((kind) => {
      const { path, takesId } = screenNamed(kind);
      return takesId ? `${path}/<id>` : path;
    });
    expect([...listed].sort()).toEqual([...there].sort());
  });

  it('lists every data route of the desk', () => {
    const listed = inCode(between(text, 'data routes, below `/desk/api`:', '\n\n##'));
    const there = below('src/app/desk/api')
      .filter((path) => path.endsWith('/route.ts'))
      .flatMap((file) => {
        const path = dirname(file).replace('src/app/desk/api/', '').replaceAll('[', '<').replaceAll(']', '>');
        const methods = read(file).matchAll(/^export (?:async )?(?:const|function) ([A-Z]+)\b/gm);
        return [...methods].map(([, method]) => `${method} ${path}`);
      });
    expect(listed.filter((one) => !one.startsWith('?')).sort()).toEqual(there.sort());
  });
});

it('tells what each right at the desk may, right by right', () => {
  const table = between(read('docs/checking.md'), '## Rights at the desk', 'A gatekeeper or writer');
  const rights = table.split('\n').flatMap((line) => /^\| (\w+) +\|/.exec(line)?.[1] ?? []);
  expect(rights).toEqual(['right', ...DESK_RIGHTS]);
});

it('names every type of section where writing is described', () => {
  const sentence = between(read('docs/writing.md'), '**sections**, in order: ', '. Each');
  expect(sentence.replaceAll("'", '’').split(', ')).toEqual(valuesOf(SECTIONS).map(({ name }) => name));
});

it('tells of every turn-away what it is, with its status', () => {
  const table = between(read('docs/model.md'), '## Turn-aways', "A teaser's text").split('\n');
  for (const [kind, { status }] of Object.entries(TURN_AWAYS)) {
    const row = table.find((line) => line.startsWith(`| ${kind} |`));
    expect([kind, row?.split('|').at(-2)?.trim()]).toEqual([kind, status === null ? '' : String(status)]);
  }
});

describe('README.md', () => {
  const text = read('README.md');

  it('lists every command', () => {
    const { scripts } = JSON.parse(read('package.json')) as { scripts: Record<string, string> };
    const listed = inCode(between(text, '## Commands', '`PORT`')).filter((one) => one.startsWith('npm'));
    const names = listed.map((one) => one.replace(/^npm (run )?/, ''));
    expect([...names].sort()).toEqual(Object.keys(scripts).sort());
  });

  it('names every setting that is read from the environment', () => {
    const settings = read('src/services/running/environment.ts').match(/^ {2}[A-Z_]+(?=: z)/gm) ?? [];
    for (const one of settings) expect(text).toContain(`\`${one.trim()}\``);
    expect(settings.length).toBeGreaterThan(2);
  });
});

it.each(['README.md', 'ARCHITECTURE.md', ...below('docs').filter((path) => path.endsWith('.md'))])(
  'leads from %s to files that are there',
  (file) => {
    for (const [, target = ''] of read(file).matchAll(/\]\(([^)#]+)(?:#[^)]*)?\)/g))
      if (!/^https?:/.test(target)) expect(existsSync(join(dirname(file), target)), target).toBe(true);
  },
);

describe('docs/handbook', () => {
  const folder = 'docs/handbook';
  const listed = [...read(`${folder}/README.md`).matchAll(/^\d+\. \[([^\]]+)\]\(([a-z]+)\.md\)$/gm)];
  const names = listed.map(([, , name = '']) => name);

  it('lists every page once, by its title', () => {
    const files = readdirSync(folder).filter((file) => file !== 'README.md');
    expect(names.map((name) => `${name}.md`).sort()).toEqual(files.sort());
    for (const [, title, name] of listed) expect(read(`${folder}/${name}.md`)).toMatch(`# ${title}\n`);
  });

  it.each(names)('%s leads to pages and pictures that are there', (name) => {
    const text = read(`${folder}/${name}.md`);
    for (const [, to = ''] of text.matchAll(/\]\(([^)]+)\)/g))
      expect(existsSync(join(folder, to)), to).toBe(true);
  });

  it('has a page for every screen that names one', () => {
    for (const { help } of SCREEN_KINDS.map(screenNamed))
      if (help !== undefined) expect(names).toContain(help);
  });
});
