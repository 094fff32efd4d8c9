/** A quiz that is on the site, as a package to be taken elsewhere. */
import { asId, type ItemId } from '@/core';
import { type Administrator, requirePermissionAt, type Trivet } from '../running';
import { quizAt } from '../visiting';
import { leftOut, packageOf } from './write-package';
import { zipped } from './zip';

export interface QuizPackage {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** The package of a quiz for whoever may write it, and what of it has no place in one; null where there is no such quiz. */
export function exportQuiz(
  trivet: Trivet,
  administrator: Administrator,
  activity: string,
): { readonly package: QuizPackage; readonly leftOut: readonly string[] } | null {
  requirePermissionAt(administrator, trivet.state.outline, [asId<ItemId>(activity)], 'content');
  const found = quizAt(trivet.state, activity);
  if (!found) return null;
  const { title } = found.activity;
  return {
    package: { name: 'quiz.zip', bytes: zipped(packageOf(found.quiz, title)) },
    leftOut: leftOut(found.quiz),
  };
}
