'use client';
import type { ReactNode } from 'react';
import {
  type Condition,
  type Item,
  type ItemId,
  type NextStep,
  type Reason,
  reasonFor,
  type TurnAway,
} from '@/core';
import { useDesk } from '../context';

interface PreviewProps {
  readonly turnAway: TurnAway;
  /** The item that is turned away from; its title and summary are drawn. */
  readonly item: Item | null;
  /** Who would pass, from which the reason is written. */
  readonly who: Condition | null;
}

/** A turn-away as the visitor gets it, in small. */
export function TurnAwayPreview({ turnAway, item, who }: PreviewProps) {
  const { data, outline, vocabulary } = useDesk();
  const said = (reason: Reason): string | null =>
    reason.kind === 'own'
      ? reason.text
      : reason.kind === 'written' && who
        ? reasonFor(who, vocabulary)
        : null;
  switch (turnAway.kind) {
    case 'teaser':
      return (
        <Sheet>
          <p className="font-semibold text-[0.95rem]">{item?.title ?? 'Title of the item'}</p>
          <p className="mt-0.5">
            {turnAway.text ?? (item && data.summaries[item.id]) ?? 'The item’s own summary.'}
          </p>
          <Foot reason={said(turnAway.reason)} next={turnAway.next} />
        </Sheet>
      );
    case 'message':
      return (
        <Sheet>
          <p className="font-semibold text-[0.95rem]">This page isn’t open to you</p>
          <Foot reason={said(turnAway.reason)} next={turnAway.next} />
        </Sheet>
      );
    case 'redirect': {
      const target = turnAway.to.kind === 'item' ? outline.items.get(turnAway.to.item) : null;
      return (
        <Sheet>
          <p className="flex items-baseline gap-2">
            <span aria-hidden="true" className="text-redirect">
              →
            </span>
            {turnAway.to.kind === 'passphrase' ? (
              <span>
                <strong>Type a passphrase</strong>, and back here afterwards
              </span>
            ) : turnAway.to.kind === 'sign in' ? (
              <span>
                <strong>Sign in</strong>, and back here afterwards
              </span>
            ) : (
              <span>
                <strong>{target?.title ?? 'a page that no longer exists'}</strong>{' '}
                {target?.kind === 'page' && <span className="text-quiet">{target.address}</span>}
              </span>
            )}
          </p>
        </Sheet>
      );
    }
    case 'missing':
      return (
        <Sheet>
          <p className="font-semibold text-[0.95rem]">There is nothing at this address</p>
        </Sheet>
      );
    case 'leave out':
      return <p className="note">Nothing: the others close up around its place.</p>;
    default:
      return turnAway satisfies never;
  }
}

const Sheet = ({ children }: { readonly children: ReactNode }) => (
  <div className="rounded-[3px] border border-thin border-t-[5px] border-t-iron bg-raised px-3.5 py-2.5 text-[0.8125rem]">
    {children}
  </div>
);

function Foot({ reason, next }: { readonly reason: string | null; readonly next: NextStep }) {
  const label = useStepLabel(next);
  if (reason === null && label === null) return null;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3 border-thin border-t pt-2">
      {reason && <span className="font-semibold">{reason}</span>}
      {label && <span className="rounded-[2px] bg-ink px-2 py-0.5 text-paper">{label}</span>}
    </p>
  );
}

function useStepLabel(next: NextStep): string | null {
  const { outline } = useDesk();
  const titleOf = (id: ItemId) => outline.items.get(id)?.title ?? 'a page that no longer exists';
  switch (next.kind) {
    case 'none':
      return null;
    case 'sign in':
      return 'Sign in';
    case 'passphrase':
      return 'Type a passphrase';
    case 'item':
      return titleOf(next.item);
    default:
      return next satisfies never;
  }
}
