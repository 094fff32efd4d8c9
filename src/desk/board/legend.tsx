'use client';
import { Popover } from 'radix-ui';
import { type Outcome, TURN_AWAY_KINDS, TURN_AWAYS } from '@/core';
import { GateMark, type GateStanding, OutcomeMark } from '../marks';

const OUTCOMES: readonly (readonly [Outcome, string])[] = [
  ['open', 'Open: gets the item itself'],
  ...TURN_AWAY_KINDS.map((kind) => [kind, TURN_AWAYS[kind].means] as const),
];
const STANDINGS: readonly (readonly [GateStanding, string])[] = [
  ['own', 'A gate of the item’s own'],
  ['inherited', 'A gate that reaches it from above'],
  ['instead', 'A gate that sets aside those above it'],
  ['set aside', 'A gate set aside here'],
];
const KEYS: readonly (readonly [string, string])[] = [
  ['↑ ↓ ← →', 'move through the cells'],
  ['Enter', 'why this decision'],
  ['G', 'the row’s gate, or a new one'],
  ['W', 'walk there as this visitor'],
  ['L', 'this legend'],
  ['Ctrl K', 'find or do anything'],
];

/** What the marks mean and what the keys do. */
export function Legend({
  open,
  onOpenChange,
}: {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
}) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger className="px-2 py-0.5 text-quiet hover:text-copper">
        Legend <span className="key">L</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={8}
          className="z-30 grid gap-4 rounded-[4px] border border-iron bg-raised p-4 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
        >
          <ul className="grid gap-1.5">
            {OUTCOMES.map(([outcome, text]) => (
              <li key={outcome} className="flex items-center gap-2.5">
                <OutcomeMark outcome={outcome} />
                {text}
              </li>
            ))}
          </ul>
          <ul className="grid gap-1.5 border-thin border-t pt-3">
            {STANDINGS.map(([standing, text]) => (
              <li key={standing} className="flex items-center gap-2.5">
                <span className="flex w-[18px] justify-center">
                  <GateMark standing={standing} />
                </span>
                {text}
              </li>
            ))}
          </ul>
          <ul className="grid gap-1.5 border-thin border-t pt-3">
            {KEYS.map(([key, text]) => (
              <li key={key} className="flex items-baseline gap-2.5">
                <span className="key w-16 text-center">{key}</span>
                {text}
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
