'use client';
/**
 * Items of a kind as a tree that folds. A small site stands open; of a large one there is what is at the top and what leads
 * to the open item, and of many that stand side by side the first ones.
 */
import { clsx } from 'clsx';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { type Item, type ItemId, type ItemKind, isShared, KINDS, type Outline } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { KindMark } from '../marks';
import { Gap, useMovable } from './moving';

/** A site of more items than these stands folded. */
const STANDS_OPEN = 250;
/** How many side by side are drawn at first, and how many more each time. */
const AT_ONCE = 100;

/** What the entries of a tree have in common. */
export interface Tree {
  readonly open: ItemId | null;
  readonly drafted: readonly ItemId[];
  /** Whether an item is the open one, or stands above it. */
  readonly leads: (item: ItemId) => boolean;
  readonly isFolded: (item: ItemId) => boolean;
  readonly fold: (item: ItemId, folded: boolean) => void;
}

/** Which branches are folded: as somebody left them, or as a site of this size begins. */
export function useTree(open: ItemId | null, drafted: readonly ItemId[]): Tree {
  const { outline } = useDesk();
  const [folds, setFolds] = useState<ReadonlyMap<ItemId, boolean>>(new Map());
  return useMemo(() => {
    const leading = new Set<ItemId>();
    for (let at = open && outline.items.get(open); at; at = at.parent && outline.items.get(at.parent))
      leading.add(at.id);
    const large = outline.items.size > STANDS_OPEN;
    const begins = (item: ItemId) => isShared(outline.items.get(item)) || (large && !leading.has(item));
    return {
      open,
      drafted,
      leads: (item) => leading.has(item),
      isFolded: (item) => folds.get(item) ?? begins(item),
      fold: (item, folded) => setFolds((before) => new Map(before).set(item, folded)),
    };
  }, [open, drafted, outline, folds]);
}

/** Whether items of a kind stand in the tree: what is opened in the middle, and is no part of something else. */
const inTree = (kind: ItemKind): boolean => !KINDS[kind].part && !KINDS[kind].byCategory && kind !== 'link';

const belowOf = (outline: Outline, item: Item): readonly Item[] =>
  (outline.children.get(item.id) ?? []).filter(({ kind }) => inTree(kind));

interface SiblingsProps {
  readonly items: readonly Item[];
  readonly depth?: number;
  readonly tree: Tree;
}

/** Items that stand side by side. */
export function Siblings({ items, depth = 0, tree }: SiblingsProps) {
  const [most, setMost] = useState(AT_ONCE);
  const shown = items.slice(0, most);
  const beyond = items.slice(most).find(({ id }) => tree.leads(id));
  return (
    <>
      {shown.map((item) => (
        <Entry key={item.id} item={item} depth={depth} tree={tree} />
      ))}
      {items.length > most && (
        <li style={{ paddingLeft: 16 + depth * 14 }}>
          <Button weight="quiet" size="small" onClick={() => setMost(most + AT_ONCE)}>
            {items.length - most} more
          </Button>
        </li>
      )}
      {beyond && <Entry item={beyond} depth={depth} tree={tree} />}
    </>
  );
}

interface EntryProps {
  readonly item: Item;
  readonly depth: number;
  readonly tree: Tree;
}

/** An item, to be opened, with those of its kind below it. What stands in a tree can be moved there. */
function Entry({ item, depth, tree }: EntryProps) {
  const { outline, compiled, setScreen } = useDesk();
  const { rowRef, handle, isOver, isDragging } = useMovable(item);
  const moves = item.parent !== null && (isShared(item) || (inTree(item.kind) && item.kind !== 'menu'));
  // A shared section folds out to the pages and posts on which it stands.
  const hosts = isShared(item) ? [...compiled.live.places.hosts(item)] : [];
  const below = belowOf(outline, item);
  const folded = tree.isFolded(item.id);
  const isOpen = tree.open === item.id;
  const Chevron = folded ? ChevronRight : ChevronDown;
  return (
    <li>
      {moves && item.parent !== null && <Gap parent={item.parent} before={item.id} />}
      <div
        ref={rowRef}
        style={{ paddingLeft: depth * 14 }}
        className={clsx(
          'group flex items-center pr-2',
          isOpen && 'bg-wash font-semibold',
          isOver && 'outline outline-copper -outline-offset-1',
          isDragging && 'opacity-50',
        )}
      >
        <span className="grid w-4 shrink-0 place-items-center">
          {below.length + hosts.length > 0 && (
            <button
              type="button"
              aria-expanded={!folded}
              aria-label={`${folded ? 'Fold out' : 'Fold away'} ${isShared(item) ? 'where it stands:' : 'what is below'} ${item.title}`}
              onClick={() => tree.fold(item.id, !folded)}
              className="grid h-6 w-4 place-items-center text-faint hover:text-copper"
            >
              <Chevron size={12} aria-hidden="true" />
            </button>
          )}
        </span>
        <button
          type="button"
          aria-current={isOpen ? 'page' : undefined}
          onClick={() => setScreen({ kind: 'site', item: item.id })}
          className="flex min-w-0 flex-1 items-center gap-2 py-1 pr-1 text-left hover:text-copper"
        >
          <KindMark kind={item.kind} />
          <span className="truncate">{item.title}</span>
          {!item.published && <span className="note shrink-0 italic">unpublished</span>}
          {tree.drafted.includes(item.id) && (
            <span className="shrink-0 text-copper text-xs">being written</span>
          )}
        </button>
        {moves && handle('opacity-0 group-hover:opacity-100 focus-visible:opacity-100')}
      </div>
      {!folded && below.length > 0 && (
        <ul>
          <Siblings items={below} depth={depth + 1} tree={tree} />
        </ul>
      )}
      {!folded && hosts.length > 0 && <Hosts hosts={hosts} depth={depth + 1} />}
    </li>
  );
}

/** On what a shared section stands, to be opened. */
function Hosts({ hosts, depth }: { readonly hosts: readonly ItemId[]; readonly depth: number }) {
  const { outline, setScreen } = useDesk();
  const [most, setMost] = useState(AT_ONCE);
  return (
    <ul style={{ paddingLeft: 16 + depth * 14 }}>
      {hosts.slice(0, most).map((id) => {
        const host = outline.items.get(id);
        return (
          host && (
            <li key={id}>
              <button
                type="button"
                onClick={() => setScreen({ kind: 'site', item: id })}
                className="flex w-full min-w-0 items-center gap-2 py-0.5 pr-2 text-left text-quiet hover:text-copper"
              >
                <KindMark kind={host.kind} />
                <span className="truncate">{host.title}</span>
              </button>
            </li>
          )
        );
      })}
      {hosts.length > most && (
        <li>
          <Button weight="quiet" size="small" onClick={() => setMost(most + AT_ONCE)}>
            {hosts.length - most} more
          </Button>
        </li>
      )}
    </ul>
  );
}
