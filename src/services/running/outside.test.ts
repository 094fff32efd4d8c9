/** Whoever waits outside is one visitor, whichever process they come to. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Outside, PATIENCE_MS } from './outside';

/** Processes that hear one another, and what each of them counted. */
function together(count: number) {
  const told: ((text: string) => void)[] = [];
  const notices: string[] = [];
  const settled: string[] = [];
  const processes = Array.from({ length: count }, () => {
    const made = new Outside<string>((counted, did) => settled.push(`${counted} ${did}`));
    if (count > 1)
      made.tells({
        hear: (hears) => told.push(hears),
        tell: async (text) => {
          notices.push(text);
          for (const hears of told) hears(text);
        },
      });
    return made;
  });
  const at = (which: number) => {
    const found = processes[which % count];
    if (!found) throw new Error('There is no such process.');
    return found;
  };
  const tellAll = async () => {
    for (const one of processes) await one.tellNow();
  };
  return { at, processes, tellAll, told, notices, settled };
}

type Step = readonly [at: number, what: 'away' | 'in' | 'signedIn' | 'signedUp', who: string, item: string];
const step: fc.Arbitrary<Step> = fc.tuple(
  fc.nat(2),
  fc.constantFrom('away', 'away', 'in', 'signedIn', 'signedUp'),
  fc.constantFrom('ann', 'ben'),
  fc.constantFrom('crew', 'rota', ''),
);

async function counted(count: number, steps: readonly Step[]): Promise<readonly string[]> {
  const all = together(count);
  for (const [which, what, who, item] of steps) {
    const here = all.at(which);
    if (what === 'away') here.add(who, item, `${who} at ${item}`, Date.now());
    else if (what === 'in') here.letIn(who, item);
    else here.step(who, what);
    await all.tellAll();
  }
  for (const one of all.processes) one.expire(Date.now() + PATIENCE_MS + 1);
  for (const one of all.processes) for (const item of ['crew', 'rota', '']) expect(one.has(item)).toBe(false);
  return all.settled.toSorted();
}

it('counts the same on three processes as on one', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
      expect(await counted(3, steps)).toEqual(await counted(1, steps));
    }),
    { numRuns: 300 },
  );
});

it('tells what it has to tell in notices that PostgreSQL takes, and no more than others can bear', async () => {
  const { at, notices, processes } = together(2);
  for (let n = 0; n < 30_000; n++) at(0).add(`browser-${n}`, 'f'.repeat(36), 'x', Date.now());
  await at(0).tellNow();
  expect(notices.length).toBe(20);
  for (const one of notices) expect(Buffer.byteLength(one)).toBeLessThan(8000);
  expect(processes[1]?.has('f'.repeat(36))).toBe(true);
});

it('listens to nothing else than it is told', () => {
  const { told, at } = together(2);
  for (const text of [
    '',
    '{',
    'null',
    '{"from":"x","words":[["in","a"]]}',
    '{"from":"x","words":[["waits",1,2]]}',
  ])
    for (const hears of told) hears(text);
  expect(at(0).has('a')).toBe(false);
});

it('goes on where nobody can be told', async () => {
  const settled: string[] = [];
  const one = new Outside<string>((who, did) => settled.push(`${who} ${did}`));
  one.tells({ hear: () => undefined, tell: () => Promise.reject(new Error('The database is away.')) });
  one.add('ann', 'crew', 'ann', Date.now());
  await one.tellNow();
  one.letIn('ann', 'crew');
  expect(settled).toEqual(['ann gotIn']);
});
