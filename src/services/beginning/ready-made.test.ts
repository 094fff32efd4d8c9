/** Every site that one can begin with keeps what it promises, and makes none of the mistakes that Trivet finds. */
import { describe, expect, it } from 'vitest';
import { analyse, asId, compile, describeFinding, type ProductId } from '@/core';
import { expectationsInFile, READY_MADE, readSiteFile } from '@/services';
import { now } from '../testing';

const start = { title: 'Hazel & Co: the "barn"', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
const owner = {
  id: 'owner',
  name: 'Una Fairweather',
  email: 'una@hazel.example',
  desk: { right: 'owner', branch: null },
} as const;

describe.each(Object.entries(READY_MADE))('the ready-made site %s', (_, made) => {
  const file = { ...made.site(start), people: [{ ...owner, ...made.owner }] };

  it('is a site file, and what it expects is proved of everybody', async () => {
    const read = await readSiteFile(file);
    if ('problems' in read) throw new Error(read.problems.join('\n'));
    const reports = await expectationsInFile(read, now);
    expect(reports.filter(({ stands }) => !stands)).toEqual([]);
    expect(reports.length).toBe(read.policy.expectations.length);
  });

  it('has nothing wrong with it', async () => {
    const read = await readSiteFile(file);
    if ('problems' in read) throw new Error(read.problems.join('\n'));
    const { policy, outline, names, byGroup, byProduct, terms } = read;
    const compiled = compile(policy, outline, names);
    const sold = new Set((terms ?? []).map(({ product }) => asId<ProductId>(product)));
    const { findings } = analyse(compiled, start.today, { byGroup, byProduct }, sold);
    expect(findings.map((one) => describeFinding(one, compiled, start.today))).toEqual([]);
  });
});
