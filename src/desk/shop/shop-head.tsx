'use client';
/** The head that shop and sales share: the way from one to the other, and the clock of a demo. */
import type { ReactNode } from 'react';
import { useState } from 'react';
import { permits } from '@/core';
import type { ClockMoved } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { type ScreenKind, startOf } from '../screens';
import { ask } from '../service';
import { addressOfView, viewOf } from '../view';

const PLACES = [
  { kind: 'shop', label: 'Shop' },
  { kind: 'sales', label: 'Sales' },
] as const satisfies readonly { readonly kind: ScreenKind; readonly label: string }[];

interface ShopHeadProps {
  readonly note: string;
  readonly children?: ReactNode;
}

export function ShopHead({ note, children }: ShopHeadProps) {
  const { screen, setScreen } = useDesk();
  return (
    <header className="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
      <div>
        <h2 className="flex items-baseline gap-4 text-xl">
          {PLACES.map(({ kind, label }) =>
            kind === screen.kind ? (
              <span key={kind}>{label}</span>
            ) : (
              <a
                key={kind}
                href={addressOfView(viewOf(startOf(kind)))}
                onClick={(event) => {
                  event.preventDefault();
                  setScreen(startOf(kind));
                }}
                className="text-base text-quiet underline underline-offset-4 hover:text-copper"
              >
                {label}
              </a>
            ),
          )}
        </h2>
        <p className="note max-w-prose">{note}</p>
      </div>
      {children}
    </header>
  );
}

const STEPS = ['a day later', 'a week later', 'a month later'] as const;

/** Moves the clock of a demo on, together with the stand-in till's. */
export function MoveClock({ onMoved }: { readonly onMoved: () => void }) {
  const { data, reloadSite, request } = useDesk();
  const [moving, setMoving] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  if (!permits(data.desk, 'everything')) return null;
  const move = async (step: (typeof STEPS)[number]) => {
    setMoving(true);
    const answer = await ask<ClockMoved>('POST', 'clock', step);
    setProblem(answer.ok ? null : answer.title);
    await reloadSite();
    onMoved();
    setMoving(false);
  };
  return (
    <div className="grid gap-1">
      {/* biome-ignore lint/a11y/useSemanticElements: a fieldset can't be laid out in a row everywhere */}
      <div
        role="group"
        aria-label="Move the clock on"
        title="For the demo: what a till does in that time is watched at once"
        className="flex items-center gap-1.5"
      >
        <span className="text-quiet">
          {moving ? 'Moving the clock on …' : <time dateTime={request.today}>{request.today}</time>}
        </span>
        {STEPS.map((step) => (
          <Button key={step} disabled={moving} onClick={() => void move(step)}>
            {step}
          </Button>
        ))}
      </div>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
    </div>
  );
}
