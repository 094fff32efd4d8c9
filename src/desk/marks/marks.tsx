/**
 * The marks: one family of small drawings. A trivet seen from above is a ring on three feet; what stands on it is what
 * the visitor gets. Shape carries the meaning, colour only repeats it.
 */
import type { ReactNode } from 'react';
import type { ItemKind, Outcome } from '@/core';

interface MarkProps {
  /** Edge of the drawing in pixels. */
  readonly size?: number;
}

const SHAPES: Record<Outcome, ReactNode> = {
  // The ring is full.
  open: <circle cx="10" cy="10" r="6.5" fill="currentColor" />,
  // Half of it is on the table.
  teaser: (
    <>
      <circle cx="10" cy="10" r="5.75" fill="none" stroke="currentColor" strokeWidth="1.5" />
      <path d="M4.25 10a5.75 5.75 0 0 0 11.5 0Z" fill="currentColor" />
    </>
  ),
  // The way bends off.
  redirect: (
    <>
      <path d="M4.5 16.5V12A5 5 0 0 1 9.500 7H12" fill="none" stroke="currentColor" strokeWidth="2" />
      <path d="M11.500 2.750 17 7l-5.500 4.250Z" fill="currentColor" />
    </>
  ),
  // A plate with a line of writing.
  message: (
    <>
      <rect
        x="3"
        y="5"
        width="14"
        height="10"
        rx="1.500"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.500"
      />
      <path d="M6 10h8" stroke="currentColor" strokeWidth="1.750" />
    </>
  ),
  // Only the three feet, nothing on them.
  missing: (
    <>
      <circle cx="10" cy="5" r="1.500" fill="currentColor" />
      <circle cx="5.250" cy="13.250" r="1.500" fill="currentColor" />
      <circle cx="14.750" cy="13.250" r="1.500" fill="currentColor" />
    </>
  ),
  // The others close up around the place.
  'leave out': (
    <path d="M4 10h3.500M12.500 10H16" stroke="currentColor" strokeWidth="1.750" strokeLinecap="round" />
  ),
  // Another shape stands on the feet.
  swap: <path d="M10 3.250 16.750 10 10 16.750 3.250 10Z" fill="currentColor" />,
  // A bar lies across the ring.
  locked: (
    <>
      <circle cx="10" cy="10" r="5.750" fill="none" stroke="currentColor" strokeWidth="1.500" />
      <path d="M2 10h16" stroke="currentColor" strokeWidth="3.250" />
    </>
  ),
};

const COLOURS: Record<Outcome, string> = {
  open: 'text-open',
  teaser: 'text-teaser',
  redirect: 'text-redirect',
  message: 'text-message',
  missing: 'text-missing',
  'leave out': 'text-missing',
  swap: 'text-redirect',
  locked: 'text-message',
};

/** A decision at a glance. Said in words elsewhere, so hidden from screen readers. */
export function OutcomeMark({ outcome, size = 18 }: MarkProps & { readonly outcome: Outcome }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" className={COLOURS[outcome]} aria-hidden="true">
      {SHAPES[outcome]}
    </svg>
  );
}

/** How a gate stands over a row: its own, reaching it from above, or setting others aside. */
export type GateStanding = 'own' | 'inherited' | 'instead' | 'set aside';

/** A gate over a row: a bar on three legs; solid, hollow, crossed, or struck out when it is set aside. */
export function GateMark({ standing, size = 16 }: MarkProps & { readonly standing: GateStanding }) {
  const solid = standing === 'own' || standing === 'instead';
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" fill="none" stroke="currentColor">
      {solid ? (
        <path d="M1 4.500h14M3 5v8M8 5v8M13 5v8" strokeWidth="2.500" />
      ) : (
        <path d="M1.500 3.500h13v2.500h-13ZM3 6v7M8 6v7M13 6v7" strokeWidth="1" />
      )}
      {standing === 'instead' && <path d="M1 14.500 15 1.500" stroke="var(--copper)" strokeWidth="2" />}
      {standing === 'set aside' && <path d="M0 9.500h16" strokeWidth="1.250" />}
    </svg>
  );
}

const KINDS: Record<ItemKind, ReactNode> = {
  site: <circle cx="6" cy="6" r="4" />,
  page: <path d="M2.500 1.500h7v9h-7zM4.500 4.500h3M4.500 6.500h3" />,
  post: <path d="M2.500 1.500h7v9h-7zM4.500 8.500h3M4.500 3.500h3v2.500h-3z" />,
  course: <path d="M1.500 9.500h3v-3h3v-3h3M1.500 10.500h9" />,
  unit: <path d="M2 3.500h8M2 8.500h8M4 3.500v5M8 3.500v5" />,
  activity: <path d="M2.500 2.500h7v7h-7zM4.250 6l1.500 1.500 2.250-3" />,
  section: <path d="M2.500 1v10M9.500 1v10M2.500 4h7M2.500 8h7" />,
  file: <path d="M2.500 1.500h4.500l2.500 2.500v6.500h-7zM7 1.500v2.500h2.500" />,
  menu: <path d="M1.500 3h9M1.500 6h9M1.500 9h9" />,
  link: <path d="M2 10 9.500 2.500M5 2.250h4.750V7" />,
};

/** The kind of an item. */
export function KindMark({ kind, size = 12 }: MarkProps & { readonly kind: ItemKind }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      aria-hidden="true"
      className="shrink-0 text-faint"
      fill="none"
      stroke="currentColor"
      strokeWidth="1"
    >
      {KINDS[kind]}
    </svg>
  );
}

/** Trivet's own sign: a ring on three feet. */
export function TrivetSign({ size = 22 }: MarkProps) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="text-copper">
      <circle cx="12" cy="12" r="5.500" fill="none" stroke="currentColor" strokeWidth="2.500" />
      <path
        d="M12 6.500V2M7.240 14.750 3.340 17M16.760 14.750l3.900 2.250"
        stroke="currentColor"
        strokeWidth="3"
      />
    </svg>
  );
}
