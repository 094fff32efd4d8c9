/** What is proposed makes it so, and nothing else of what was chosen. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  guests,
  hasRole,
  inGroup,
  level,
  nobody,
  not,
  signedIn,
} from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId, type ItemId } from '../ids';
import type { VisitorFacts } from '../site';
import { anItem, policies, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  gates,
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

describe('several cells', () => {
  const own = (name: string, item: string, who: Condition): Gate => ({
    ...gates.crew,
    id: asId<GateId>(name),
    what: { targets: [{ kind: 'item', item: id(item) }], except: [] },
    who,
  });
  const wish = (
    some: readonly Gate[],
    items: readonly string[],
    open: boolean,
    whom: Condition,
    who = people.marek,
  ) =>
    proposalsFor(compile({ ...policy, audiences: [], gates: some }, outline, vocabulary), {
      cells: items.map((item) => ({ item: id(item), visitor: who })),
      open,
      whom,
      request,
      newId: ids(),
    }).map(({ kind, gates: made }) => ({
      kind,
      gates: made.map((one) => ({
        id: one.id as string,
        over: one.what.targets.map((target) => (target.kind === 'selection' ? '' : (target.item as string))),
        except: one.what.except.length,
        who: one.who,
        stance: one.stance,
      })),
    }));
  const observers = level('at least', observer);

  it('open by every gate that is in the way; here by a gate for those over which the same stand', () => {
    const [everywhere, here, out] = wish(
      [own('a', 'home', inGroup(crew)), own('b', 'charts', inGroup(crew)), gates.crew],
      ['home', 'crew', 'rota'],
      true,
      observers,
      people.tobin,
    );
    expect(everywhere).toMatchObject({
      kind: 'let in everywhere',
      gates: [
        { id: 'a', who: any(inGroup(crew), observers) },
        { id: 'crew', who: any(inGroup(crew), observers) },
      ],
    });
    expect(here).toMatchObject({
      kind: 'let in here',
      gates: [
        { over: ['home'], stance: 'instead', who: any(inGroup(crew), observers) },
        { over: ['crew', 'rota'], stance: 'instead' },
      ],
    });
    expect(out).toMatchObject({
      kind: 'leave out',
      gates: [
        { id: 'a', except: 1 },
        { id: 'crew', except: 2 },
      ],
    });
  });

  it('leave those as they are that are so already, and need nothing when all are', () => {
    const list = wish([gates.crew], ['home', 'crew'], true, signedIn);
    expect(list.find(({ kind }) => kind === 'let in here')?.gates).toMatchObject([{ over: ['crew'] }]);
    expect(wish([gates.crew], ['home', 'charts'], true, signedIn)).toEqual([]);
    expect(wish([gates.crew], ['crew', 'rota'], false, signedIn)).toEqual([]);
    expect(wish([own('a', 'home', observers)], ['home', 'crew'], false, signedIn)).toMatchObject([
      { kind: 'keep out here', gates: [{ over: ['crew'] }] },
    ]);
  });

  it('pass all gates that stood there, or are those who are let in', () => {
    const both = [own('a', 'home', inGroup(crew)), own('b', 'home', observers)];
    const list = wish(both, ['home'], true, hasRole(trustee), people.priya);
    expect(list.find(({ kind }) => kind === 'let in here')?.gates).toMatchObject([
      { who: any(all(inGroup(crew), observers), hasRole(trustee)) },
    ]);
    // Only those are changed that are in the way, all of them.
    const changed = (who: VisitorFacts) =>
      wish(both, ['home'], true, signedIn, who)[0]?.gates.map((one) => one.id);
    expect(changed(people.marek)).toEqual(['a', 'b']);
    expect(changed(people.tobin)).toEqual(['a']);
  });

  it('say no more than has to be said of everybody and nobody', () => {
    const [everywhere] = wish([own('a', 'home', inGroup(crew))], ['home'], true, everyone);
    expect(everywhere?.gates).toMatchObject([{ who: everyone }]);
    expect(wish([own('a', 'home', nobody)], ['home'], true, signedIn)[0]?.gates).toMatchObject([
      { who: signedIn },
    ]);
    expect(
      wish([own('a', 'home', signedIn)], ['home'], false, everyone).map((one) => one.gates[0]?.who),
    ).toEqual([nobody, nobody]);
    expect(
      wish([own('a', 'home', everyone)], ['home'], false, signedIn).map((one) => one.gates[0]?.who),
    ).toEqual([guests, guests]);
  });

  it('close wherever gates stand only where one stands over each; and guests pass as before', () => {
    const some = [own('a', 'home', any(guests, signedIn)), own('b', 'charts', signedIn)];
    expect(wish(some, ['home', 'charts', 'crew'], false, signedIn).map(({ kind }) => kind)).toEqual([
      'keep out here',
    ]);
    const [here, everywhere] = wish(some, ['home', 'charts'], false, inGroup(suspended), people.basil);
    expect(here).toMatchObject({
      gates: [{ over: ['home', 'charts'], who: any(guests, not(inGroup(suspended))) }],
    });
    expect(everywhere).toMatchObject({
      kind: 'keep out everywhere',
      gates: [
        { id: 'a', who: all(any(guests, signedIn), any(guests, not(inGroup(suspended)))) },
        { id: 'b', who: all(signedIn, not(inGroup(suspended))) },
      ],
    });
  });

  it('close by the last gate that speaks', () => {
    const list = wish(
      [own('a', 'home', signedIn), { ...own('b', 'home', signedIn), stance: 'instead' }],
      ['home'],
      false,
      signedIn,
    );
    expect(list.at(-1)).toMatchObject({ kind: 'keep out everywhere', gates: [{ id: 'b' }] });
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
