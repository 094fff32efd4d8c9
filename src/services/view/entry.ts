/** Entries of lists, feeds and searches: an item as it stands among others. Each follows its item's decision. */
import { type Day, type ItemId, type Post, type Section, sectionsOf, type TurnedAway } from '@/core';
import type { SiteState } from '../running';
import { addressIn, decisionOn, type View } from './context';
import { givenAt } from './given-at';
import { type Step, stepFor } from './step';
import { contentOf, firstWords, hasOwnGate, summaryOf } from './texts';

/** A picture as it stands on a page. */
export interface ShownPicture {
  readonly address: string;
  readonly alt: string;
  readonly width: number;
  readonly height: number;
}

/** A post as this visitor gets it in a list. */
export interface Entry {
  readonly id: ItemId;
  readonly title: string;
  readonly address: string;
  readonly date: Day | null;
  readonly author: string | null;
  readonly category: string | null;
  readonly tags: readonly string[];
  /** The summary, or what the teaser shows. */
  readonly text: string;
  readonly picture: ShownPicture | null;
  /** For a teaser: a picture too coarse for anything to be made out, as a data URI. */
  readonly coarse: string | null;
  /** What is said to those who get a teaser; null for those who get it all. */
  readonly teaser: { readonly reason: string | null; readonly step: Step | null } | null;
}

/** A post in a list, or null where it is left out. */
export function entryOf(context: View, post: Post): Entry | null {
  const given = givenAt(context, post.id);
  const facts = post.facts ?? {};
  const base = {
    id: post.id,
    title: post.title,
    address: addressIn(context, post.address),
    date: facts.date ?? null,
    author: facts.author ?? null,
    category: facts.category ?? null,
    tags: facts.tags ?? [],
  };
  if (given.kind === 'open') {
    return {
      ...base,
      text: summaryOf(context.state, context.compiled, post.id),
      picture: pictureOf(context, facts.picture ?? null),
      coarse: null,
      teaser: null,
    };
  }
  if (given.kind !== 'teaser') return null;
  const shown = teaserOf(context, post.id, given.decision, post.address);
  return {
    ...base,
    text: shown.text,
    picture: null,
    coarse: shown.coarse,
    teaser: { reason: shown.reason, step: shown.step },
  };
}

/** What a teaser shows of an item. */
export interface ShownTeaser {
  readonly text: string;
  readonly coarse: string | null;
  readonly reason: string | null;
  readonly step: Step | null;
}

/** What a teaser shows of an item to this visitor. `back` is where the visitor is. */
export function teaserOf(
  context: View,
  id: ItemId,
  { turnAway, reason }: TurnedAway,
  back: string,
): ShownTeaser {
  if (turnAway.kind !== 'teaser') return { text: '', coarse: null, reason, step: null };
  const { state, compiled } = context;
  const { show } = turnAway;
  return {
    text:
      show.kind === 'text'
        ? show.text
        : show.kind === 'words'
          ? firstWords(state, compiled, id, show.count)
          : contentOf(state, id).summary,
    coarse: turnAway.preview ? coarsePictureOf(context, id) : null,
    reason,
    step: stepFor(context, turnAway.next, back),
  };
}

/** The coarse version of an item's picture: of its own, or of the first in it that nothing else withholds. */
function coarsePictureOf({ state, compiled }: View, id: ItemId): string | null {
  const own = state.outline.items.get(id);
  const inSections = sectionsOf(state.outline, id)
    .filter((section) => section.published && !hasOwnGate(compiled, section.id, id))
    .map((section) => fileOf(state, section));
  const files = [
    own?.kind === 'file' ? id : null,
    own?.facts?.picture ?? null,
    own && fileOf(state, own),
    ...inSections,
  ];
  for (const file of files) {
    const coarse = file && contentOf(state, file as ItemId).picture?.coarse;
    if (coarse) return coarse;
  }
  return null;
}

const fileOf = (
  state: SiteState,
  { id, kind }: Pick<Section, 'id'> & { readonly kind: string },
): ItemId | null => {
  const content = kind === 'section' ? contentOf(state, id).section : undefined;
  return content?.type === 'picture' ? (content.file as ItemId | null) : null;
};

/** A picture, if this visitor may open its file. */
export function pictureOf(context: View, id: ItemId | null): ShownPicture | null {
  const file = id === null ? undefined : context.state.outline.items.get(id);
  const picture = id === null ? undefined : contentOf(context.state, id).picture;
  if (file?.kind !== 'file' || !picture || decisionOn(context, file.id).kind !== 'open') return null;
  return {
    address: addressIn(context, `/files/${file.id}/${file.name}`),
    alt: picture.alt,
    width: picture.width,
    height: picture.height,
  };
}

/** What a list of posts takes. */
export interface Choice {
  readonly category?: string | null;
  readonly tag?: string | null;
}

const folded = (text: string): string => text.normalize('NFC').toLowerCase();

// By the site's posts, and below that by choice: a page with a list asks for the same ones over and over.
const chosen = new WeakMap<SiteState['posts'], Map<string, readonly Post[]>>();

/** The posts of a choice, the latest first, whoever may see them. */
export function postsOf({ posts }: SiteState, { category, tag }: Choice): readonly Post[] {
  if (!category && !tag) return posts;
  const known = chosen.get(posts) ?? new Map<string, readonly Post[]>();
  chosen.set(posts, known);
  const key = JSON.stringify([category ?? null, tag ?? null]);
  const found =
    known.get(key) ??
    posts.filter(
      ({ facts }) =>
        (!category || folded(facts?.category ?? '') === folded(category)) &&
        (!tag || (facts?.tags ?? []).some((one) => folded(one) === folded(tag))),
    );
  known.set(key, found);
  return found;
}

/** The entries of a choice that this visitor gets, the latest first; as many as wanted, from a place on. */
export function entriesOf(
  context: View,
  choice: Choice,
  count = Number.POSITIVE_INFINITY,
  from = 0,
): readonly Entry[] {
  const entries: Entry[] = [];
  let passed = 0;
  for (const post of postsOf(context.state, choice)) {
    if (entries.length >= count) break;
    const entry = entryOf(context, post);
    if (entry === null) continue;
    if (passed >= from) entries.push(entry);
    passed += 1;
  }
  return entries;
}
