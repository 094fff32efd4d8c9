import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, type LevelId } from '../ids';
import { guest, member, requestAt } from '../site';
import { vocabulary } from '../testing/larkfell';
import {
  hasOwnWords,
  OWN_WORDS,
  ownCompletionsAt,
  ownValue,
  ownWordProblem,
  ownWordsIn,
  renameOwnWords,
  replaceOwnWords,
} from '.';

const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
const team = vocabulary.fields.find(({ name }) => name === 'team') ?? { id: asId('') };
const pass = vocabulary.products[0] ?? { id: asId('gone'), name: '' };
const someone = member({
  level: asId<LevelId>(vocabulary.levels[1]?.id ?? ''),
  joined: '2024-03-04',
  email: 'ines@larkfell.example',
  profile: { [team.id]: 'Optics' },
  purchases: [
    { product: pass.id, on: '2026-01-01', until: '2026-12-31', state: 'paid' },
    { product: pass.id, on: '2026-06-01', until: '2027-05-31', state: 'refunded' },
  ],
});

/** A text as somebody called Ines reads it. */
const asRead = (text: string, facts = someone, names = vocabulary): string => {
  const words = ownWordsIn(text, names);
  return replaceOwnWords(text, (at, _, or) => {
    const word = words[at];
    return (word && ownValue(word, { name: 'Ines', facts }, names, request)) ?? or;
  });
};

describe('own words', () => {
  it('show what is known of the reader, in words', () => {
    expect(asRead('Hello :own[name], since :own[joined].')).toBe('Hello Ines, since 4 March 2024.');
    expect(asRead(':own[level] :own[profile team] :own[ profile "TEAM" ] :own[mail]')).toBe(
      `${vocabulary.levels[1]?.name} Optics Optics ines@larkfell.example`,
    );
    expect(asRead(`until :own[until "${pass.name}"], bought :own[purchase of "${pass.name}"]`)).toBe(
      'until 31 December 2026, bought 1 January 2026',
    );
  });

  it('show what stands there instead where it is not known', () => {
    const text = 'a :own[level]{or="no \\"level\\" yet"} b :own[profile team]c';
    expect(asRead(text, guest)).toBe('a no "level" yet b c');
    expect(asRead(text, member())).toBe('a no "level" yet b c');
  });

  it('are text that goes through untouched where there is none', () => {
    for (const text of ['own[name]', '\\:own[name]', ':own name', ':own', 'a:b [c]']) {
      expect(hasOwnWords(text)).toBe(false);
      expect(asRead(text)).toBe(text);
      expect(ownWordProblem(text, vocabulary)).toBeNull();
    }
  });

  it('are never made of a private field, nor of one that is gone or holds something else now', () => {
    const change = (over: object) => ({
      ...vocabulary,
      fields: vocabulary.fields.map((field) => (field.id === team.id ? { ...field, ...over } : field)),
    });
    const kept = renameOwnWords(':own[profile team]{or="nothing"}', vocabulary, 'by id');
    expect(asRead(kept)).toBe('Optics');
    expect(asRead(kept, someone, change({ private: true }))).toBe('nothing');
    expect(asRead(kept, someone, change({ type: 'number' }))).toBe('nothing');
    expect(asRead(kept, someone, { ...vocabulary, fields: [] })).toBe('nothing');
    expect(ownWordProblem(kept, change({ private: true }))?.message).toMatch(/private field/);
    expect(ownWordProblem(kept, { ...vocabulary, fields: [] })?.message).toMatch(/no longer exists/);
    expect(OWN_WORDS.map(({ phrase }) => phrase)).not.toContain('desk right');
    expect(OWN_WORDS.map(({ phrase }) => phrase)).not.toContain('person');
  });

  it.each([
    ['a\n:own[nme]', 2, 6, 'Did you mean “name”?'],
    ['a :own[name', 1, 3, 'does not end so'],
    [':own[name]{or=friend}', 1, 1, 'does not end so'],
    [':own[]', 1, 6, 'Say what to show. There could stand name, mail'],
    [':own[name please]', 1, 11, 'Nothing stands behind “name”'],
    [':own[profile]', 1, 13, 'Say of which field: “'],
    [':own[profile teem]', 1, 14, 'Did you mean “team”?'],
    [':own[profile team please]', 1, 19, 'Nothing stands behind the name'],
    [':own[profile "birth year"]', 1, 14, 'private field'],
    [':own[role]', 1, 6, 'is nothing that can be shown'],
  ])('tell what is wrong with %j, and where', (text, line, column, message) => {
    const problem = ownWordProblem(text, vocabulary);
    expect(problem).toMatchObject({ line, column });
    expect(problem?.message).toContain(message);
    expect(asRead(`x${text.replace(/\n/g, '')}`)).not.toContain('Ines');
  });

  it('are kept by ids, so that a new name changes nothing', () => {
    const text = `:own[until "${pass.name}"]{or="never"} and :own[name] and :own[profile team]`;
    const kept = renameOwnWords(text, vocabulary, 'by id');
    expect(kept).not.toContain(pass.name);
    expect(renameOwnWords(kept, vocabulary, 'by name')).toBe(text);
    const renamed = {
      ...vocabulary,
      products: vocabulary.products.map((one) =>
        one.id === pass.id ? { ...one, name: 'A "new" name' } : one,
      ),
    };
    const read = renameOwnWords(kept, renamed, 'by name');
    expect(read).toContain(':own[until "A \\"new\\" name"]{or="never"}');
    expect(renameOwnWords(read, renamed, 'by id')).toBe(kept);
  });

  it('are completed while they are written', () => {
    const at = (text: string) => {
      const found = ownCompletionsAt(text.replace('|', ''), text.indexOf('|'), vocabulary);
      return found && { ...found, options: found.options.slice(0, 2).map(({ insert }) => insert) };
    };
    expect(at('Hello :own[|')).toMatchObject({ from: 11, to: 11, options: ['name]', 'mail]'] });
    expect(at('Hello :own[le|vel] you')).toEqual({ from: 11, to: 17, options: ['level]', 'profile team]'] });
    expect(at('Hello |:own[level]')).toBeNull();
    expect(at('Hello :own[level]|')).toBeNull();
    for (const choice of ownCompletionsAt(':own[', 5, vocabulary)?.options ?? [])
      expect(ownWordProblem(`:own[${choice.insert}`, vocabulary)).toBeNull();
  });

  it('read every text there can be, in either calling, to the same words', () => {
    const piece = fc.oneof(
      fc.constantFrom(
        ':own[',
        ']',
        '{or="',
        '"}',
        '\\',
        '"',
        'name',
        'profile team',
        'id "team"',
        '\n',
        'level',
      ),
      fc.string({ unit: 'grapheme', maxLength: 4 }),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        const text = pieces.join('');
        const kept = renameOwnWords(text, vocabulary, 'by id');
        expect(asRead(kept)).toBe(asRead(text));
        expect(ownWordsIn(kept, vocabulary).length).toBe(ownWordsIn(text, vocabulary).length);
        expect(renameOwnWords(kept, vocabulary, 'by id')).toBe(kept);
      }),
    );
  });

  it('take no longer over a line of beginnings', () => {
    const hostile = ':own["'.repeat(30_000);
    expect(ownWordsIn(hostile, vocabulary).every((word) => word === null)).toBe(true);
    expect(ownWordProblem(hostile, vocabulary)?.line).toBe(1);
  });
});
