'use client';
import { type KeyboardEvent, type PointerEvent, useState } from 'react';
import { PANEL, withinPanel } from './panel-width';

/** How wide the workbench is, kept for a year in a cookie of the desk. */
export function usePanelWidth(initial: number): readonly [number, (width: number) => void] {
  const [width, setWidth] = useState(initial);
  const set = (next: number) => {
    const kept = withinPanel(next);
    setWidth(kept);
    // biome-ignore lint/suspicious/noDocumentCookie: the cookie store is not in every browser yet
    document.cookie = `trivet_panel=${kept}; path=/desk; max-age=31536000; samesite=lax`;
  };
  return [width, set];
}

interface PanelEdgeProps {
  readonly width: number;
  readonly onChange: (width: number) => void;
}

/** The edge between the board and the workbench: moved by dragging or with the arrow keys, put back by a double click. */
export function PanelEdge({ width, onChange }: PanelEdgeProps) {
  const drag = (event: PointerEvent<HTMLElement>) => {
    if (event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId))
      onChange(window.innerWidth - event.clientX);
  };
  const step = (event: KeyboardEvent) => {
    const by: Readonly<Record<string, number>> = {
      ArrowLeft: width + PANEL.step,
      ArrowRight: width - PANEL.step,
      Home: PANEL.most,
      End: PANEL.least,
    };
    const next = by[event.key];
    if (next === undefined) return;
    event.preventDefault();
    onChange(next);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a line that is moved is no rule between texts
    <div
      role="separator"
      tabIndex={0}
      aria-label="Width of the workbench"
      aria-orientation="vertical"
      aria-valuenow={width}
      aria-valuemin={PANEL.least}
      aria-valuemax={PANEL.most}
      title="Drag, or use the arrow keys"
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={drag}
      onKeyDown={step}
      onDoubleClick={() => onChange(PANEL.begin)}
      className="-ml-1 absolute top-0 bottom-0 left-0 z-20 w-2 cursor-col-resize touch-none hover:bg-copper/30 focus-visible:bg-copper/30 print:hidden"
    />
  );
}
