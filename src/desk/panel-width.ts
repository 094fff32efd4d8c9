/** How wide the workbench beside the board can be, in pixels, and how far an arrow key moves its edge. */
export const PANEL = { least: 380, begin: 464, most: 760, step: 24 } as const;

export const withinPanel = (width: number): number =>
  Math.min(PANEL.most, Math.max(PANEL.least, Math.round(width)));

/** The width that a browser was left with; read on the server as well, so that nothing jumps. */
export const panelWidthIn = (cookie: string | undefined): number =>
  /^\d{3,4}$/.test(cookie ?? '') ? withinPanel(Number(cookie)) : PANEL.begin;
