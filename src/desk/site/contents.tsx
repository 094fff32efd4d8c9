'use client';
/** Everything the site holds, to be opened, and the ways to make more. */
import { clsx } from 'clsx';
import { type ReactNode, useRef, useState } from 'react';
import { toast } from 'sonner';
import {
  groupsOf,
  ITEM_KINDS,
  type Item,
  type ItemId,
  type ItemKind,
  KINDS,
  MENU_PLACES,
  mayHold,
} from '@/core';
import type { ItemEdit } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { KindMark } from '../marks';
import { Gap, Moving, useMovable } from './moving';
import { upload } from './upload';
import { useItems } from './use-items';

/** How one of a kind is made here: by its title and what else it needs, by choosing a file, or elsewhere. */
const MAKING = {
  site: null,
  page: 'form',
  post: 'form',
  section: null,
  menu: 'form',
  link: null,
  file: 'upload',
} as const satisfies Record<ItemKind, 'form' | 'upload' | null>;

type Made = { [K in ItemKind]: (typeof MAKING)[K] extends 'form' ? K : never }[ItemKind];

const isMadeHere = (kind: ItemKind): kind is Made => MAKING[kind] === 'form';

export function Contents({ open }: { readonly open: ItemId | null }) {
  const { outline, setScreen, reloadSite } = useDesk();
  const { drafted, removals, change, bringBack } = useItems();
  const [making, setMaking] = useState<Made | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const categories = [
    ...new Set([...outline.addressed.values()].flatMap(({ facts }) => facts?.category ?? [])),
  ].sort();
  const show = (item: ItemId | null) => item && setScreen({ kind: 'site', item });
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    const answer = await upload(chosen, outline.root);
    if (!answer.ok) toast.error(answer.title);
    else {
      await reloadSite();
      show(answer.value.item);
    }
  };
  return (
    <nav aria-label="What the site holds" className="min-h-0 overflow-y-auto border-iron border-r py-4">
      <div className="flex flex-wrap items-center gap-1.5 px-4 pb-3">
        <span className="mr-0.5 text-quiet">New</span>
        {ITEM_KINDS.filter((kind) => MAKING[kind] !== null).map((kind) => (
          <Button
            key={kind}
            aria-label={`New ${kind}`}
            onClick={() => (isMadeHere(kind) ? setMaking(kind) : file.current?.click())}
          >
            {kind}
          </Button>
        ))}
        <input
          ref={file}
          type="file"
          aria-label="A file to put on the site"
          className="hidden"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {making && (
        <NewItem
          key={making}
          making={making}
          categories={categories}
          onMake={async (edit) => {
            setMaking(null);
            show(await change(edit));
          }}
          onLeave={() => setMaking(null)}
        />
      )}
      <Moving change={change}>
        {groupsOf(outline).map(({ kind, title, items }) => (
          <Group key={title} title={title}>
            {(KINDS[kind].part
              ? [...outline.items.values()].filter((item) => item.kind === kind)
              : items
            ).map((item) => (
              <Entry key={item.id} item={item} depth={0} open={open} drafted={drafted} />
            ))}
            {kind === 'page' && <Gap parent={outline.root} before={null} />}
          </Group>
        ))}
      </Moving>
      {removals.length > 0 && (
        <Group title="Taken away">
          {removals.map((removal) => (
            <li key={removal.id} className="flex items-center gap-2 px-4 py-1">
              <span className="min-w-0 flex-1 truncate text-quiet">{removal.summary}</span>
              <Button
                weight="quiet"
                size="small"
                aria-label={`Bring back ${removal.summary}`}
                onClick={() => void bringBack(removal.id)}
              >
                Bring back
              </Button>
            </li>
          ))}
        </Group>
      )}
    </nav>
  );
}

interface EntryProps {
  readonly item: Item;
  readonly depth: number;
  readonly open: ItemId | null;
  readonly drafted: readonly ItemId[];
}

