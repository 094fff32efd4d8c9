'use client';
import { clsx } from 'clsx';
import { X } from 'lucide-react';
import { coverage, type Gate, type ItemId, type Target } from '@/core';
import { Button, type Findable, Finder, Pick } from '@/ui';
import { rowsOf } from '../board/rows';
import { useDesk } from '../context';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

interface FoundItem extends Findable {
  readonly item: ItemId;
}

/** The first leg: which items the gate covers, and which it leaves out. */
export function WhatLeg({ gate, onChange }: LegProps) {
  const { outline } = useDesk();
  const { targets, except } = gate.what;
  const change = (what: Partial<Gate['what']>) => onChange({ ...gate, what: { ...gate.what, ...what } });
  const covered = [...coverage(gate.what, outline)];
  const pages = covered.filter((id) => outline.items.get(id)?.kind === 'page').length;
  return (
    <div className="grid gap-2">
      <TargetList label="Covered" targets={targets} onChange={(next) => change({ targets: next })} />
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
        {targets.some((target) => target.kind === 'branch') && (
          <ItemFinder
            label="Leave one out"
            onChoose={(item) => change({ except: [...except, { kind: 'item', item }] })}
          />
        )}
        <span className="note">
          {covered.length === 0
            ? 'Covers nothing yet'
            : `Covers ${covered.length} ${covered.length === 1 ? 'item' : 'items'}${pages < covered.length && pages > 0 ? `, ${pages} of them pages` : ''}`}
          . Or point at rows of the board.
        </span>
      </div>
    </div>
  );

  function targetFor(item: ItemId): Target {
    const hasMore = (outline.children.get(item) ?? []).length > 0;
    return { kind: hasMore ? 'branch' : 'item', item };
  }
}

interface TargetListProps {
  readonly label: string;
  readonly prefix?: string;
  readonly targets: readonly Target[];
  readonly onChange: (targets: readonly Target[]) => void;
}

function TargetList({ label, prefix, targets, onChange }: TargetListProps) {
  const { outline } = useDesk();
  return (
    <ul aria-label={label} className="grid gap-1.5">
      {targets.map((target, index) => {
        const item = outline.items.get(target.item);
        const title = item?.title ?? 'an item that no longer exists';
        const hasMore = (outline.children.get(target.item) ?? []).length > 0;
        return (
          <li key={`${target.kind} ${target.item}`} className="flex items-center gap-2">
            {prefix && <span className="text-quiet">{prefix}</span>}
            <span className={clsx('truncate font-semibold', !item && 'text-alarm')}>{title}</span>
            {hasMore && (
              <Pick
                label={`How much of ${title}`}
                value={target.kind}
                options={[
                  { value: 'item', label: 'alone' },
                  { value: 'branch', label: 'and everything below it' },
                ]}
                onPick={(kind) => onChange(targets.map((one, at) => (at === index ? { ...one, kind } : one)))}
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
      label: item.title,
      note: item.kind === 'page' ? item.address : item.kind,
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
