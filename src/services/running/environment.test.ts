import { describe, expect, it } from 'vitest';
import { readEnvironment } from '..';

describe('the environment', () => {
  it('has defaults', () => {
    expect(readEnvironment({})).toMatchObject({
      port: 3000,
      dataFolder: '.data',
      keptBytes: 64_000_000,
    });
    expect(readEnvironment({ TRIVET_DATA: 'folder' })).toMatchObject({ database: 'folder/database' });
    const database = 'postgres://trivet@db.place.example/trivet';
    expect(readEnvironment({ TRIVET_DATABASE: database })).toMatchObject({ database, dataFolder: '.data' });
    expect(readEnvironment({ TRIVET_KEPT: '0' })).toMatchObject({ keptBytes: 0 });
  });
  it.each([
    [{ PORT: 'many' }, /PORT has to be a number/],
    [{ PORT: '99999' }, /between 1 and 65535/],
    [{ TRIVET_DATA: '' }, /TRIVET_DATA has to name a folder/],
    [{ TRIVET_DATABASE: 'somewhere' }, /TRIVET_DATABASE has to be the address of a database/],
    [{ TRIVET_DATABASE: 'https://db.place.example/trivet' }, /TRIVET_DATABASE has to be the address/],
    [{ TRIVET_DATABASE: 'postgres://[' }, /TRIVET_DATABASE has to be the address/],
    [{ TRIVET_URL: 'larkfell' }, /TRIVET_URL has to be the public address/],
    [{ TRIVET_KEPT: 'much' }, /TRIVET_KEPT has to be a number of megabytes/],
    [{ TRIVET_KEPT: '-1' }, /TRIVET_KEPT has to be a number of megabytes/],
    [{ TRIVET_KEPT: '1.5' }, /TRIVET_KEPT has to be a number of megabytes/],
    [{ TRIVET_URL: 'ftp://larkfell.example' }, /TRIVET_URL has to be the public address/],
  ])('answers %j with a sentence', (env, sentence) => {
    const read = readEnvironment(env);
    expect('problems' in read && read.problems.join()).toMatch(sentence);
  });
});
