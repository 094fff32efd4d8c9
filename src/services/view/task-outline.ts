/** What is told of a hand-in to those who may hand something in, before they do. */
import { type HandInTerms, type ItemId, newTask } from '@/core';
import type { SiteState } from '../running';
import { addressIn, type View } from './context';
import { contentOf } from './texts';

export interface TaskOutline {
  readonly text: boolean;
  readonly files: number;
  readonly kinds: HandInTerms['kinds'];
  readonly megabytes: number;
}

export const handInAddress = (view: View, activity: ItemId): string =>
  addressIn(view, `/me/hand-in/${encodeURIComponent(activity)}`);

/** What may be handed in to an activity: what its author says, or what one that was just made has. */
export const taskIn = (state: SiteState, activity: ItemId): HandInTerms =>
  contentOf(state, activity).task ?? newTask;

export const outlineOfTask = ({ text, files, kinds, megabytes }: HandInTerms): TaskOutline => ({
  text,
  files,
  kinds,
  megabytes,
});
