/** What an editor of a section gets. */
import type { ItemId } from '@/core';
import type { SectionRead } from '@/services';

export interface EditorProps<T extends SectionRead = SectionRead> {
  readonly page: ItemId;
  readonly section: T;
  readonly onChange: (section: SectionRead) => void;
}

/** A section of one type. */
export type Of<Type extends SectionRead['type']> = Extract<SectionRead, { type: Type }>;
