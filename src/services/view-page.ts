/**
 * Looking at an address of the site: what core decided, turned into exactly what the visitor may have. Whatever is
 * withheld does not get into the value that this answers, so nothing after it can leak it.
 */
import {
  type Address,
  type CompiledPolicy,
  decide,
  dependsOnVisitor,
  type Item,
  type ItemId,
  type LinkTarget,
  type NextStep,
  normaliseAddress,
  type Page,
  type RequestFacts,
  type TurnedAway,
  type VisitorFacts,
} from '@/core';
import type { Content } from '@/store';
import { BASE_MARK, htmlOf } from './markdown';
import type { SiteState } from './site-state';

/** A link of the menu that this visitor gets, with those nested in it. */
export interface MenuLink {
  readonly title: string;
  readonly to:
    | { readonly kind: 'address'; readonly address: string; readonly current: boolean }
    | { readonly kind: 'outside'; readonly url: string }
    | { readonly kind: 'sign out'; readonly address: string };
  readonly links: readonly MenuLink[];
}

/** The step that a teaser or a message offers, with everything needed to draw it. */
export type Step =
  | { readonly kind: 'sign in'; readonly address: string }
  | { readonly kind: 'passphrase'; readonly address: string }
  | { readonly kind: 'item'; readonly title: string; readonly address: string };

/** What stands around every page. */
export interface Frame {
  readonly siteTitle: string;
  readonly menu: readonly MenuLink[];
}

