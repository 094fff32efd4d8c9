import type { ExpectationId } from '../ids';
import type { CompiledPolicy } from '../policy';
import type { Day, Following } from '../site';
import { askedByCourses } from './course-findings';
import type { Finding } from './finding';
import { findingsIn } from './findings';
import { askedOfLeftOut } from './left-open';
import { askedByAudiences, type Sold } from './name-findings';
import { reachOf } from './reach';
import { askedByExpectations, type Verdict, verdictsOn } from './verdicts';

/** What is certain of a policy, over every visitor there could be. */
export interface Analysis {
  readonly findings: readonly Finding[];
  /** What has become of its expectations, by their ids: so one that came since has none yet. */
  readonly verdicts: ReadonlyMap<ExpectationId, Verdict>;
}

/** Works out everything that is certain of a policy from a day on. */
export function analyse(compiled: CompiledPolicy, from: Day, following: Following, sold: Sold): Analysis {
  const asked = [
    ...askedByExpectations(compiled),
    ...askedByAudiences(compiled),
    ...askedByCourses(compiled),
    ...askedOfLeftOut(compiled),
  ];
  const reach = reachOf(compiled, from, following, asked);
  const verdicts = verdictsOn(reach);
  return {
    verdicts: new Map(
      compiled.policy.expectations.flatMap(({ id }, at) => {
        const verdict = verdicts[at];
        return verdict ? [[id, verdict] as const] : [];
      }),
    ),
    findings: findingsIn(reach, sold),
  };
}

/** What has become of the expectations of a policy alone. */
export const expectationsProved = (
  compiled: CompiledPolicy,
  from: Day,
  following: Following,
): readonly Verdict[] => verdictsOn(reachOf(compiled, from, following, askedByExpectations(compiled)));
