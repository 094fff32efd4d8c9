import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { Document, KeptDraft, Writing } from '@/services';
import { titled } from '../testing';
import {
  keepingOf,
  nothingRead,
  reduceWriting,
  type WritingAction,
  type WritingState,
} from './writing-state';

const draftOf = (title: string, version: number): KeptDraft => ({
  document: titled(title),
  version,
  by: 'Priya',
  at: '',
});
const read = (version: number, draft: KeptDraft | null): WritingAction => ({
  kind: 'read',
  writing: { id: 'visit', kind: 'page', live: titled('Visit us'), version, draft } as Writing<Document>,
});
const after = (...actions: readonly WritingAction[]) =>
  actions.reduce<WritingState>(reduceWriting, nothingRead);
const typed = (title: string): WritingAction => ({ kind: 'typed', document: titled(title) });

it('bases the next save on the version that the last one was given', () => {
  const document = titled('Come');
  const state = after(read(4, null), { kind: 'typed', document }, { kind: 'kept', document, version: 7 });
  expect(state).toMatchObject({ versions: { site: 4, draft: 7 }, drafted: true });
  expect(keepingOf(state)).toBe('kept');
});

it('is still to be kept when something was typed while it was kept', () => {
  const document = titled('Come');
  const state = after(read(4, null), { kind: 'typed', document }, typed('Come up'), {
    kind: 'kept',
    document,
    version: 7,
  });
  expect(keepingOf(state)).toBe('keeping');
});

it('is sent anew, over theirs, when mine is taken; theirs is shown as kept otherwise', () => {
  const late = after(
    read(4, null),
    typed('Mine'),
    { kind: 'not kept', title: 'Too late' },
    {
      kind: 'theirs',
      draft: draftOf('Theirs', 9),
      writing: {
        id: 'visit',
        kind: 'page',
        live: titled('Visit us'),
        version: 5,
        draft: null,
      } as Writing<Document>,
    },
  );
  expect(keepingOf(late)).toBe('not kept');
  const mine = reduceWriting(late, { kind: 'settle', take: 'mine' });
  expect(mine).toMatchObject({
    document: { title: 'Mine' },
    versions: { site: 5, draft: 9 },
    theirs: null,
    problem: null,
  });
  expect(keepingOf(mine)).toBe('keeping');
  const theirs = reduceWriting(late, { kind: 'settle', take: 'theirs' });
  expect(theirs).toMatchObject({ document: { title: 'Theirs' }, drafted: true });
  expect(keepingOf(theirs)).toBe('kept');
});

it('calls what is on the site theirs when there is no draft any more', () => {
  const late = after(read(4, null), {
    kind: 'theirs',
    draft: null,
    writing: {
      id: 'visit',
      kind: 'page',
      live: titled('Sent'),
      version: 5,
      draft: null,
    } as Writing<Document>,
  });
  expect(late.theirs).toMatchObject({ document: { title: 'Sent' }, version: 0 });
  expect(reduceWriting(late, { kind: 'settle', take: 'theirs' }).drafted).toBe(false);
});

const word = fc.string({ maxLength: 3 });
const somebody: fc.Arbitrary<WritingAction> = fc.oneof(
  word.map(typed),
  fc.record({ kind: fc.constant('not kept' as const), title: word }),
  fc.record({ kind: fc.constant('not sent' as const), title: word, problems: fc.constant([]) }),
  fc.record({ kind: fc.constant('not read' as const), title: word }),
  fc.record({
    kind: fc.constant('kept' as const),
    document: word.map(titled),
    version: fc.nat(99),
  }),
  fc.tuple(fc.option(fc.tuple(word, fc.nat(99))), fc.nat(99)).map(
    ([draft, version]): WritingAction => ({
      kind: 'theirs',
      draft: draft && draftOf(...draft),
      writing: {
        id: 'visit',
        kind: 'page',
        live: titled('Visit us'),
        version,
        draft: null,
      } as Writing<Document>,
    }),
  ),
);

it('loses nothing that was typed, whatever the server says, until somebody chooses', () => {
  fc.assert(
    fc.property(fc.array(somebody), (actions) => {
      const last = actions.findLast(({ kind }) => kind === 'typed');
      const state: WritingState = after(read(1, null), ...actions);
      expect(state.document?.title).toBe(last?.kind === 'typed' ? last.document.title : 'Visit us');
    }),
  );
});
