/** Names that nothing asks for, that are the same, or that mislead are found. */
import { describe, expect, it } from 'vitest';
import { all, type Condition, inAudience, inGroup, level, owns, signedIn } from '../condition';
import { type AudienceId, asId, type GroupId, type LevelId } from '../ids';
import { compile, type Policy } from '../policy';
import { type Following, noGrants } from '../site';
import { crew, observer, outline, pass, policy, request, vocabulary } from '../testing/larkfell';
import { gate } from '../testing/made-up-gates';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';

describe('of names', () => {
  const audience = (name: string, who: Condition) => ({ id: asId<AudienceId>(name), name, who });
  const of = (
    more: Partial<Policy>,
    names = vocabulary,
    sold = new Set<string>(),
    following = nothingFollows,
  ) =>
    analyse(
      compile({ ...policy, gates: [], audiences: [], ...more }, outline, names),
      request.today,
      following,
      sold,
    ).findings.map((one) => one.kind);

  it('finds audiences that nobody uses, and two that are the same', () => {
    const used = gate('used', inAudience(asId('one')), 'observers');
    expect(of({ gates: [used], audiences: [audience('one', inGroup(crew))] })).toEqual([]);
    expect(of({ audiences: [audience('one', inGroup(crew))] })).toEqual(['audiences unused']);
    expect(
      of({
        gates: [used, gate('too', inAudience(asId('two')), 'crew')],
        audiences: [audience('one', inGroup(crew)), audience('two', all(signedIn, inGroup(crew)))],
      }),
    ).toEqual(['audiences alike']);
  });

  it('finds a group that is called like a level, unless it is asked for', () => {
    const names = {
      ...vocabulary,
      groups: [...vocabulary.groups, { id: asId<GroupId>('observers'), name: 'Observers', private: false }],
    };
    const levels = gate('level', level('at least', observer), 'observers');
    expect(of({ gates: [levels] }, names)).toEqual(['names alike']);
    expect(of({ gates: [levels, gate('group', inGroup(asId('observers')), 'crew')] }, names)).toEqual([]);
    expect(of({ gates: [levels] })).toEqual([]);
  });

  it('finds a product that opens nothing, and a gate that asks for one that is not sold', () => {
    const gives = (granted: LevelId | null): Following => ({
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, level: granted }]]),
    });
    const levels = gate('level', level('at least', observer), 'observers');
    const sold = new Set<string>([pass]);
    expect(of({ gates: [levels] }, vocabulary, sold, gives(null))).toEqual(['product opens nothing']);
    expect(of({ gates: [levels] }, vocabulary, sold, gives(observer))).toEqual([]);
    const owners = gate('owners', owns(pass), 'observers');
    expect(of({ gates: [owners] }, vocabulary, sold)).toEqual([]);
    expect(of({ gates: [owners] })).toEqual(['asks for what is not sold']);
  });
});
