/** People as a file of comma-separated values: out as it comes in, and whatever comes. */
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { neutralised, restored } from '@/core';
import { type Administrator, changePeople, exportPeople, importPeople, type Trivet } from '..';
import { gretaAt, now, openLarkfell } from '../testing';
import { peopleAt } from './testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const { person, find, undo } = peopleAt(() => ({ trivet, greta }));

describe('CSV', () => {
  const out = async (bom = false) => {
    const answer = await exportPeople(trivet, greta, { text: '', condition: '' }, bom, now);
    if ('problem' in answer) throw new Error(answer.problem);
    return answer.csv;
  };
  const dry = async (csv: string, columns: readonly string[] | null = null) => {
    const answer = await importPeople(trivet, greta, { csv, columns }, true, now);
    if (answer.kind !== 'dry run') throw new Error(answer.kind);
    return answer;
  };

  it('comes back in as it went out, with and without a byte order mark', async () => {
    for (const bom of [false, true])
      expect(await dry(await out(bom))).toMatchObject({
        adds: 0,
        changes: 0,
        unchanged: 72,
        problemCount: 0,
      });
    expect(await out()).toContain('\r\n');
  });

  it('neutralises what a spreadsheet would run, and reads it back', async () => {
    const evil = '=HYPERLINK("http://x.example","y")';
    const answer = await changePeople(
      trivet,
      greta,
      { who: { ids: ['marek'] }, edit: { kind: 'field', field: 'valley', value: evil } },
      false,
      now,
    );
    expect(await out()).toContain(`"'=HYPERLINK(""http://x.example"",""y"")"`);
    expect(await dry(await out())).toMatchObject({ changes: 0, problemCount: 0 });
    await undo(answer as { kind: string; change: string });
  });

  it('goes out in a form in which no line of a cell is run, and no reader takes a cell apart', async () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[=+\-@'"\t\r\n;,a1]{0,12}$/), (cell) => {
        expect(restored(neutralised(cell))).toBe(cell);
        for (const line of neutralised(cell).split(/\r\n|\r|\n/))
          expect(/^[=+\-@\t]/.test(line) && !/^-?\d+([.,]\d+)?$/.test(cell)).toBe(false);
      }),
      { numRuns: 2000 },
    );
    const answer = await changePeople(
      trivet,
      greta,
      { who: { ids: ['marek'] }, edit: { kind: 'field', field: 'valley', value: 'Sett\n=1+1;\tx' } },
      false,
      now,
    );
    expect(await out()).toContain(`"Sett\n'=1+1;\tx"`);
    expect(await dry(await out())).toMatchObject({ changes: 0, problemCount: 0 });
    await undo(answer as { kind: string; change: string });
  });

  it('is read in what spreadsheets write, and says how', async () => {
    const lines = ['mail address;name;valley', 'anew@larkfell.example;Zoë Åse;Höll'].join('\r\n');
    const utf16 = new Uint8Array(Buffer.from(`\ufeff${lines.replaceAll(';', '\t')}`, 'utf16le'));
    for (const [csv, readAs] of [
      [new Uint8Array(Buffer.from(lines)), 'Read as UTF-8, with semicolons between cells.'],
      [
        new Uint8Array(Buffer.from(lines, 'latin1')),
        'Read as Windows-1252 (Latin-1), with semicolons between cells.',
      ],
      [utf16, 'Read as UTF-16, with tabs between cells.'],
      [utf16.slice(2), 'Read as UTF-16, with tabs between cells.'],
    ] as const) {
      const answer = await importPeople(trivet, greta, { csv, columns: null }, true, now);
      expect(answer).toMatchObject({ kind: 'dry run', readAs, adds: 1, problemCount: 0 });
      const done = await importPeople(trivet, greta, { csv, columns: null }, false, now);
      expect((await find({ text: 'Zoë Åse' })).people).toMatchObject([
        { name: 'Zoë Åse', profile: { valley: 'Höll' } },
      ]);
      await undo(done as { kind: string; change: string });
    }
    const nul = await importPeople(
      trivet,
      greta,
      { csv: 'mail address,name\na@x.example,A\0', columns: null },
      true,
      now,
    );
    expect(nul).toMatchObject({ problems: [{ line: 2, message: expect.stringContaining('NUL') }] });
  });

  it('adds, changes and clears, and is taken back as one', async () => {
    const csv = [
      'mail address,name,level,groups,hours logged,remark',
      'marek@larkfell.example,Marek Dunmore,friend,"Dome crew; Tarn Survey",12.5,x',
      'NEW@larkfell.example,"New, person",,,,',
      'ines@larkfell.example,Ines Calloway,keeper,Dome crew,,',
    ].join('\n');
    expect(await dry(csv)).toMatchObject({ adds: 1, changes: 2, unchanged: 0, problemCount: 0 });
    const answer = await importPeople(trivet, greta, { csv, columns: null }, false, now);
    expect(person('marek')).toMatchObject({ level: 'friend', groups: ['dome-crew', 'tarn-survey'] });
    expect(person('marek').profile['hours-logged']).toBe(12.5);
    expect(person('ines').profile).not.toHaveProperty('hours-logged');
    expect((await find({ text: 'New, person' })).people).toMatchObject([{ email: 'new@larkfell.example' }]);
    await undo(answer as { kind: string; change: string });
    expect(trivet.state.people.size).toBe(72);
  });

  it('lists every problem by line and column, and changes nothing', async () => {
    const csv = [
      'name,mail address,level,joined,team',
      'A,a@larkfell.example,Duke,2026-02-30,Kitchen',
      '"B',
      'b",not an address,,,',
      'C,a@larkfell.example,,,',
      'too,few',
      ',nameless@larkfell.example,,,',
    ].join('\r\n');
    const { problems, problemCount } = await dry(csv);
    expect(problems.map(({ line, column }) => [line, column])).toEqual([
      [2, 3],
      [2, 4],
      [2, 5],
      [3, 2],
      [5, 2],
      [6, 0],
      [7, 1],
    ]);
    expect(problemCount).toBe(7);
    expect(problems[0]?.message).toBe('There is no level called “Duke”. There are Friend, Observer, Keeper.');
    const answer = await importPeople(trivet, greta, { csv, columns: null }, false, now);
    expect(answer).toMatchObject({ kind: 'wrong', message: expect.stringContaining('Nothing was changed.') });
  });

  it.each([
    ['', 1, 'The file is empty'],
    ['name\nA', 1, 'No column holds the mail address'],
    ['mail address,name\n"a@x.example,A\nb@x.example,B', 2, 'The quotes that begin here do not end'],
    ['mail address,name\na@x.example,"A" B', 2, 'After closing quotes comes a comma'],
    ['mail address,name\na@x.example,A "B"', 2, 'Put the whole cell in quotes'],
    ['mail address,name,Name\n', 1, 'Two columns hold the same'],
  ])('says what is wrong with %j', async (csv, line, message) => {
    const { problems } = await dry(csv);
    expect(problems[0]).toMatchObject({ line, message: expect.stringContaining(message) });
  });

  it('takes columns by what they are said to hold', async () => {
    const csv = 'who,address\nMarek Dunmore,marek@larkfell.example';
    expect(await dry(csv, ['name', 'email'])).toMatchObject({ unchanged: 1, problemCount: 0 });
    expect(await dry(csv, ['ignore', 'email'])).toMatchObject({ unchanged: 1, problemCount: 0 });
  });

  // Nothing of it is asked of the database.
  const once = it.skipIf(inject('server') !== null);
  once('reads two hundred thousand lines', { timeout: 120_000 }, async () => {
    const lines = Array.from({ length: 200_000 }, (_, at) => `Person ${at},p${at}@larkfell.example,Friend`);
    const csv = ['name,mail address,level', ...lines].join('\n');
    expect(await dry(csv)).toMatchObject({ adds: 200_000, problemCount: 0, lines: 200_000 });
    const wrong = await dry(csv.replaceAll('Friend', 'Foe'));
    expect([wrong.problems.length, wrong.problemCount]).toEqual([500, 200_000]);
  });

  it('survives any file', async () => {
    const cell = fc.constantFrom(
      'a@x.example',
      '"',
      ',',
      '\n',
      '\r',
      'name',
      'mail address',
      '=1',
      '\ufeff',
      'é',
    );
    await fc.assert(
      fc.asyncProperty(fc.array(cell, { maxLength: 20 }), async (cells) => {
        const { kind } = await dry(cells.join(''));
        expect(kind).toBe('dry run');
      }),
      { numRuns: 300 },
    );
  });
});
