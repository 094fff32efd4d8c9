/** What is said with less is true of the same visitors. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, any, type Condition, hasLevel, inGroup, level, not, signedIn } from '../condition';
import { compile, decide } from '../policy';
import { policies } from '../testing/arbitraries';
import { crew, keeper, observer, outline, school, vocabulary } from '../testing/larkfell';
import { found, gate, kinds } from '../testing/made-up-gates';
import { somebody, somehow } from '../testing/possible';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';

const SITES = Number(process.env.TRIVET_SITES ?? 1000);

describe('says with less', () => {
  it.each<[string, Condition, Condition]>([
    [
      'a level below another',
      any(level('at least', observer), level('at least', keeper)),
      level('at least', observer),
    ],
    [
      'what everybody at a level has',
      all(hasLevel, level('at least', observer)),
      level('at least', observer),
    ],
    ['what is said twice', all(inGroup(crew), any(inGroup(crew), inGroup(school))), inGroup(crew)],
    [
      'what is said within',
      any(inGroup(school), all(inGroup(crew), not(inGroup(school)))),
      any(inGroup(school), inGroup(crew)),
    ],
  ])('%s', (_, who, simpler) => {
    expect(found(gate('one', who, 'observers'))).toEqual([
      { gate: 'one', kind: 'can be simpler', who: simpler },
    ]);
  });

  it('nothing that matters, and nothing that reads the same', () => {
    expect(kinds(gate('one', all(signedIn, inGroup(crew)), 'observers'))).toEqual([]);
    expect(kinds(gate('one', all(level('at least', observer), not(inGroup(crew))), 'observers'))).toEqual([]);
  });

  it('and is always true of the same visitors', () => {
    fc.assert(
      fc.property(
        policies,
        fc.array(fc.tuple(somebody, somehow), { minLength: 4, maxLength: 4 }),
        (some, askers) => {
          const site = compile(some, outline, vocabulary);
          for (const one of analyse(site, '2024-02-29', nothingFollows, new Set()).findings) {
            if (one.kind !== 'can be simpler') continue;
            const changed = some.gates.map((each) =>
              each.id === one.gate ? { ...each, who: one.who } : each,
            );
            const after = compile({ ...some, gates: changed }, outline, vocabulary);
            for (const [visitor, how] of askers)
              for (const item of outline.items.keys())
                expect(decide(after, item, visitor, how).kind).toBe(decide(site, item, visitor, how).kind);
          }
        },
      ),
      { numRuns: SITES / 10 },
    );
  });
});
