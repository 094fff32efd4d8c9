/** What stands around every page: the site's title and its menus, as this visitor gets them. */
import {
  type Addressed,
  type CompiledPolicy,
  type Item,
  type ItemId,
  isAddressed,
  type Link,
  type Menu,
  type MenuPlace,
  type Outline,
  pathOf,
  SPOTS,
  siteTitleOf,
} from '@/core';
import { coloursAt } from './colours-at';
import { addressIn, decisionOn, opens, type View } from './context';
import { Kept } from './kept';
import { Recording } from './recording';
import { type SectionView, type SharedViews, sharedViews } from './section-view';
import { signInAddress, signUpAddress } from './step';
import { htmlIn } from './texts';

/** A link of a menu that this visitor gets, with those nested in it. */
export interface MenuLink {
  readonly id: ItemId;
  readonly title: string;
  readonly to:
    | { readonly kind: 'address'; readonly address: string; readonly current: boolean }
    | { readonly kind: 'outside'; readonly url: string }
    | { readonly kind: 'sign out'; readonly address: string }
    /** Shown, and leading nowhere, with the reason if it may be told. */
    | { readonly kind: 'locked'; readonly reason: string | null };
  readonly links: readonly MenuLink[];
}

export interface ShownMenu {
  readonly id: ItemId;
  readonly title: string;
  readonly links: readonly MenuLink[];
}

export interface Frame {
  readonly siteTitle: string;
  /** The language of the site (BCP 47). */
  readonly language: string;
  /** Where the picture before its name is; null for none, or one that is closed to this visitor. */
  readonly picture: string | null;
  /** Where the colours are that it has of its own; null for none. */
  readonly colours: string | null;
  /** What stands at the foot, and where nothing is, in HTML. */
  readonly foot: string;
  readonly missing: string;
  /** Where the first page is. */
  readonly home: string;
  readonly search: string;
  readonly menus: Readonly<Record<MenuPlace, readonly ShownMenu[]>>;
  /** The sections that many pages share, at their spots. */
  readonly shared: SharedViews;
}

const kept = new WeakMap<CompiledPolicy, Kept<Frame>>();

/** In bytes, by a rough account: what menus take that were made before. */
const MOST_KEPT = 16_000_000;
const bytesOf = ({ menus, shared }: Frame): number =>
  1000 +
  400 * (linksIn(menus.top) + linksIn(menus.side) + linksIn(menus.foot)) +
  SPOTS.reduce((sum, spot) => sum + shared[spot].reduce((all, one) => all + sizeOf(one), 0), 0);
/** Twice: once as it is here, once drawn. */
const sizeOf = (view: SectionView): number => 1000 + ('html' in view ? 4 * view.html.length : 4000);
const linksIn = (menus: readonly { readonly links: readonly MenuLink[] }[]): number =>
  menus.reduce((sum, { links }) => sum + links.length + linksIn(links), 0);

/**
 * The frame for a page, or for none (`null`): menus say where one is only if one is somewhere. `host` is the page where it
 * is open to the visitor; to whoever is turned away from it, nothing of what stands on it is shown. Whoever gives the same
 * answers gets the same one: what was made of it can be found by it.
 */
export function frameFor(view: View, current: ItemId | null, host: Addressed | null = null): Frame {
  // On a walk every address is the walk's own.
  if (view.base !== '') return madeFrame(view, current, host);
  const frames = kept.get(view.compiled) ?? new Kept(MOST_KEPT, bytesOf);
  kept.set(view.compiled, frames);
  const root = host === null ? (current ?? '') : `on ${current}`;
  const found = frames.find(root, view);
  if (found) return found;
  const recording = new Recording(view);
  const made = madeFrame(recording, current, host);
  if (!recording.isPersonal) frames.keep(view.compiled, root, recording.trail, made);
  return made;
}

function madeFrame(context: View, current: ItemId | null, host: Addressed | null): Frame {
  const { outline } = context.state;
  const menus = (outline.children.get(outline.root) ?? []).filter(
    (item): item is Menu => item.kind === 'menu',
  );
  const at = (place: MenuPlace): readonly ShownMenu[] =>
    menus
      .filter((menu) => menu.place === place && decisionOn(context, menu.id).kind === 'open')
      .filter((menu) => place !== 'side' || (current !== null && leadsTo(outline, menu.id, current)))
      .map((menu) => ({ id: menu.id, title: menu.title, links: linksBelow(context, menu.id, current) }))
      .filter(({ links }) => links.length > 0);
  const { look, words, language } = context.state.settings;
  const picture = look?.picture ? outline.items.get(look.picture) : undefined;
  return {
    siteTitle: siteTitleOf(outline),
    language,
    picture:
      picture?.kind === 'file' && picture.mediaType.startsWith('image/') && opens(context, picture.id)
        ? addressIn(context, pathOf(picture) ?? '/')
        : null,
    colours: look === null ? null : coloursAt(look),
    foot: words.foot === '' ? '' : htmlIn(context, words.foot),
    missing: words.missing === '' ? '' : htmlIn(context, words.missing),
    home: `${context.base}/`,
    search: `${context.base}/search`,
    menus: { top: at('top'), side: at('side'), foot: at('foot') },
    shared: sharedViews(context, host),
  };
}

/** A side menu stands beside the pages that it leads to. */
const leadsTo = (outline: Outline, above: ItemId, page: ItemId): boolean =>
  (outline.children.get(above) ?? []).some(
    (item) =>
      item.kind === 'link' &&
      ((item.target.kind === 'item' && item.target.item === page) || leadsTo(outline, item.id, page)),
  );

function linksBelow(context: View, above: ItemId, current: ItemId | null): readonly MenuLink[] {
  return (context.state.outline.children.get(above) ?? []).flatMap((item): MenuLink[] => {
    if (item.kind !== 'link') return [];
    const decision = decisionOn(context, item.id);
    if (decision.kind === 'turned away') {
      // What is below a link that is closed is closed as well.
      return decision.turnAway.kind === 'locked'
        ? [{ id: item.id, title: item.title, to: { kind: 'locked', reason: decision.reason }, links: [] }]
        : [];
    }
    const to = destination(context, item, current);
    return to ? [{ id: item.id, title: item.title, to, links: linksBelow(context, item.id, current) }] : [];
  });
}

function destination(context: View, { target }: Link, current: ItemId | null): MenuLink['to'] | null {
  const { outline } = context.state;
  const here: Item | undefined = current === null ? undefined : outline.items.get(current);
  const back = isAddressed(here) ? here.address : null;
  switch (target.kind) {
    case 'outside':
      return target;
    case 'sign out':
      return { kind: 'sign out', address: `${context.base}/sign-out` };
    case 'sign in':
      return { kind: 'address', address: signInAddress(context, back), current: false };
    case 'sign up':
      return { kind: 'address', address: signUpAddress(context, back), current: false };
    case 'item': {
      const path = pathOf(outline.items.get(target.item));
      return path === null
        ? null
        : { kind: 'address', address: addressIn(context, path), current: target.item === current };
    }
    default:
      return target satisfies never;
  }
}