/** An item, to be opened, with those of its kind below it. What stands in a tree can be moved there. */
function Entry({ item, depth, open, drafted }: EntryProps) {
  const { outline, setScreen } = useDesk();
  const { rowRef, handle, isOver, isDragging } = useMovable(item);
  const moves = item.parent !== null && mayHold(item.kind, item.kind) && !KINDS[item.kind].byCategory;
  return (
    <li>
      {moves && item.parent !== null && <Gap parent={item.parent} before={item.id} />}
      <div
        ref={rowRef}
        className={clsx(
          'group flex items-center pr-2',
          open === item.id && 'bg-wash font-semibold',
          isOver && 'outline outline-copper -outline-offset-1',
          isDragging && 'opacity-50',
        )}
      >
        <button
          type="button"
          aria-current={open === item.id ? 'page' : undefined}
          onClick={() => setScreen({ kind: 'site', item: item.id })}
          style={{ paddingLeft: 16 + depth * 14 }}
          className="flex min-w-0 flex-1 items-center gap-2 py-1 pr-1 text-left hover:text-copper"
        >
          <KindMark kind={item.kind} />
          <span className="truncate">{item.title}</span>
          {!item.published && <span className="note shrink-0 italic">unpublished</span>}
          {drafted.includes(item.id) && <span className="shrink-0 text-copper text-xs">being written</span>}
        </button>
        {moves && handle('opacity-0 group-hover:opacity-100 focus-visible:opacity-100')}
      </div>
      <ul>
        {(outline.children.get(item.id) ?? [])
          .filter(({ kind }) => kind === item.kind && !KINDS[kind].byCategory)
          .map((child) => (
            <Entry key={child.id} item={child} depth={depth + 1} open={open} drafted={drafted} />
          ))}
      </ul>
    </li>
  );
}

interface NewItemProps {
  readonly making: Made;
  readonly categories: readonly string[];
  readonly onMake: (edit: ItemEdit) => void;
  readonly onLeave: () => void;
}

function NewItem({ making: kind, categories: known, onMake, onLeave }: NewItemProps) {
  const { outline } = useDesk();
  const [title, setTitle] = useState('');
  const [category, setCategory] = useState(known[0] ?? '');
  const [place, setPlace] = useState<(typeof MENU_PLACES)[number]>('side');
  const [parent, setParent] = useState<ItemId>(outline.root);
  const pages = [...outline.items.values()].filter((item) => item.kind === 'page');
  return (
    <form
      className="mx-4 mb-4 grid gap-2 border-copper border-l-3 pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (title.trim() === '') return;
        const edits: Readonly<Record<Made, ItemEdit>> = {
          page: { kind: 'new page', parent, title },
          post: { kind: 'new post', title, category: category.trim() || null },
          menu: { kind: 'new menu', title, place },
        };
        onMake(edits[kind]);
      }}
    >
      <Input
        label={`Title of the new ${kind}`}
        placeholder="Title"
        value={title}
        autoFocus
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      {kind === 'page' && (
        <Pick
          label="Below"
          value={parent as string}
          options={[
            { value: outline.root as string, label: 'at the top' },
            ...pages.map((page) => ({ value: page.id as string, label: `below ${page.title}` })),
          ]}
          onPick={(id) => setParent(id as ItemId)}
        />
      )}
      {kind === 'post' && (
        <>
          <Input
            label="Category"
            placeholder="Category"
            list="categories"
            value={category}
            maxLength={200}
            onChange={(event) => setCategory(event.target.value)}
          />
          <datalist id="categories">
            {known.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </>
      )}
      {kind === 'menu' && (
        <Pick
          label="Where it stands"
          value={place}
          options={MENU_PLACES.map((one) => ({ value: one, label: `at the ${one}` }))}
          onPick={setPlace}
        />
      )}
      <div className="flex gap-2">
        <Button weight="main" type="submit">
          Make it
        </Button>
        <Button weight="quiet" onClick={onLeave}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

const Group = ({ title, children }: { readonly title: string; readonly children: ReactNode }) => (
  <section aria-label={title} className="mb-4">
    <h2 className="px-4 pb-1 text-quiet text-sm">{title}</h2>
    <ul>{children}</ul>
  </section>
);
