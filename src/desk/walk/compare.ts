/**
 * Two pages of a walk beside each other: which of their smallest blocks have no counterpart in the other, and which are the
 * same, so that one can be marked and the other scrolled to.
 */

const BLOCKS =
  'h1,h2,h3,h4,h5,h6,p,li,dt,dd,td,th,figure,figcaption,blockquote,pre,label,legend,summary,button,a,img,video,input,select,textarea';

/** The blocks that hold no other block, in the order of the page; links within a text belong to it. */
function leavesOf(page: Document): readonly HTMLElement[] {
  return [...page.body.querySelectorAll<HTMLElement>(BLOCKS)].filter((one) => {
    const inText =
      one.matches('a,img,button') && one.parentElement?.closest('p,li,dt,dd,td,th,figcaption,label');
    if (inText && !inText.querySelector('p,li,dt,dd,td,th')) return false;
    return [...one.querySelectorAll(BLOCKS)].every((inner) => inner.matches('a,img,button'));
  });
}

/** The same for blocks that a visitor would take for the same. Addresses are read without the walk's own part. */
function keyOf(block: HTMLElement, base: string): string {
  const addresses = [block, ...block.querySelectorAll<HTMLElement>('[href],[src]')].flatMap((one) => {
    const address = one.getAttribute('href') ?? one.getAttribute('src');
    return address === null ? [] : [address.startsWith(base) ? address.slice(base.length) : address];
  });
  return JSON.stringify([block.tagName, (block.textContent ?? '').replace(/\s+/g, ' ').trim(), addresses]);
}

/** A page with the address that its walk begins with. */
export interface WalkedPage {
  readonly page: Document;
  readonly base: string;
}

export interface Comparison {
  /** Blocks of each page that the other has not. */
  readonly apart: readonly [readonly HTMLElement[], readonly HTMLElement[]];
  /** The counterpart of a block in the other page. */
  readonly counterpart: ReadonlyMap<HTMLElement, HTMLElement>;
}

/** Compares two pages. Blocks that stand on both, however often, are paired in order. */
export function compared(a: WalkedPage, b: WalkedPage): Comparison {
  const waiting = new Map<string, HTMLElement[]>();
  for (const block of leavesOf(b.page)) {
    const key = keyOf(block, b.base);
    waiting.set(key, [...(waiting.get(key) ?? []), block]);
  }
  const counterpart = new Map<HTMLElement, HTMLElement>();
  const onlyA: HTMLElement[] = [];
  for (const block of leavesOf(a.page)) {
    const other = waiting.get(keyOf(block, a.base))?.shift();
    if (other) {
      counterpart.set(block, other);
      counterpart.set(other, block);
    } else onlyA.push(block);
  }
  return { apart: [onlyA, [...waiting.values()].flat()], counterpart };
}

const MARK = 'differs';

/** Marks blocks, and takes away the marks of before. */
export function mark(page: Document, blocks: readonly HTMLElement[]): void {
  for (const old of page.querySelectorAll<HTMLElement>(`[data-${MARK}]`)) {
    delete old.dataset[MARK];
    old.style.removeProperty('outline');
    old.style.removeProperty('outline-offset');
  }
  for (const block of [...blocks, ...new Set(blocks.flatMap((one) => foldOf(one) ?? []))]) {
    block.dataset[MARK] = '';
    block.style.outline = '2px solid #b4532a';
    block.style.outlineOffset = '3px';
  }
}

/** The button behind which a block is folded away, on a narrow page. */
function foldOf(block: HTMLElement): HTMLElement | null {
  const fold = block.closest('[popover]');
  if (!fold?.id || fold.checkVisibility()) return null;
  return block.ownerDocument.querySelector(`[popovertarget="${CSS.escape(fold.id)}"]`);
}

/**
 * Scrolls one page so that the first block in view that both have stands as high in it as in the other; where there is none,
 * to the same share of the page.
 */
export function scrollAlong(from: Window, to: Window, { counterpart }: Comparison): void {
  for (const [block, other] of counterpart) {
    if (block.ownerDocument !== from.document) continue;
    if (!block.checkVisibility() || !other.checkVisibility()) continue;
    const { top, bottom } = block.getBoundingClientRect();
    if (bottom < 0 || top > from.innerHeight) continue;
    to.scrollBy({ top: other.getBoundingClientRect().top - top, behavior: 'instant' });
    return;
  }
  const room = (page: Window) => page.document.documentElement.scrollHeight - page.innerHeight;
  to.scrollTo({ top: (from.scrollY / Math.max(1, room(from))) * room(to), behavior: 'instant' });
}
