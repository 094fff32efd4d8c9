/**
 * Looking at an address of the site: what core decided, turned into exactly what the visitor may have. Whatever is
 * withheld does not get into the value that this answers, so nothing after it can leak it.
 */
import {
  type Address,
  type Addressed,
  arrivalFrom,
  type CompiledPolicy,
  type Day,
  dependsOnVisitor,
  type File,
  type ItemId,
  normaliseAddress,
  pathOf,
  type SectionType,
  sectionsOf,
  type TurnedAway,
} from '@/core';
import { type Entry, entryOf, pictureOf, postsOf, type ShownPicture, teaserOf } from './entry';
import { type Frame, frameFor } from './frame';
import { addressIn, decisionOn, type Look } from './look';
import { type SectionView, sectionViews } from './section-view';
import { passphraseAddress, type Step, signInAddress, stepFor } from './step';
import { contentOf, htmlIn, isSameForEveryone, summaryOf } from './texts';

/** What is told of a page in its head: for other sites that link to it, and for search engines. */
export interface PageFacts {
  readonly kind: 'page' | 'post' | 'file';
  readonly title: string;
  readonly date: Day | null;
  readonly author: string | null;
  readonly category: string | null;
  readonly tags: readonly string[];
}

/** What an address gives a visitor. */
export type PageAnswer =
  | {
      readonly kind: 'page';
      readonly frame: Frame;
      readonly facts: PageFacts;
      readonly summary: string;
      readonly picture: ShownPicture | null;
      readonly sections: readonly SectionView[];
      readonly address: Address;
      /** The posts before and after it in its category, those that this visitor gets. */
      readonly neighbours: { readonly previous: Entry | null; readonly next: Entry | null } | null;
      /** Whether every visitor gets these same bytes. */
      readonly sameForEveryone: boolean;
    }
  | {
      readonly kind: 'teaser';
      readonly frame: Frame;
      readonly facts: PageFacts;
      readonly text: string;
      readonly coarse: string | null;
      readonly reason: string | null;
      readonly step: Step | null;
      readonly address: string;
    }
  | {
      readonly kind: 'message';
      readonly frame: Frame;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | { readonly kind: 'redirect'; readonly to: string }
  /** An address that the item had before; not a decision. */
  | { readonly kind: 'moved'; readonly to: string }
  | { readonly kind: 'missing'; readonly frame: Frame };

/** What a visitor gets at a path as it came in the request. */
export function viewPage(look: Look, path: string): PageAnswer {
  const address = normaliseAddress(path);
  const item = address === null ? undefined : look.state.outline.addressed.get(address);
  if (!item) return (address && moved(look, address)) || missingFor(look);
  const decision = decisionOn(look, item.id);
  if (decision.kind === 'turned away') return turnedAway(look, item, decision);
  return {
    kind: 'page',
    frame: frameFor(look, item.id),
    facts: factsOf(item),
    summary: summaryOf(look.state, look.compiled, item.id),
    picture: pictureOf(look, item.facts?.picture ?? null),
    sections: sectionViews(look, item.id, item.address),
    address: item.address,
    neighbours: item.kind === 'post' ? neighboursOf(look, item) : null,
    sameForEveryone: isSame(look, item),
  };
}

const missingFor = (look: Look): PageAnswer => ({ kind: 'missing', frame: frameFor(look, null) });

/** What is told of an item that is open or teased. */
export const factsOf = (item: Addressed | File): PageFacts => ({
  kind: item.kind,
  title: item.title,
  date: item.facts?.date ?? null,
  author: item.facts?.author ?? null,
  category: item.facts?.category ?? null,
  tags: item.facts?.tags ?? [],
});

/** Where an item is that had this address before; nothing to those for whom it is missing. */
function moved(look: Look, address: Address): PageAnswer | null {
  const id = look.state.oldAddresses.get(address);
  const item = id && look.state.outline.items.get(id);
  const path = pathOf(item || undefined);
  if (!item || path === null) return null;
  const decision = decisionOn(look, item.id);
  const told = decision.kind === 'open' || decision.turnAway.kind !== 'missing';
  return told ? { kind: 'moved', to: addressIn(look, path) } : null;
}

/** What is given for a page, a post or a file in place of itself. */
export function turnedAway(look: Look, item: Addressed | File, decision: TurnedAway): PageAnswer {
  const { turnAway, reason } = decision;
  const address = pathOf(item) ?? '/';
  switch (turnAway.kind) {
    case 'teaser':
      return {
        kind: 'teaser',
        frame: frameFor(look, item.id),
        facts: factsOf(item),
        ...teaserOf(look, item.id, decision, address),
        address,
      };
    case 'message':
      return {
        kind: 'message',
        frame: frameFor(look, null),
        reason,
        step: stepFor(look, turnAway.next, address),
      };
    case 'redirect':
      switch (turnAway.to.kind) {
        case 'sign in':
          return { kind: 'redirect', to: signInAddress(look, address) };
        case 'passphrase':
          return { kind: 'redirect', to: passphraseAddress(look, address) };
        case 'outside':
          return { kind: 'redirect', to: turnAway.to.url };
        case 'item': {
          const path = pathOf(look.state.outline.items.get(turnAway.to.item));
          const arrival = arrivalFrom(look.compiled, item.id, look.facts, look.request);
          // A redirect to nowhere, or round in a circle, would never arrive.
          return path === null || arrival.end === null
            ? missingFor(look)
            : { kind: 'redirect', to: addressIn(look, path) };
        }
        default:
          return turnAway.to satisfies never;
      }
    case 'missing':
    case 'leave out':
    case 'swap':
    case 'locked':
      return missingFor(look);
    default:
      return turnAway satisfies never;
  }
}

function neighboursOf(look: Look, post: Addressed) {
  const list = postsOf(look.state, { category: post.facts?.category ?? null });
  const at = list.findIndex(({ id }) => id === post.id);
  const nearest = (step: 1 | -1): Entry | null => {
    for (let place = at + step; at >= 0 && place >= 0 && place < list.length; place += step) {
      const other = list[place];
      const entry = other && entryOf(look, other);
      if (entry) return entry;
    }
    return null;
  };
  return { previous: nearest(1), next: nearest(-1) };
}

const VARYING: readonly SectionType[] = ['posts', 'files', 'follow', 'account', 'call'];

// By policy, and below that by item: the menus, under the root, are part of every page.
const sameness = new WeakMap<CompiledPolicy, Map<ItemId, boolean>>();

/** Whether everybody gets the same at an address: neither the page nor anything on it or around it depends on who asks. */
function isSame({ state, compiled }: Look, item: Addressed): boolean {
  const known = sameness.get(compiled) ?? new Map<ItemId, boolean>();
  sameness.set(compiled, known);
  const remember = (id: ItemId, find: () => boolean): boolean => {
    const same = known.get(id) ?? find();
    known.set(id, same);
    return same;
  };
  const { outline } = state;
  const varies = (id: ItemId | null | undefined) => Boolean(id) && dependsOnVisitor(compiled, id as ItemId);
  const menus = () =>
    ![...outline.items.values()].some(
      ({ kind, id }) => (kind === 'menu' || kind === 'link') && dependsOnVisitor(compiled, id),
    );
  const page = () =>
    item.kind === 'page' &&
    !varies(item.id) &&
    !varies(item.facts?.picture) &&
    sectionsOf(outline, item.id).every((section) => {
      const { body, section: more } = contentOf(state, section.id);
      return (
        !VARYING.includes(section.type) &&
        !varies(section.id) &&
        !(more && 'file' in more && varies(more.file as ItemId | null)) &&
        isSameForEveryone(compiled, body)
      );
    });
  return remember(outline.root, menus) && remember(item.id, page);
}

/** The text that stands beside the sign-in form, as HTML; empty when the site has none. */
export const signInNote = (look: Look): string =>
  htmlIn(look, contentOf(look.state, look.state.outline.root).body);
