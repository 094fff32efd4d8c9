/** The command line: a site out of one folder and into another, and files that can't be one. */
import { spawnSync } from 'node:child_process';
import {
  closeSync,
  existsSync,
  ftruncateSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Bundled, bundled } from './bundle-for-tests';

const folder = mkdtempSync(join(tmpdir(), 'trivet-site-'));
let program: Bundled;

beforeAll(() => {
  program = bundled('scripts/site.ts');
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  program.remove();
});

const at = (name: string) => join(folder, name);
const site = (data: string, ...args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [...program.args, ...args], {
    encoding: 'utf8',
    env: { ...process.env, TRIVET_DATA: at(data), NODE_ENV: 'production' },
  });
  return { status, said: stdout + stderr };
};

const small = (title: string) => ({
  format: 'trivet site',
  version: 1,
  levels: [],
  roles: [],
  groups: [{ id: 'crew', name: 'Crew' }],
  people: [
    { id: 'owner', name: 'Owner', email: 'owner@larkfell.example', desk: { right: 'owner', branch: null } },
  ],
  items: [
    { kind: 'site', id: 'site', parent: null, title: 'Small' },
    { kind: 'page', id: 'home', parent: 'site', title, address: '/' },
  ],
  policy: {
    gates: [
      {
        id: 'g',
        what: { targets: [{ kind: 'item', item: 'home' }], except: [] },
        who: 'in group "Crew"',
        otherwise: { cases: [], last: { kind: 'missing' } },
        stance: 'also',
      },
    ],
  },
});

it('takes a site from folder to folder, and says what each file would do', { timeout: 120_000 }, () => {
  writeFileSync(at('one.json'), JSON.stringify(small('First')));
  expect(site('none', 'check', at('one.json'))).toMatchObject({
    status: 0,
    said: expect.stringContaining('is a site file: 2 items, 1 gates'),
  });
  expect(existsSync(at('none'))).toBe(false);
  expect(site('a', 'import', at('one.json')).said).toContain('The site is loaded');
  writeFileSync(at('two.json'), JSON.stringify(small('Second')));
  expect(site('a', 'check', at('two.json')).said).toContain('Items changed (1): Second (page)');
  expect(site('a', 'import', at('two.json'))).toMatchObject({
    status: 0,
    said: expect.stringContaining('Taken in'),
  });
  expect(site('a', 'export', at('out/site.json'), '--with-people').said).toContain('2 items, 1 people');
  const out = JSON.parse(readFileSync(at('out/site.json'), 'utf8'));
  expect(out.items[1].title).toBe('Second');
  expect(out.policy.gates[0].who).toBe('in group "Crew"');
  expect(existsSync(at('out/site.json.part'))).toBe(false);
});

it('holds a site and a file to what is expected, for people and for programs', { timeout: 120_000 }, () => {
  const expects = (kind: string) => {
    const file = small('Home');
    const home = { targets: [{ kind: 'item', item: 'home' }], except: [] };
    const expectations = [
      { id: 'a', who: 'in group "Crew"', claim: { kind: 'only opens' }, what: home },
      { id: 'b', who: 'not signed in', claim: { kind }, what: home },
    ];
    return JSON.stringify({ ...file, policy: { ...file.policy, expectations } });
  };
  writeFileSync(at('holds.json'), expects('never sees'));
  writeFileSync(at('breaks.json'), expects('opens'));
  expect(site('c', 'check', at('holds.json'))).toMatchObject({
    status: 0,
    said: expect.stringContaining('Expectations: 2 of 2 hold.'),
  });
  const broken = site('c', 'check', at('breaks.json'));
  expect(broken.status).toBe(1);
  expect(broken.said).toContain('BROKEN: Guests can open Home.\n    A guest finds nothing at Home.');
  expect(site('c', 'check', at('breaks.json'), '--tap')).toEqual({
    status: 1,
    said: [
      'TAP version 14',
      '1..2',
      'ok 1 - nobody but people in Crew can open Home',
      '  ---',
      '  message: "Proved at 1 item, for every visitor there could be."',
      '  ...',
      'not ok 2 - guests can open Home',
      '  ---',
      '  message: "A guest finds nothing at Home."',
      '  ...',
      '',
    ].join('\n'),
  });
  expect(site('c', 'import', at('breaks.json')).status).toBe(0);
  expect(site('c', 'check')).toMatchObject({ status: 1, said: expect.stringContaining('1 of 2 hold') });
  expect(site('c', 'check', '--tap').said).toMatch(/^TAP version 14\n1\.\.2\nok 1/);
  // Over a site, a file is held to what it expects as well.
  expect(site('c', 'check', at('holds.json'))).toMatchObject({
    status: 0,
    said: expect.stringContaining('Expectations: 2 of 2 hold.'),
  });
  expect(site('c', 'check', at('holds.json'), '--taps')).toMatchObject({ status: 1 });
});

it('says what is wrong with a call or a file, in a line', { timeout: 120_000 }, () => {
  expect(site('b')).toMatchObject({ status: 1, said: expect.stringContaining('Say what to do') });
  expect(site('b', 'import', at('nowhere.json')).said).toContain('There is no file');
  writeFileSync(at('broken.json'), '{"format": ');
  expect(site('b', 'import', at('broken.json')).said).toContain('is not JSON');
  // 200 MB, of which nothing is read.
  const huge = openSync(at('huge.json'), 'w');
  ftruncateSync(huge, 200_000_000);
  closeSync(huge);
  expect(site('b', 'import', at('huge.json'))).toMatchObject({
    status: 1,
    said: expect.stringContaining('has 200 MB, and a site file at most 100'),
  });
  expect(site('b', 'export', at('x.json')).said).toContain('holds no site');
});
