'use client';
/** Taking something off the site: what goes with it is said first. */
import { useState } from 'react';
import { toast } from 'sonner';
import type { ItemId } from '@/core';
import type { RemovalPreview } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { ask } from '../service';
import { useChangeItem } from '../use-change-item';

export function TakeAway({ item }: { readonly item: ItemId }) {
  const { setScreen } = useDesk();
  const { change } = useChangeItem();
  const [removal, setRemoval] = useState<RemovalPreview | null>(null);
  const look = async () => {
    const answer = await ask<RemovalPreview>('GET', `items/${encodeURIComponent(item)}/removal`);
    if (answer.ok) setRemoval(answer.value);
    else toast.error(answer.title);
  };
  return (
    <>
      <Button weight="quiet" onClick={() => void look()}>
        Take it away …
      </Button>
      {removal && (
        <Removal
          removal={removal}
          onLeave={() => setRemoval(null)}
          onRemove={async () => {
            await change({ kind: 'remove', item, leaving: true });
            setScreen({ kind: 'site', item: null });
          }}
        />
      )}
    </>
  );
}

interface RemovalProps {
  readonly removal: RemovalPreview;
  readonly onRemove: () => void;
  readonly onLeave: () => void;
}

/** What goes with it, before it goes. */
export function Removal({ removal, onRemove, onLeave }: RemovalProps) {
  const [, ...parts] = removal.gone;
  return (
    <div role="alert" className="grid gap-1.5 border-alarm border-l-3 pl-3">
      <p>
        <strong>{removal.title}</strong> goes
        {parts.length > 0 && `, with ${parts.length} more: ${parts.slice(0, 6).join(', ')}`}. It can be
        brought back.
      </p>
      {removal.links.length > 0 && (
        <p>These links go as well, since they lead there: {removal.links.join(', ')}.</p>
      )}
      {removal.gates.length > 0 && (
        <p>These cover it by name, and will cover nothing in its place: {removal.gates.join('; ')}.</p>
      )}
      {removal.opens.length > 0 && <p className="text-alarm">Without it, {removal.opens.join('; ')}.</p>}
      {removal.leads.length > 0 && (
        <p className="text-alarm">
          These send people there, who will find nothing: {removal.leads.join('; ')}. Change them first.
        </p>
      )}
      <p className="flex gap-2">
        <Button onClick={onRemove}>Take it away</Button>
        <Button weight="quiet" onClick={onLeave}>
          Leave it
        </Button>
      </p>
    </div>
  );
}
