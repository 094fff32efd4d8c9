/**
 * Looking at an address of the site: what core decided, turned into exactly what the visitor may have. Whatever is
 * withheld does not get into the value that this answers, so nothing after it can leak it.
 */
import {
  type Address,
  type Addressed,
  type CompiledPolicy,
  type Day,
  dependsOnVisitor,
  type File,
  type ItemId,
  normaliseAddress,
  type OpenableKind,
  pathOf,
  placeId,
  SECTIONS,
  sectionsOf,
} from '@/core';
import { addressIn, type View } from './context';
import { type ActivityPlace, type CourseOutline, courseOutline, placeInCourse } from './course-view';
import { type Entry, entryOf, pictureOf, postsOf, type ShownPicture, teaserOf } from './entry';
import { type Frame, frameFor } from './frame';
import { type Given, givenAt, givenNowhere } from './given-at';
import { type SectionView, sectionViews } from './section-view';
import { type Step, stepFor } from './step';
import { contentOf, htmlIn, isSameForEveryone, linkedFrom, summaryOf, textsReady } from './texts';

/** What is told of a page in its head: for other sites that link to it, and for search engines. */
export interface PageFacts {
  readonly kind: OpenableKind;
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
      /** The summary that its author wrote, which stands above the text; the other one is made of the text's first words. */
      readonly lead: string;
      readonly picture: ShownPicture | null;
      readonly sections: readonly SectionView[];
      readonly address: Address;
      /** The posts before and after it in its category, those that this visitor gets. */
      readonly neighbours: { readonly previous: Entry | null; readonly next: Entry | null } | null;
      /** Of a course, and of an activity. */
      readonly course: CourseOutline | null;
      readonly activity: ActivityPlace | null;
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
      /** Of something that is locked. */
      readonly title: string | null;
      /** Made when it is drawn. */
      readonly frame: Frame;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | { readonly kind: 'redirect'; readonly to: string }
  /** An address that the item had before; not a decision. */
  | { readonly kind: 'moved'; readonly to: string }
  | { readonly kind: 'missing'; readonly frame: Frame };

/** What is given where nothing of a page is drawn. */
export type Elsewhere = Extract<PageAnswer, { kind: 'message' | 'redirect' | 'moved' | 'missing' }>;

/** The page or post at a path as it came in the request, whoever may see it. */
export function addressedAt({ state }: Pick<View, 'state'>, path: string): Addressed | null {
  const address = normaliseAddress(path);
  return (address !== null && state.outline.addressed.get(address)) || null;
}

/** What a visitor gets at a path as it came in the request. */
export function viewPage(context: View, path: string): PageAnswer {
  const item = addressedAt(context, path);
  if (!item) return nothingAt(context, path);
  const given = givenAt(context, item.id);
  return given.kind === 'open' ? whole(context, item) : insteadOf(context, item, given);
}

/** The same, with long texts read ahead so that nobody else waits for them. */
export async function viewPageInTime(context: View, path: string): Promise<PageAnswer> {
  const item = addressedAt(context, path);
  if (item && givenAt(context, item.id).kind === 'open') await textsReady(context, item.id);
  return viewPage(context, path);
}

/** The same where nothing of a page is drawn for this visitor; null where it is, or a teaser of it. */
export function elsewhere(context: View, path: string): Elsewhere | null {
  const item = addressedAt(context, path);
  if (!item) return nothingAt(context, path);
  const given = givenAt(context, item.id);
  return given.kind === 'open' || given.kind === 'teaser' ? null : turnedAwayFrom(context, item, given);
}

/** An address at which no page is: of one that was there before, or none. */
function nothingAt(context: View, path: string): Elsewhere {
  const address = normaliseAddress(path);
  return (address && moved(context, address)) || nowhere(context, path);
}

const whole = (context: View, item: Addressed): PageAnswer => ({
  kind: 'page',
  frame: frameFor(context, item.id, item),
  facts: pageFacts(item),
  summary: summaryOf(context.state, context.compiled, item.id),
  lead: contentOf(context.state, item.id).summary,
  picture: pictureOf(context, item.facts?.picture ?? null),
  sections: sectionViews(context, item.id, item.address),
  address: item.address,
  neighbours: item.kind === 'post' ? neighboursOf(context, item) : null,
  course: item.kind === 'course' ? courseOutline(context, item.id, item.address) : null,
  activity: item.kind === 'activity' ? placeInCourse(context, item.id) : null,
  sameForEveryone: isSame(context, item),
});

/** What is given where nothing is for this visitor, whatever the reason. */
export const nowhere = (context: View, path: string): Elsewhere =>
  pageOf(context, givenNowhere(context, path), normaliseAddress(path) ?? '/');

function pageOf(context: View, given: Given, address: string): Elsewhere {
  switch (given.kind) {
    case 'message': {
      const step = stepFor(context, given.next, address);
      return {
        kind: 'message',
        title: given.title,
        get frame() {
          return frameFor(context, null);
        },
        reason: given.reason,
        step,
      };
    }
    case 'redirect':
      return given;
    default:
      return {
        kind: 'missing',
        get frame() {
          return frameFor(context, null);
        },
      };
  }
}

/** What is told of an item that is open or teased. */
export const pageFacts = (item: Addressed | File): PageFacts => ({
  kind: item.kind,
  title: item.title,
  date: item.facts?.date ?? null,
  author: item.facts?.author ?? null,
  category: item.facts?.category ?? null,
  tags: item.facts?.tags ?? [],
});

/** Where an item is that had this address before; nothing to those for whom it is missing. */
function moved(context: View, address: Address): Elsewhere | null {
  const id = context.state.oldAddresses.get(address);
  const path = pathOf(id && context.state.outline.items.get(id));
  if (!id || path === null || givenAt(context, id).kind === 'missing') return null;
  return { kind: 'moved', to: addressIn(context, path) };
}

/** What is given for a page, a post or a file that is not open to this visitor. */
export const instead = (context: View, item: Addressed | File): PageAnswer =>
  insteadOf(context, item, givenAt(context, item.id));

function insteadOf(context: View, item: Addressed | File, given: Given): PageAnswer {
  if (given.kind !== 'teaser') return turnedAwayFrom(context, item, given);
  const address = pathOf(item) ?? '/';
  return {
    kind: 'teaser',
    frame: frameFor(context, item.id),
    facts: pageFacts(item),
    ...teaserOf(context, item.id, given.decision, address),
    address,
  };
}

function turnedAwayFrom(context: View, item: Addressed | File, given: Given): Elsewhere {
  const address = pathOf(item) ?? '/';
  return given.kind === 'missing' ? nowhere(context, address) : pageOf(context, given, address);
}

function neighboursOf(context: View, post: Addressed) {
  const list = postsOf(context.state, { category: post.facts?.category ?? null });
  const at = list.findIndex(({ id }) => id === post.id);
  const nearest = (step: 1 | -1): Entry | null => {
    for (let place = at + step; at >= 0 && place >= 0 && place < list.length; place += step) {
      const other = list[place];
      const entry = other && entryOf(context, other);
      if (entry) return entry;
    }
    return null;
  };
  return { previous: nearest(1), next: nearest(-1) };
}

// By policy, and below that by item: the menus, under the root, are part of every page.
const sameness = new WeakMap<CompiledPolicy, Map<ItemId, boolean>>();

/** Whether everybody gets the same at an address: neither the page nor anything on it or around it depends on who asks. */
function isSame({ state, compiled }: View, item: Addressed): boolean {
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
    [
      ...sectionsOf(outline, item.id).map((section) => [section, section.id] as const),
      ...compiled.places.on(item.id).map((section) => [section, placeId(section.id, item.id)] as const),
    ].every(([section, place]) => {
      const { body, section: more } = contentOf(state, section.id);
      return (
        !SECTIONS[section.type].varies &&
        !varies(place) &&
        !(more && 'file' in more && varies(more.file as ItemId | null)) &&
        isSameForEveryone(compiled, body) &&
        !linkedFrom(state, compiled, body).some(varies)
      );
    });
  return remember(outline.root, menus) && remember(item.id, page);
}

/** The text that stands beside the sign-in form, as HTML; empty when the site has none. */
export const signInNote = (context: View): string =>
  htmlIn(context, contentOf(context.state, context.state.outline.root).body);
