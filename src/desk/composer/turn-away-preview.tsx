'use client';
import type { ReactNode } from 'react';
import {
  type Condition,
  type Item,
  type ItemId,
  isAddressed,
  type NextStep,
  nameOfId,
  type Reason,
  reasonFor,
  renameOwnWords,
  type Teaser,
  type TurnAway,
} from '@/core';
import { useDesk } from '../context';
import { OutcomeMark } from '../marks';

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
          {turnAway.preview && <Blur />}
          <p className="mt-0.5">{teaserText(turnAway, (item && data.summaries[item.id]) ?? null)}</p>
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
            {turnAway.to.kind === 'outside' ? (
              <strong className="break-all">{turnAway.to.url}</strong>
            ) : turnAway.to.kind === 'passphrase' ? (
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
                {target && isAddressed(target) && <span className="text-quiet">{target.address}</span>}
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
      return (
        <p className="note">
          {turnAway.keepSpace
            ? 'Nothing, and its place stays empty.'
            : 'Nothing: the others close up around its place.'}
        </p>
      );
    case 'swap':
      return (
        <Sheet>
          <p className="whitespace-pre-line">{renameOwnWords(turnAway.text, vocabulary, 'by name')}</p>
        </Sheet>
      );
    case 'locked':
      return (
        <Sheet>
          <p className="flex items-center gap-2 font-semibold text-[0.95rem]">
            <OutcomeMark outcome="locked" size={15} />
            {item?.title ?? 'Title of the item'}
          </p>
          <Foot reason={said(turnAway.reason)} next={turnAway.next} />
        </Sheet>
      );
    default:
      return turnAway satisfies never;
  }
}

function teaserText({ show }: Teaser, summary: string | null): string {
  if (show.kind === 'text') return show.text;
  if (show.kind === 'words') return `Its first ${show.count} words …`;
  return summary ?? 'Its own summary, if it has one.';
}

/** A picture of which only the colours are told. */
const Blur = () => (
  <span
    aria-hidden="true"
    className="my-1.5 block h-12 rounded-[2px] bg-[linear-gradient(100deg,var(--sunk),var(--wash),var(--thin),var(--sunk))] blur-[1px]"
  />
);

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
  const { outline, vocabulary } = useDesk();
  const titleOf = (id: ItemId) => outline.items.get(id)?.title ?? 'a page that no longer exists';
  switch (next.kind) {
    case 'none':
      return null;
    case 'sign in':
      return 'Sign in';
    case 'sign up':
      return 'Sign up';
    case 'follow':
      return `Follow ${nameOfId(vocabulary, 'group', next.group) ?? 'a group that no longer exists'}`;
    case 'buy':
      return `Buy ${nameOfId(vocabulary, 'product', next.product) ?? 'a product that no longer exists'}`;
    case 'outside':
      return next.label;
    case 'passphrase':
      return 'Type a passphrase';
    case 'item':
      return titleOf(next.item);
    default:
      return next satisfies never;
  }
}
