/** What a gate leaves out is found where it is open to whom the gate would turn away. */
import { describe, expect, it } from 'vitest';
import { any, everyone, inGroup, test } from '../condition';
import type { Target } from '../gate';
import { crew, id, request, school } from '../testing/larkfell';
import { compiled, found, gate, kinds } from '../testing/made-up-gates';
import { describeFinding } from './describe-finding';
import { aboutOf, keyOfFinding } from './finding';

describe('what a gate leaves out', () => {
  const except = (...list: readonly Target[]) =>
    gate('one', inGroup(crew), 'observers', {
      what: { targets: [{ kind: 'branch', item: id('observers') }], except: list },
    });
  const branch = (item: string): Target => ({ kind: 'branch', item: id(item) });
  const described: Target = { kind: 'selection', where: test('item address', 'contains', 'sample') };

  it('is found where it is open to whom the gate would turn away, and not left out by name', () => {
    expect(found(except(branch('charts')))).toMatchObject([
      { gate: 'one', kind: 'left open', items: ['sample'], witness: { visitor: { signedIn: false } } },
    ]);
    expect(found(except(described))).toMatchObject([{ kind: 'left open', items: ['sample'] }]);
    expect(kinds(except({ kind: 'item', item: id('sample') }))).toEqual([]);
    // What is at the top of a branch is named, and below it there is nothing more.
    expect(kinds(except(branch('sample')))).toEqual([]);
    expect(kinds(except(branch('charts'), { kind: 'item', item: id('sample') }))).toEqual([]);
  });

  it('is not found where others close it, or where nobody is turned away', () => {
    const others = gate('two', inGroup(crew), 'sample');
    expect(kinds(except(branch('charts')), others)).toEqual([]);
    expect(kinds({ ...except(branch('charts')), who: everyone })).toEqual([]);
    const wider = gate('two', any(inGroup(crew), inGroup(school)), 'sample');
    expect(found(except(branch('charts')), wider)).toMatchObject([
      { kind: 'left open', witness: { visitor: { groups: [school] } } },
    ]);
  });

  it('asks about what is left out itself', () => {
    const asking = {
      ...except(branch('charts')),
      who: any(inGroup(crew), test('item address', 'is', '/sample-chart')),
    };
    expect(kinds(asking)).not.toContain('one: left open');
    const other = any(inGroup(crew), test('item address', 'is', '/observers/charts'));
    expect(kinds({ ...asking, who: other })).toContain('one: left open');
  });

  it('is said with what is there, and looked at again when more is', () => {
    const site = compiled(except(branch('charts')));
    const [one] = found(except(branch('charts')));
    if (one?.kind !== 'left open') throw new Error('Nothing was found.');
    expect(describeFinding(one, site, request.today)).toBe(
      'A guest gets “A sample chart”, which this gate leaves out by a branch or a description. Whatever comes there is open as well.',
    );
    const more = { ...one, items: [...one.items, id('rota')] };
    expect(aboutOf(one, site.policy)).not.toEqual(aboutOf(more, site.policy));
    expect(keyOfFinding(more)).toBe(keyOfFinding(one));
  });
});
