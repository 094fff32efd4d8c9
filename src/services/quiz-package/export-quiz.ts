/** A quiz that is on the site, as a package to be taken elsewhere. */
import { asId, type ItemId } from '@/core';
import { type Administrator, requirePermissionAt, type Trivet } from '../running';
import { quizAt } from '../visiting';
import { packageOf } from './write-package';
import { zipped } from './zip';

/** The bytes of the package of a quiz, for whoever may write it; null where there is no such quiz. */
export function exportQuiz(
  trivet: Trivet,
  administrator: Administrator,
  activity: string,
): Uint8Array | null {
  requirePermissionAt(administrator, trivet.state.outline, [asId<ItemId>(activity)], 'content');
  const found = quizAt(trivet.state, activity);
  return found && zipped(packageOf(found.quiz, found.activity.title));
}