/** What an address gives a visitor. */
export type PageAnswer =
  | {
      readonly kind: 'page';
      readonly frame: Frame;
      readonly title: string;
      readonly summary: string;
      readonly html: string;
      /** Whether the text brings a first heading of its own, in place of the title. */
      readonly hasOwnHeading: boolean;
      readonly address: Address;
      /** Whether every visitor gets these same bytes. */
      readonly sameForEveryone: boolean;
    }
  | {
      readonly kind: 'teaser';
      readonly frame: Frame;
      readonly title: string;
      readonly text: string;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | {
      readonly kind: 'message';
      readonly frame: Frame;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | { readonly kind: 'redirect'; readonly to: string }
  | { readonly kind: 'missing'; readonly frame: Frame };

/** Who is looking, under which policy. */
export interface Look {
  readonly state: SiteState;
  readonly compiled: CompiledPolicy;
  readonly facts: VisitorFacts;
  readonly request: RequestFacts;
  /** What stands before every address: nothing on the site, the walk's own address on a walk. */
  readonly base: string;
}

/** What a visitor gets at a path as it came in the request. */
export function viewPage(look: Look, path: string): PageAnswer {
  const address = normaliseAddress(path);
  const item = address === null ? undefined : look.state.outline.pages.get(address);
  if (!item) return { kind: 'missing', frame: frameFor(look, null) };
  const decision = decide(look.compiled, item.id, look.facts, look.request);
  if (decision.kind === 'turned away') return turnedAway(look, item, decision);
  const content = contentOf(look.state, item.id);
  const html = rendered(content);
  return {
    kind: 'page',
    frame: frameFor(look, item.id),
    title: item.title,
    summary: content.summary,
    html: html.replaceAll(BASE_MARK, look.base),
    hasOwnHeading: html.startsWith('<h1'),
    address: item.address,
    sameForEveryone: !dependsOnVisitor(look.compiled, item.id) && !menuDependsOnVisitor(look),
  };
}

function turnedAway(look: Look, item: Page, { turnAway, reason }: TurnedAway): PageAnswer {
  const { state } = look;
  switch (turnAway.kind) {
    case 'teaser':
      return {
        kind: 'teaser',
        frame: frameFor(look, item.id),
        title: item.title,
        text: turnAway.text ?? contentOf(state, item.id).summary,
        reason,
        step: stepFor(look, turnAway.next, item),
      };
    case 'message':
      return {
        kind: 'message',
        frame: frameFor(look, null),
        reason,
        step: stepFor(look, turnAway.next, item),
      };
    case 'redirect': {
      if (turnAway.to.kind === 'sign in') return { kind: 'redirect', to: signInAddress(look, item.address) };
      if (turnAway.to.kind === 'passphrase')
        return { kind: 'redirect', to: passphraseAddress(look, item.address) };
      const target = state.outline.items.get(turnAway.to.item);
      // A redirect to nowhere, or to where it started, would never arrive.
      if (target?.kind !== 'page' || target.id === item.id)
        return { kind: 'missing', frame: frameFor(look, null) };
      return { kind: 'redirect', to: look.base + encodeURI(target.address) };
    }
    case 'missing':
    case 'leave out':
      return { kind: 'missing', frame: frameFor(look, null) };
    default:
      return turnAway satisfies never;
  }
}

/** The address of the sign-in page that leads back to another. */
const signInAddress = ({ base }: Look, back: string | null): string =>
  `${base}/sign-in${back === null ? '' : `?next=${encodeURIComponent(back)}`}`;

/** The address of the page where a passphrase is typed, which leads back to another. */
const passphraseAddress = ({ base }: Look, back: string): string =>
  `${base}/passphrase?next=${encodeURIComponent(back)}`;

function stepFor(look: Look, next: NextStep, from: Page): Step | null {
  switch (next.kind) {
    case 'none':
      return null;
    case 'sign in':
      return look.facts.signedIn ? null : { kind: 'sign in', address: signInAddress(look, from.address) };
    case 'passphrase':
      return { kind: 'passphrase', address: passphraseAddress(look, from.address) };
    case 'item': {
      const target = look.state.outline.items.get(next.item);
      const leads =
        target?.kind === 'page' && decide(look.compiled, target.id, look.facts, look.request).kind === 'open';
      return leads
        ? { kind: 'item', title: target.title, address: look.base + encodeURI(target.address) }
        : null;
    }
    default:
      return next satisfies never;
  }
}

/** The frame for a page, or for none (`null`): the menu says where one is only if one is somewhere. */
export function frameFor(look: Look, current: ItemId | null): Frame {
  const { outline } = look.state;
  const menus = (outline.children.get(outline.root) ?? []).filter((item) => item.kind === 'menu');
  return {
    siteTitle: outline.items.get(outline.root)?.title ?? '',
    menu: menus.filter((menu) => opens(look, menu)).flatMap((menu) => linksBelow(look, menu.id, current)),
  };
}

const opens = (look: Look, item: Item): boolean =>
  decide(look.compiled, item.id, look.facts, look.request).kind === 'open';

function linksBelow(look: Look, above: ItemId, current: ItemId | null): readonly MenuLink[] {
  const { outline } = look.state;
  return (outline.children.get(above) ?? []).flatMap((item): MenuLink[] => {
    if (item.kind !== 'link' || !opens(look, item)) return [];
    const links = linksBelow(look, item.id, current);
    const { target } = item;
    const to = destination(look, target, current);
    return to ? [{ title: item.title, to, links }] : [];
  });
}

function destination(look: Look, target: LinkTarget, current: ItemId | null): MenuLink['to'] | null {
  const { outline } = look.state;
  switch (target.kind) {
    case 'outside':
      return target;
    case 'sign out':
      return { kind: 'sign out', address: `${look.base}/sign-out` };
    case 'sign in': {
      const back = current === null ? undefined : outline.items.get(current);
      const address = signInAddress(look, back?.kind === 'page' ? back.address : null);
      return { kind: 'address', address, current: false };
    }
    case 'item': {
      const page = outline.items.get(target.item);
      if (page?.kind !== 'page') return null;
      return { kind: 'address', address: look.base + encodeURI(page.address), current: page.id === current };
    }
    default:
      return target satisfies never;
  }
}

function menuDependsOnVisitor({ state: { outline }, compiled }: Look): boolean {
  return [...outline.items.values()].some(
    (item) => (item.kind === 'menu' || item.kind === 'link') && dependsOnVisitor(compiled, item.id),
  );
}

/** The text that stands beside the sign-in form, as HTML; empty when the site has none. */
export const signInNote = ({ state, base }: Look): string =>
  rendered(contentOf(state, state.outline.root)).replaceAll(BASE_MARK, base);

const nothing: Content = { summary: '', body: '' };
const contentOf = (state: SiteState, id: ItemId): Content => state.contents.get(id) ?? nothing;

// Rendered once per text and for as long as the text is in memory.
const renderings = new WeakMap<Content, string>();
function rendered(content: Content): string {
  const html = renderings.get(content) ?? htmlOf(content.body);
  renderings.set(content, html);
  return html;
}
