'use client';
/** One walk in a frame. Where its links lead, whoever holds the frame decides; its own scripts never run. */
import { useEffect, useRef } from 'react';

interface WalkFrameProps {
  readonly token: string;
  readonly title: string;
  /** The address to show. */
  readonly at: string;
  /** A link or a search was followed. */
  readonly onGo: (address: string) => void;
  /** The page is there, or gone (null). */
  readonly onPage: (page: Window | null) => void;
}

export const baseOf = (token: string): string => `/walk/${token}`;

export function WalkFrame({ token, title, at, onGo, onPage }: WalkFrameProps) {
  const frame = useRef<HTMLIFrameElement>(null);
  const base = baseOf(token);
  const shown = useRef(at);
  const first = useRef(base + at);

  useEffect(() => {
    if (shown.current === at) return;
    shown.current = at;
    onPage(null);
    // Replaced, so that Back is the desk's and goes back in both frames at once.
    frame.current?.contentWindow?.location.replace(base + at);
  }, [at, base, onPage]);

  const seen = useRef<Document | null>(null);
  const loaded = () => {
    const page = frame.current?.contentWindow;
    if (!page?.document.body || !page.location.pathname.startsWith(base)) return;
    if (seen.current === page.document) return;
    seen.current = page.document;
    page.document.addEventListener('click', (event) => {
      const link = (event.target as Element | null)?.closest?.('a[href]');
      const address = link && ownAddress(link.getAttribute('href'), page, base);
      if (!address || event.ctrlKey || event.shiftKey || event.getModifierState('Meta')) return;
      if (new URL(address, page.location.href).hash && address.startsWith('#')) return;
      event.preventDefault();
      onGo(address);
    });
    page.document.addEventListener('submit', (event) => {
      const form = event.target as HTMLFormElement;
      if (form.method !== 'get') return;
      const address = ownAddress(form.getAttribute('action') ?? '', page, base);
      if (!address) return;
      event.preventDefault();
      const query = new URLSearchParams();
      for (const [name, value] of new FormData(form)) if (typeof value === 'string') query.set(name, value);
      onGo(`${address.split('?')[0]}?${query}`);
    });
    onPage(page);
  };

  // The frame may have loaded before there was anybody to hear of it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the first time that matters
  useEffect(() => {
    if (frame.current?.contentDocument?.readyState === 'complete') loaded();
  }, []);

  return (
    <iframe
      ref={frame}
      title={title}
      src={first.current}
      // Nothing in it runs. Forms go to the walk, which says what they would do.
      sandbox="allow-same-origin allow-forms"
      className="min-h-0 flex-1 bg-white"
      onLoad={loaded}
    />
  );
}

/** The address on the site that a link of a walk leads to; null for one that leads elsewhere or within the page. */
function ownAddress(href: string | null, page: Window, base: string): string | null {
  if (href === null || href.startsWith('#') || !URL.canParse(href, page.location.href)) return null;
  const url = new URL(href, page.location.href);
  if (url.origin !== page.location.origin || !`${url.pathname}/`.startsWith(`${base}/`)) return null;
  return (url.pathname.slice(base.length) || '/') + url.search + url.hash;
}
