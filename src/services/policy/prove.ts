/** What has become of expectations, worked out in a thread of its own. */
import {
  type CompiledPolicy,
  describeExpectation,
  describeVerdict,
  type Following,
  type Outline,
  type Policy,
  type SiteNames,
  stands,
  type Verdict,
} from '@/core';
import { startThread } from '@/store';

/** What expectations are proved of. */
export interface Proving extends Following {
  readonly outline: Outline;
  readonly names: SiteNames;
}

/** The verdict on each expectation of a policy, from a day on, in their order. */
export function proved(
  policy: Policy,
  { outline, names, byGroup, byProduct }: Proving,
  today: string,
): Promise<readonly Verdict[]> {
  if (policy.expectations.length === 0) return Promise.resolve([]);
  return new Promise((resolve, reject) => {
    const thread = startThread('src/services/policy/proving-thread.mjs', {
      workerData: { items: [...outline.items.values()], names, policy, today, following: { byGroup, byProduct } },
    });
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error('The thread has ended before it answered.')));
  });
}

/** An expectation that can't be shown to hold, in words: what is expected, and what is so instead. */
export interface BrokenExpectation {
  readonly expected: string;
  readonly instead: string;
}

/** Those of a policy's expectations that can't be shown to hold. */
export async function brokenIn(
  compiled: CompiledPolicy,
  site: Proving,
  today: string,
): Promise<readonly BrokenExpectation[]> {
  const { policy, outline, vocabulary } = compiled;
  const verdicts = await proved(policy, site, today);
  return policy.expectations.flatMap((one, at) => {
    const verdict = verdicts[at];
    return verdict === undefined || stands(verdict)
      ? []
      : [
          {
            expected: describeExpectation(one, outline, vocabulary),
            instead: describeVerdict(verdict, compiled, today),
          },
        ];
  });
}
