/** Rendering to text. */
import type { ReactNode } from 'react';
import type { renderToStaticMarkup } from 'react-dom/server';

let render: typeof renderToStaticMarkup | null = null;

/**
 * Loads the renderer, once. The site's pages are whole documents without scripts or embedded data, so they are rendered to text
 * in a route handler; the framework allows the renderer there only when it is loaded dynamically.
 */
export async function rendererReady(): Promise<void> {
  render ??= (await import('react-dom/server')).renderToStaticMarkup;
}

/** Markup of an element, or of a part of one. Throws before `rendererReady` has settled. */
export function markupOf(element: ReactNode): string {
  if (!render) throw new Error('The renderer is not loaded yet.');
  return render(element);
}
