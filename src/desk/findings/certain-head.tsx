'use client';
/** The head of the three screens that say what is certain, with the way from each to the others. */
import type { ReactNode } from 'react';
import { useDesk } from '../context';
import { screenNamed, startOf } from '../screens';
import { addressOfView, viewOf } from '../view';

const SCREENS = ['findings', 'kinds', 'ahead'] as const;

interface HeadProps {
  readonly note: ReactNode;
  readonly children?: ReactNode;
}

export function CertainHead({ note, children }: HeadProps) {
  const { screen, setScreen } = useDesk();
  return (
    <header className="flex items-start justify-between gap-4">
      <div>
        <nav aria-label="What is certain" className="flex items-baseline gap-4">
          {SCREENS.map((kind) => {
            const { title } = screenNamed(kind);
            return kind === screen.kind ? (
              <h2 key={kind} className="text-xl">
                {title}
              </h2>
            ) : (
              <a
                key={kind}
                href={addressOfView(viewOf(startOf(kind)))}
                onClick={(event) => {
                  if ((['Control', 'Meta', 'Shift'] as const).some((key) => event.getModifierState(key)))
                    return;
                  event.preventDefault();
                  setScreen(startOf(kind));
                }}
                className="text-quiet hover:text-copper"
              >
                {title}
              </a>
            );
          })}
        </nav>
        <p className="note">{note}</p>
      </div>
      <span className="flex shrink-0 items-center gap-1.5">{children}</span>
    </header>
  );
}
