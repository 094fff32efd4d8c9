/** Remarks on conditions, in words. */
import { type ConditionRemark, describeTestOfOne, listed, type Vocabulary } from '@/core';

export function conditionRemarkText(remark: ConditionRemark, vocabulary: Vocabulary): string {
  switch (remark.kind) {
    case 'exact level':
      return `Exactly ${remark.level}: ${listed(remark.excluded)} do not pass. If they should, choose “or above”.`;
    case 'fakeable':
      return remark.why === 'browser says'
        ? `“${describeTestOfOne(remark.test, vocabulary)}” is what the browser says, and can be made up. Use it to present, not to protect.`
        : `“${describeTestOfOne(remark.test, vocabulary)}” asks a field that members fill in themselves. Use it to present, not to protect.`;
    case 'gone':
      return `${remark.message} Until then the test is unknown, and lets nobody by.`;
    default:
      return remark satisfies never;
  }
}
