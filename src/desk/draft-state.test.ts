import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyone, type Gate, type GateId, missing, nobody, openPolicy, type Policy } from '@/core';
import { beginDraft, type DraftAction, type DraftState, isSettled, reduceDraft } from './draft-state';

const gate = (id: string, who = everyone): Gate => ({
  id: id as GateId,
  what: { targets: [], except: [] },
  who,
  otherwise: { cases: [], last: missing },
  stance: 'also',
});
const policyOf = (...gates: Gate[]): Policy => ({ ...openPolicy, gates });
const live = { policy: policyOf(gate('a')), revision: 1 };
const begun = beginDraft({ policy: policyOf(gate('a')), version: 7 }, live);
const having = (...actions: DraftAction[]): DraftState => actions.reduce(reduceDraft, begun);
const edit = (policy: Policy): DraftAction => ({ kind: 'edit', policy });
const theirs = { policy: policyOf(gate('a'), gate('theirs')), version: 9, by: 'Greta Holm' };
const mine = policyOf(gate('a', nobody));

describe('editing', () => {
  it('is unsettled until what is here has been saved', () => {
    expect(isSettled(begun)).toBe(true);
    expect(isSettled(having(edit(mine)))).toBe(false);
    expect(isSettled(having(edit(mine), { kind: 'saving' }))).toBe(false);
    const saved = having(edit(mine), { kind: 'saving' }, { kind: 'saved', policy: mine, version: 8 });
    expect(isSettled(saved)).toBe(true);
    expect(saved.version).toBe(8);
  });

  it('stays unsettled when another edit came while the first was being saved', () => {
    const more = policyOf(gate('b'));
    const state = having(edit(mine), { kind: 'saving' }, edit(more), {
      kind: 'saved',
      policy: mine,
      version: 8,
    });
    expect(isSettled(state)).toBe(false);
    expect(state.policy).toEqual(more);
    expect(state.base).toEqual(mine);
  });

  it('takes an edit that changes nothing for none', () => {
    expect(having(edit(structuredClone(begun.policy)))).toBe(begun);
  });

  it('undoes every edit, in turn, back to the beginning', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 20 }), (ids) => {
        let state = begun;
        for (const id of ids) state = reduceDraft(state, edit(policyOf(gate(id, nobody))));
        while (state.past.length > 0) state = reduceDraft(state, { kind: 'undo' });
        expect(state.policy).toEqual(begun.policy);
      }),
    );
  });

  it('has nothing to undo at the beginning', () => expect(having({ kind: 'undo' })).toBe(begun));
});

describe('being refused', () => {
  const refused: DraftAction = { kind: 'refused', title: 'No.', problems: [], policy: mine };

  it('is told until the edit is mended or taken back', () => {
    expect(having(edit(mine), refused).saving.kind).toBe('refused');
    expect(having(edit(mine), refused, edit(policyOf(gate('b')))).saving.kind).toBe('refused');
    const undone = having(edit(mine), refused, { kind: 'undo' });
    expect(undone.saving).toEqual({ kind: 'saved' });
    expect(isSettled(undone)).toBe(true);
  });
});

describe('coming too late', () => {
  it('keeps my edits and shows theirs', () => {
    const state = having(edit(mine), { kind: 'stale', theirs });
    expect(state.policy).toEqual(mine);
    expect(state.saving).toEqual({ kind: 'stale', theirs });
  });

  it('puts mine on top of theirs', () => {
    const state = having(edit(mine), { kind: 'stale', theirs }, { kind: 'settle', take: 'mine' });
    expect(state.policy).toEqual(policyOf(gate('a', nobody), gate('theirs')));
    expect(state.version).toBe(9);
    expect(isSettled(state)).toBe(false);
  });

  it('takes theirs, and brings mine back by undo', () => {
    const state = having(edit(mine), { kind: 'stale', theirs }, { kind: 'settle', take: 'theirs' });
    expect(state.policy).toEqual(theirs.policy);
    expect(isSettled(state)).toBe(true);
    expect(reduceDraft(state, { kind: 'undo' }).policy).toEqual(mine);
  });

  it('has nothing to settle when nobody was quicker', () => {
    expect(having({ kind: 'settle', take: 'theirs' })).toBe(begun);
  });
});

describe('hearing of others', () => {
  const news = (version: number): DraftAction => ({
    kind: 'news',
    draft: { ...theirs, version },
    live: { policy: theirs.policy, revision: 2 },
  });

  it('takes a newer draft when nothing here is unsaved', () => {
    const state = having(news(9));
    expect(state.policy).toEqual(theirs.policy);
    expect(state.live.revision).toBe(2);
  });

  it('leaves an edit alone that is not saved yet, and still learns what is live', () => {
    const state = having(edit(mine), news(9));
    expect(state.policy).toEqual(mine);
    expect(state.version).toBe(7);
    expect(state.live.revision).toBe(2);
  });

  it('does not go back to an older draft', () => {
    expect(having(news(6)).policy).toEqual(begun.policy);
  });

  it('does not go back to what was live before', () => {
    const behind = { ...news(9), live: { policy: begun.policy, revision: 1 } } as DraftAction;
    const state = having(news(9), behind);
    expect(state.live).toEqual({ policy: theirs.policy, revision: 2 });
  });

  it('does not take up a draft while one of its own was refused', () => {
    const problems = [{ gate: 'a', message: 'Write something.' }];
    const refused: DraftAction = { kind: 'refused', title: 'No', problems, policy: mine };
    expect(having(edit(mine), refused, news(9)).policy).toEqual(mine);
  });
});
