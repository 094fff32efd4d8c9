/** An item that something taken in was written over: as it was, and as it is since. */
import type { Item } from '../core/site/item';
import type { Content } from './content';

interface StoredItem {
  readonly item: Item;
  readonly content: Content;
}

export interface TakenOver {
  readonly before: StoredItem;
  readonly after: StoredItem;
}
