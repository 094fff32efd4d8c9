/** What is proposed makes it so, and nothing else of what was chosen. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hasRole, inGroup, level, signedIn } from '../condition';
import { asId, type GateId, type ItemId } from '../ids';
import { anItem, policies, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  id,
  observer,
  outline,
  people,
  policy,
  request,
  suspended,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { compile } from './compile';
import { decide } from './decide';
import { proposalsFor } from './make-so';

const live = compile(policy, outline, vocabulary);
const ids = () => {
  let next = 0;
  return () => asId<GateId>(`new ${++next}`);
};
type Name = keyof typeof people;
const wished = (item: string, who: Name, open: boolean, whom: Parameters<typeof proposalsFor>[1]['whom']) =>
  proposalsFor(live, {
    cells: [{ item: id(item), visitor: people[who] }],
    open,
    whom,
    request,
    newId: ids(),
  });
const gets = (some: typeof policy, item: string, who: Name) =>
  decide(compile(some, outline, vocabulary), id(item), people[who], request).kind;

describe('a closed cell', () => {
  it('opens by one more way to pass, here or wherever the gate stands, or by being left out', () => {
    const list = wished('crew', 'priya', true, hasRole(trustee));
    expect(list.map(({ kind }) => kind)).toEqual(['let in everywhere', 'let in here', 'leave out']);
    const [everywhere, here, out] = list.map((one) => one.policy);
    if (!everywhere || !here || !out) throw new Error('There are fewer.');
    expect(gets(everywhere, 'rota', 'priya')).toBe('open');
    expect(gets(here, 'rota', 'priya')).toBe('turned away');
    // Who passed goes on passing, and nobody else comes in by it.
    for (const some of [everywhere, here]) {
      expect(gets(some, 'crew', 'ines')).toBe('open');
      expect(gets(some, 'crew', 'tobin')).toBe('turned away');
    }
    expect(gets(out, 'crew', 'tobin')).toBe('open');
    expect(gets(out, 'rota', 'tobin')).toBe('turned away');
  });

  it('is not opened by a change of the gates where nothing is published', () => {
    expect(wished('attic', 'priya', true, hasRole(trustee))).toEqual([]);
  });

  it('in a closed page opens with the page alone', () => {
    expect(wished('forecast', 'marek', true, signedIn).map(({ kind }) => kind)).toEqual([
      'let in everywhere',
    ]);
  });
});

describe('an open cell', () => {
  it('closes by a gate of its own, or by one more thing that is asked', () => {
    const list = wished('charts', 'tobin', false, level('at least', observer));
    expect(list.map(({ kind }) => kind)).toEqual(['keep out here', 'keep out everywhere']);
    expect(list.map((one) => gets(one.policy, 'charts', 'tobin'))).toEqual(['turned away', 'turned away']);
    expect(list.map((one) => gets(one.policy, 'observers', 'tobin'))).toEqual(['open', 'turned away']);
  });

  it('closes to members of a group and not to guests', () => {
    const list = wished('home', 'basil', false, inGroup(suspended));
    expect(list.map(({ kind }) => kind)).toEqual(['keep out here']);
    const [one] = list;
    if (!one) throw new Error('Nothing is proposed.');
    expect(gets(one.policy, 'home', 'basil')).toBe('turned away');
    expect(gets(one.policy, 'home', 'guest')).toBe('open');
    expect(gets(one.policy, 'home', 'tobin')).toBe('open');
  });
});

it('whatever is proposed makes every chosen cell so; and who passed before passes still', () => {
  fc.assert(
    fc.property(
      policies,
      fc.array(anItem, { minLength: 1, maxLength: 3 }),
      visitors,
      visitors,
      requests,
      fc.constantFrom(signedIn, inGroup(crew), hasRole(trustee)),
      (some, items, one, other, how, whom) => {
        const before = compile(some, outline, vocabulary);
        const open = (compiled: typeof before, item: ItemId, who: typeof one) =>
          decide(compiled, item, who, how).kind === 'open';
        const cells = items.map((item) => ({ item: item.id, visitor: one }));
        for (const wanted of [true, false])
          for (const proposal of proposalsFor(before, {
            cells,
            open: wanted,
            whom,
            request: how,
            newId: ids(),
          })) {
            const after = compile(proposal.policy, outline, vocabulary);
            for (const { item } of cells) expect(open(after, item, one)).toBe(wanted);
            for (const item of outline.items.keys()) {
              // What lets in takes nothing from anybody, and what keeps out gives nobody anything.
              const [was, is] = [open(before, item, other), open(after, item, other)];
              if (proposal.kind.startsWith('keep')) expect(is && !was).toBe(false);
              else if (proposal.kind !== 'leave out') expect(was && !is).toBe(false);
            }
          }
      },
    ),
    { numRuns: 300 },
  );
});
