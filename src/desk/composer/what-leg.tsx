'use client';
import { clsx } from 'clsx';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import {
  all,
  coverage,
  describeSelection,
  type Gate,
  hasBelow,
  type ItemId,
  type ItemKind,
  isAddressed,
  nameInContext,
  type Outline,
  type Target,
  test,
  type What,
} from '@/core';
import { Button, type Findable, Finder, Pick } from '@/ui';
import { rowsOf } from '../board/rows';
import { useDesk } from '../context';
import { SelectionEditor } from './selection-editor';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

interface FoundItem extends Findable {
  readonly item: ItemId;
}

/** The first leg: which items the gate covers, and which it leaves out; pointed at, or described. */
export function WhatLeg({ gate, onChange }: LegProps) {
  const { outline, vocabulary } = useDesk();
  const covered = [...coverage(gate, outline, vocabulary)];
  return (
    <WhatEditor
      what={gate.what}
      label="Covered"
      // A gate that sets others aside does so for what is on a page only where it covers that too.
      withParts={gate.stance === 'instead'}
      onChange={(what) => onChange({ ...gate, what })}
    >
      {covered.length === 0 ? 'Covers nothing yet' : `Covers ${countsOfKinds(covered, outline)}`}. Or point at
      rows of the board.
    </WhatEditor>
  );
}

/** "3 pages, 12 posts". */
export function countsOfKinds(ids: readonly ItemId[], { items }: Outline): string {
  const counts = new Map<ItemKind, number>();
  for (const id of ids) {
    const kind = items.get(id)?.kind;
    if (kind) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return [...counts].map(([kind, count]) => `${count} ${count === 1 ? kind : `${kind}s`}`).join(', ');
}

interface WhatProps {
  readonly what: What;
  readonly label: string;
  readonly withParts?: boolean;
  readonly onChange: (what: What) => void;
  /** What is said of it: how much that is. */
  readonly children: ReactNode;
}

/** Some items of the site: pointed at or described, minus some. */
export function WhatEditor({ what, label, withParts = false, onChange, children }: WhatProps) {
  const { outline } = useDesk();
  const { targets, except } = what;
  const change = (over: Partial<What>) => onChange({ ...what, ...over });
  return (
    <div className="grid gap-2">
      <TargetList
        label={label}
        targets={targets}
        withParts={withParts}
        onChange={(next) => change({ targets: next })}
      />
      {except.length > 0 && (
        <TargetList
          label="Left out"
          prefix="except"
          targets={except}
          onChange={(next) => change({ except: next })}
        />
      )}
      <div className="flex flex-wrap items-center gap-2">
        <ItemFinder
          label="Add an item"
          onChoose={(item) => change({ targets: [...targets, targetFor(item)] })}
        />
        <Button onClick={() => change({ targets: [...targets, aSelection()] })}>Describe some</Button>
        {targets.some((target) => target.kind !== 'item') && (
          <>
            <ItemFinder
              label="Leave one out"
              onChoose={(item) => change({ except: [...except, { kind: 'item', item }] })}
            />
            <Button onClick={() => change({ except: [...except, aSelection()] })}>Leave some out</Button>
          </>
        )}
        <span className="note">{children}</span>
      </div>
    </div>
  );

  function targetFor(item: ItemId): Target {
    return { kind: hasBelow(outline, item) ? 'branch' : 'item', item };
  }

  /** Something to begin with: the posts of a category, if there are any. */
  function aSelection(): Target {
    const category = [...outline.items.values()].find(({ facts }) => facts?.category)?.facts?.category;
    const posts = test('item kind', 'is', 'post');
    return {
      kind: 'selection',
      where: category === undefined ? posts : all(posts, test('item category', 'is', category)),
    };
  }
}

interface TargetListProps {
  readonly label: string;
  readonly prefix?: string;
  readonly targets: readonly Target[];
  /** Whether it makes a difference if the sections and files of a page are meant as well. */
  readonly withParts?: boolean;
  readonly onChange: (targets: readonly Target[]) => void;
}

function TargetList({ label, prefix, targets, withParts = false, onChange }: TargetListProps) {
  const { outline, vocabulary } = useDesk();
  const put = (index: number, target: Target) =>
    onChange(targets.map((one, at) => (at === index ? target : one)));
  return (
    <ul aria-label={label} className="grid gap-1.5">
      {targets.map((target, index) => {
        const item = target.kind === 'selection' ? undefined : outline.items.get(target.item);
        const title =
          target.kind === 'selection'
            ? describeSelection(target.where, vocabulary)
            : item
              ? nameInContext(item, outline)
              : 'an item that no longer exists';
        const hasMore =
          item !== undefined &&
          (hasBelow(outline, item.id) || (withParts && (outline.children.get(item.id) ?? []).length > 0));
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: targets have no identity but their place
          <li key={index} className="grid gap-1.5">
            <div className="flex items-center gap-2">
              {prefix && <span className="text-quiet">{prefix}</span>}
              <span
                className={clsx(
                  'truncate font-semibold',
                  !item && target.kind !== 'selection' && 'text-alarm',
                )}
              >
                {title}
              </span>
              {hasMore && target.kind !== 'selection' && (
                <Pick
                  label={`How much of ${title}`}
                  value={target.kind}
                  options={[
                    { value: 'item', label: 'alone' },
                    { value: 'branch', label: 'and everything below it' },
                  ]}
                  onPick={(kind) => put(index, { ...target, kind })}
                />
              )}
              <Button
                weight="quiet"
                size="small"
                aria-label={`Take out ${title}`}
                title="Take out"
                onClick={() => onChange(targets.filter((_, at) => at !== index))}
              >
                <X size={14} aria-hidden="true" />
              </Button>
            </div>
            {target.kind === 'selection' && (
              <SelectionEditor
                where={target.where}
                onChange={(where) => put(index, { kind: 'selection', where })}
              />
            )}
          </li>
        );
      })}
    </ul>
  );
}

function ItemFinder({
  label,
  onChoose,
}: {
  readonly label: string;
  readonly onChoose: (item: ItemId) => void;
}) {
  const { outline } = useDesk();
  const found = rowsOf(outline).map(
    ({ item }): FoundItem => ({
      key: item.id,
      label: nameInContext(item, outline),
      note: isAddressed(item) ? item.address : item.kind,
      item: item.id,
    }),
  );
  return (
    <Finder
      label="Items"
      placeholder="Title or address"
      nothing="No item by that name."
      trigger={<Button>{label}</Button>}
      found={found}
      onChoose={({ item }) => onChoose(item)}
    />
  );
}
