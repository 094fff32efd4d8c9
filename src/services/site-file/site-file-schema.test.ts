/** The schema that is published for site files, and the importer: they refuse the same. */
import Ajv from 'ajv/dist/2020';
import { describe, expect, it } from 'vitest';
import { larkfell } from '../../../demo/larkfell';
import { readSiteFile, type SiteFile, siteFileSchema } from '..';
import { siteFile } from './site-file-form';

/** Every place in a plain value. */
function* placesIn(
  value: unknown,
  path: readonly (string | number)[] = [],
): Generator<readonly (string | number)[]> {
  if (path.length > 0) yield path;
  if (typeof value !== 'object' || value === null) return;
  for (const [key, part] of Object.entries(value))
    yield* placesIn(part, [...path, Array.isArray(value) ? Number(key) : key]);
}

type Spoil = (holder: Record<string | number, unknown>, key: string | number) => void;

/** What people and programs do to files: values of other types, keys left out, misspelt, doubled. */
const SPOILS: Readonly<Record<string, Spoil>> = {
  null: (holder, key) => {
    holder[key] = null;
  },
  gone: (holder, key) => {
    if (Array.isArray(holder)) holder.splice(Number(key), 1);
    else delete holder[key];
  },
  misspelt: (holder, key) => {
    if (Array.isArray(holder)) return;
    holder[`${key}s`] = holder[key];
    delete holder[key];
  },
  shortened: (holder, key) => {
    if (Array.isArray(holder) || String(key).length < 2) return;
    holder[String(key).slice(0, -1)] = holder[key];
    delete holder[key];
  },
  number: (holder, key) => {
    holder[key] = 7.5;
  },
  blank: (holder, key) => {
    holder[key] = ' ';
  },
  long: (holder, key) => {
    holder[key] = 'x'.repeat(201);
  },
  list: (holder, key) => {
    holder[key] = [];
  },
  object: (holder, key) => {
    holder[key] = {};
  },
  'no day': (holder, key) => {
    holder[key] = '2025-02-30';
  },
  truth: (holder, key) => {
    holder[key] = true;
  },
};

describe('the published schema and the importer', () => {
  it('refuse the same files: over a thousand ways to spoil one', async () => {
    const validate = new Ajv({ strict: false }).compile(siteFileSchema());
    const { items, policy, ...rest } = JSON.parse(JSON.stringify(larkfell)) as SiteFile &
      Record<string, unknown>;
    // One of each kind and each sort of section is as good as all, and files are long.
    const seen = new Set<string>();
    const some = items.filter((item) => {
      const sort = `${item.kind} ${'sections' in item ? item.sections?.map(({ type }) => type).join() : ''}`;
      return item.kind !== 'file' && !seen.has(sort) && seen.add(sort);
    });
    const draft = {
      ...(policy as object),
      landings: [{ id: 'l', after: 'sign in', when: 'signed in', to: 'visit', always: false }],
      defaults: [{ kind: 'post', category: null, gate: 'crew' }],
      audiences: [
        { id: 'a', name: 'A', who: { kind: 'not', of: { kind: 'test', fact: 'signed in', op: 'is' } } },
      ],
    };
    const file = {
      ...rest,
      timeZone: 'UTC',
      journal: { keeps: 'counts', days: 90 },
      people: rest.people?.slice(0, 5),
      items: some,
      policy: draft,
    };
    const all = [...placesIn(file)];
    const every = Math.max(1, Math.floor(all.length / 120));
    let tried = 0;
    const different: unknown[] = [];
    for (const [at, path] of all.entries()) {
      if (at % every !== 0) continue;
      for (const [how, spoil] of Object.entries(SPOILS)) {
        const spoilt = JSON.parse(JSON.stringify(file));
        const holder = path.slice(0, -1).reduce((value, key) => value[key], spoilt);
        spoil(holder, path.at(-1) ?? '');
        tried += 1;
        const bySchema = !validate(spoilt);
        const byImporter = !siteFile.safeParse(spoilt).success;
        // Which time zones there are is no matter of shape.
        if (bySchema !== byImporter && path[0] !== 'timeZone')
          different.push([path.join('.'), how, { bySchema, byImporter }, validate.errors?.[0]]);
        // What the schema refuses never comes in.
        if (bySchema && at % 40 === 0)
          expect([path, how, 'problems' in (await readSiteFile(spoilt))]).toEqual([path, how, true]);
      }
    }
    expect(different).toEqual([]);
    expect(tried).toBeGreaterThan(1000);
  }, 120_000);

  it('take "no gates" from a file that says so, and from no other', async () => {
    const file = JSON.parse(JSON.stringify(larkfell));
    const gate = file.policy.gates[0];
    const { targets, ...what } = gate.what;
    for (const policy of [
      { ...file.policy, gates: null },
      { ...file.policy, gates: undefined, gate: file.policy.gates },
      { ...file.policy, gates: [{ ...gate, what: { ...what, target: targets } }] },
      { ...file.policy, gates: [{ ...gate, otherwise: { last: gate.otherwise.last } }] },
      { ...file.policy, gates: [{ ...gate, what: { targets } }] },
      null,
      [],
    ])
      expect('problems' in (await readSiteFile({ ...file, policy }))).toBe(true);
    expect('problems' in (await readSiteFile({ ...file, policy: { ...file.policy, gates: [] } }))).toBe(
      false,
    );
  });
});
