/** What is kept of items that were taken away, so that taking them away can be taken back. */
import type { Item } from '../core/site/item';
import type { Content } from './content';

export interface RemovedItems {
  readonly items: readonly { readonly item: Item; readonly content: Content }[];
}
