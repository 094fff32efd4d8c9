/** A hand-in as its learner meets it: what can be handed in, and what became of every version. */
import { type Day, type HandInTerms, type Item, mayHandIn, momentIn } from '@/core';
import type { HandedFile, HandIn } from '@/store';
import { addressIn, type View } from './context';
import { type ActivityPlace, isDone, placeInCourse } from './course-view';
import { type Frame, frameFor } from './frame';
import { handInAddress, outlineOfTask, type TaskOutline } from './task-outline';

export interface VersionView {
  readonly version: number;
  readonly at: Day;
  readonly state: HandIn['state'];
  readonly score: number | null;
  readonly words: string;
  readonly by: string;
  readonly text: string;
  readonly files: readonly { readonly name: string; readonly size: number; readonly address: string }[];
}

export interface HandInView {
  readonly frame: Frame;
  readonly title: string;
  /** Where it is introduced. */
  readonly address: string;
  readonly place: ActivityPlace | null;
  readonly task: TaskOutline;
  readonly turn: ReturnType<typeof mayHandIn>;
  readonly action: string;
  /** What was written and could not be handed in, or was given back to be worked on. */
  readonly draft: string;
  /** The last one first. */
  readonly versions: readonly VersionView[];
}

/** A hand-in that is open to this visitor, with what they handed in before. */
export function handInView(
  view: View,
  activity: Extract<Item, { kind: 'activity' }>,
  task: HandInTerms,
  versions: readonly HandIn[],
  files: readonly HandedFile[],
  draft: string | null,
): HandInView {
  const action = handInAddress(view, activity.id);
  const last = versions.at(-1);
  return {
    frame: frameFor(view, activity.id),
    title: activity.title,
    address: addressIn(view, activity.address),
    place: placeInCourse(view, activity.id),
    task: outlineOfTask(task),
    turn: mayHandIn(isDone(view, activity.id) === true, versions.length),
    action,
    draft: draft ?? (last?.state === 'given back' ? last.text : ''),
    versions: versions
      .map(({ id, version, at, state, score, words, by, text }) => ({
        version,
        at: momentIn(view.state.settings.timeZone, at).today,
        state,
        score,
        words,
        by,
        text,
        files: files
          .filter(({ handIn }) => handIn === id)
          .map((file) => ({
            name: file.name,
            size: file.size,
            address: `${action}/${file.id}/${encodeURIComponent(file.name)}`,
          })),
      }))
      .toReversed(),
  };
}
