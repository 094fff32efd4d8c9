'use client';
/** The Site screen: everything the site holds to the left, what is open in the middle, how it will look to the right. */
import type { ReactNode } from 'react';
import { type Item, type ItemId, type ItemKind, isShared } from '@/core';
import { useDesk } from '../context';
import { Contents } from './contents';
import { UnitEditor } from './course-parts';
import { FileEditor } from './file-editor';
import { MenuEditor } from './menu-editor';
import { Overview } from './overview';
import { SharedWriter } from './shared-writer';
import { Writer } from './writer';

/** What changes an item of each kind; null for those that are changed with what they stand in. */
const EDITORS: { readonly [K in ItemKind]: ((item: Extract<Item, { kind: K }>) => ReactNode) | null } = {
  site: null,
  page: (item) => <Writer key={item.id} item={item} />,
  post: (item) => <Writer key={item.id} item={item} />,
  course: (item) => <Writer key={item.id} item={item} />,
  unit: (item) => <UnitEditor key={item.id} unit={item} />,
  activity: (item) => <Writer key={item.id} item={item} />,
  section: (item) => (isShared(item) ? <SharedWriter key={item.id} item={item} /> : null),
  menu: (item) => <MenuEditor key={item.id} menu={item} />,
  link: null,
  file: (item) => <FileEditor key={item.id} file={item} />,
};

export function SiteScreen({ item: id }: { readonly item: ItemId | null }) {
  const { outline } = useDesk();
  const open = id === null ? undefined : outline.items.get(id);
  const editor = open && (EDITORS[open.kind] as ((item: Item) => ReactNode) | null);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[19rem_minmax(0,1fr)]">
      <Contents open={id} />
      {editor ? (
        editor(open)
      ) : id === null ? (
        <Overview />
      ) : (
        <p className="px-8 py-6">That is no longer there. Choose something else to the left.</p>
      )}
    </main>
  );
}
