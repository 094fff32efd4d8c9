'use client';
/** Everything the site holds, to be opened, and the ways to make more. */
import { type ReactNode, useRef, useState } from 'react';
import { toast } from 'sonner';
import { asId, groupsOf, ITEM_KINDS, type ItemId, type ItemKind, MENU_PLACES, permits } from '@/core';
import type { ItemEdit } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import type { ChangeItem } from '../use-change-item';
import { Gap, Moving } from './moving';
import { Siblings, useTree } from './tree';
import { upload } from './upload';
import { useItems } from './use-items';

/** How one of a kind is made here: by its title and what else it needs, by choosing a file, or elsewhere. */
const MAKING = {
  site: null,
  page: 'form',
  post: 'form',
  course: 'form',
  unit: null,
  activity: null,
  section: 'form',
  menu: 'form',
  link: null,
  file: 'upload',
} as const satisfies Record<ItemKind, 'form' | 'upload' | null>;

type Made = { [K in ItemKind]: (typeof MAKING)[K] extends 'form' ? K : never }[ItemKind];

/** A section that is made by itself is one that many pages share. */
const calledHere = (kind: ItemKind): string => (kind === 'section' ? 'shared section' : kind);

const isMadeHere = (kind: ItemKind): kind is Made => MAKING[kind] === 'form';

export function Contents({ open }: { readonly open: ItemId | null }) {
  const { data, outline, setScreen, reloadSite } = useDesk();
  const { drafted, removals, change, bringBack } = useItems();
  const tree = useTree(open, drafted);
  /** What is moved below something folded is shown there. */
  const move: ChangeItem = (edit) => {
    if (edit.kind === 'move') for (const { parent } of edit.moves) tree.fold(asId(parent), false);
    return change(edit);
  };
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
            aria-label={`New ${calledHere(kind)}`}
            onClick={() => (isMadeHere(kind) ? setMaking(kind) : file.current?.click())}
          >
            {calledHere(kind)}
          </Button>
        ))}
        {permits(data.desk, 'everything') && (
          <Button weight="quiet" onClick={() => setScreen({ kind: 'takeIn' })}>
            Take in …
          </Button>
        )}
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
      <Moving change={move}>
        {groupsOf(outline).map(({ kind, title, items }) => (
          <Group key={title} title={title}>
            <Siblings
              items={
                kind === 'file' ? [...outline.items.values()].filter((item) => item.kind === kind) : items
              }
              tree={tree}
            />
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
          course: { kind: 'new course', parent, title },
          section: { kind: 'new shared', title },
          menu: { kind: 'new menu', title, place },
        };
        onMake(edits[kind]);
      }}
    >
      <Input
        label={`Title of the new ${calledHere(kind)}`}
        placeholder="Title"
        value={title}
        autoFocus
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      {(kind === 'page' || kind === 'course') && (
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
