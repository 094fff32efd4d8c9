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
import { askedThread } from '@/store';
import type { ProvingTask } from './proving';

/** What expectations are proved of. */
export interface Proving extends Following {
  readonly outline: Outline;
  readonly names: SiteNames;
}

const inThread = askedThread<ProvingTask, readonly Verdict[]>('src/services/policy/proving-thread.mjs');

/** The verdict on each expectation of a policy, from a day on, in their order. */
async function proved(
  policy: Policy,
  { outline, names, byGroup, byProduct }: Proving,
  today: string,
): Promise<readonly Verdict[]> {
  if (policy.expectations.length === 0) return [];
  const items = [...outline.items.values()];
  return inThread({ items, names, policy, today, following: { byGroup, byProduct } });
}

/** What is expected and what has become of it, in words. */
export interface ExpectationReport {
  readonly expected: string;
  readonly stands: boolean;
  /** That it is proved, or who gets what instead. */
  readonly verdict: string;
}

/** What has become of each expectation of a policy. */
export async function reportOn(
  compiled: CompiledPolicy,
  site: Proving,
  today: string,
): Promise<readonly ExpectationReport[]> {
  const { policy, outline, vocabulary } = compiled;
  const verdicts = await proved(policy, site, today);
  return policy.expectations.flatMap((one, at) => {
    const verdict = verdicts[at];
    return verdict === undefined
      ? []
      : [
          {
            expected: describeExpectation(one, outline, vocabulary),
            stands: stands(verdict),
            verdict: describeVerdict(verdict, compiled, today),
          },
        ];
  });
}

/** An expectation that can't be shown to hold, in words: what is expected, and what is so instead. */
export interface BrokenExpectation {
  readonly expected: string;
  readonly instead: string;
}

/** Those of a policy's expectations that can't be shown to hold. */
export const brokenIn = async (
  compiled: CompiledPolicy,
  site: Proving,
  today: string,
): Promise<readonly BrokenExpectation[]> =>
  (await reportOn(compiled, site, today)).flatMap(({ expected, stands: holds, verdict }) =>
    holds ? [] : [{ expected, instead: verdict }],
  );
