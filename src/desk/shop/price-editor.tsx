'use client';
/** A price, to be changed: how much, how often, and for whom and when. */
import { X } from 'lucide-react';
import { everyone, type Price, type PriceId, plainAmount, same } from '@/core';
import { Button, Input, Pick } from '@/ui';
import { WhoEditor } from '../condition';

/** A price as it is typed. */
export interface PriceDraft extends Omit<Price, 'amount'> {
  readonly typed: string;
}

export const asTyped = ({ amount, ...price }: Price): PriceDraft => ({
  ...price,
  typed: plainAmount({ amount, currency: price.currency }),
});

export const newPrice = (kind: string, others: readonly PriceDraft[]): PriceDraft => ({
  id: crypto.randomUUID() as PriceId,
  typed: '',
  currency: others[0]?.currency ?? 'EUR',
  months: kind === 'subscription' ? 1 : null,
  trialDays: 0,
  from: null,
  until: null,
  who: everyone,
});

interface PriceProps {
  readonly price: PriceDraft;
  readonly kind: string;
  readonly problem: string | undefined;
  readonly onChange: (price: PriceDraft) => void;
  readonly onRemove: () => void;
}

const PERIODS = [1, 3, 6, 12, 24];
const periodName = (months: number): string =>
  months === 1
    ? 'a month'
    : months === 12
      ? 'a year'
      : months % 12 === 0
        ? `${months / 12} years`
        : `${months} months`;

export function PriceEditor({ price, kind, problem, onChange, onRemove }: PriceProps) {
  const put = (change: Partial<PriceDraft>) => onChange({ ...price, ...change });
  const days = price.from !== null || price.until !== null;
  return (
    <div className="grid gap-2 border-thin border-t pt-2">
      <div className="flex flex-wrap items-center gap-2">
        <Input
          label="Amount"
          inputMode="decimal"
          className="w-20"
          placeholder="12.00"
          value={price.typed}
          aria-invalid={problem !== undefined || undefined}
          onChange={({ target }) => put({ typed: target.value })}
        />
        <Input
          label="Currency"
          className="w-14 uppercase"
          maxLength={3}
          value={price.currency}
          onChange={({ target }) => put({ currency: target.value.toUpperCase() })}
        />
        {kind === 'subscription' && (
          <>
            <Pick
              label="How often"
              value={String(price.months ?? 1)}
              options={[...new Set([...PERIODS, price.months ?? 1])]
                .toSorted((one, other) => one - other)
                .map((months) => ({ value: String(months), label: periodName(months) }))}
              onPick={(months) => put({ months: Number(months) })}
            />
            <span className="flex items-center gap-1.5">
              <Input
                label="Days of trial"
                type="number"
                min={0}
                max={366}
                className="w-14"
                value={price.trialDays}
                onChange={({ target }) => put({ trialDays: Math.round(target.valueAsNumber || 0) })}
              />
              days free
            </span>
          </>
        )}
        <Button
          weight="quiet"
          size="small"
          aria-label="Take this price out"
          onClick={onRemove}
          className="ml-auto"
        >
          <X size={14} aria-hidden="true" />
        </Button>
      </div>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <details open={days || !same(price.who, everyone)}>
        <summary className="text-quiet">For whom, and when</summary>
        <div className="mt-2 grid gap-3 pl-3">
          <span className="flex items-center gap-2">
            from
            <Input
              label="From"
              type="date"
              value={price.from ?? ''}
              onChange={({ target }) => put({ from: target.value || null })}
            />
            until
            <Input
              label="Until"
              type="date"
              value={price.until ?? ''}
              onChange={({ target }) => put({ until: target.value || null })}
            />
          </span>
          <WhoEditor who={price.who} onChange={(who) => put({ who })} />
        </div>
      </details>
    </div>
  );
}
