/**
 * The texts of sections, with their marked regions: what of them a visitor gets, and what anybody may get who may not open
 * the page. What is read from a text is kept for as long as the text and the policy are.
 */
import {
  asksAbout,
  type CompiledPolicy,
  type Condition,
  conditionCompiler,
  hasOwnWords,
  type ItemId,
  isReserved,
  isShared,
  normaliseAddress,
  ownValue,
  ownWordsIn,
  type Piece,
  type Predicate,
  parseRegions,
  type Regions,
  sectionsOf,
  shownIn,
  textsIn,
} from '@/core';
import { type Content, noContent } from '@/store';
import { messagesOf, type SiteState } from '../running';
import { BASE_MARK, OWN_MARK, plainTextOf, readAhead, renderedHtml } from '../texts';
import { holds, isSignedIn, opens, ownKnown, type View } from './context';

export const contentOf = (state: SiteState, id: ItemId): Content => state.contents.get(id) ?? noContent;

interface Texts {
  readonly ready: (condition: Condition) => Predicate;
  readonly regions: Map<string, Regions>;
  readonly firstWords: Map<ItemId, readonly string[]>;
}

const kept = new WeakMap<CompiledPolicy, Texts>();

function textsOf(compiled: CompiledPolicy): Texts {
  const found = kept.get(compiled) ?? {
    ready: conditionCompiler(compiled.vocabulary),
    regions: new Map(),
    firstWords: new Map(),
  };
  kept.set(compiled, found);
  return found;
}

/** A condition, made ready with the names and audiences of a policy. */
export const readyFor = (compiled: CompiledPolicy, condition: Condition): Predicate =>
  textsOf(compiled).ready(condition);

/** The regions of a text, its conditions read with the names and audiences of a policy. */
export function regionsIn(compiled: CompiledPolicy, text: string, ofShared = false): Regions {
  const { regions } = textsOf(compiled);
  // Those of a shared section may ask about its host, and mean nothing elsewhere.
  const key = ofShared ? `\0${text}` : text;
  const found = regions.get(key) ?? parseRegions(text, compiled.vocabulary, ofShared);
  regions.set(key, found);
  return found;
}

type TextPiece = Extract<Piece, { kind: 'text' }>;

/** The pieces of a text that are shown to this visitor. */
export function shownPieces(context: View, text: string): readonly TextPiece[] {
  const { compiled, host } = context;
  const { ready } = textsOf(compiled);
  // Where there is no host, nothing holds of it.
  const shows = (condition: Condition) =>
    !(host === null && asksAbout(condition, compiled.vocabulary)) && holds(context, ready(condition));
  return shownIn(regionsIn(compiled, text, host !== undefined).pieces, shows);
}

/** A Markdown text as this visitor gets it, in HTML. */
export const shownHtml = (context: View, text: string): string =>
  text === ''
    ? ''
    : shownPieces(context, text)
        .map((piece) => ownHtml(context, piece.text))
        .join('\n');

/** A text without regions as this visitor gets it, its own words filled in. */
export const ownHtml = (context: View, markdown: string): string =>
  withOwnWords(context, markdown, htmlIn(context, markdown));

const OWN_PLACES = new RegExp(`${OWN_MARK}(\\d+)${OWN_MARK}`, 'g');

/** With what a text shows of its reader; a value is text, whatever is in it, and written in a direction of its own. */
function withOwnWords(context: View, markdown: string, html: string): string {
  if (!html.includes(OWN_MARK)) return html;
  const { vocabulary } = context.compiled;
  const words = ownWordsIn(markdown, vocabulary);
  const messages = messagesOf(context.state);
  // Of a guest nothing is known, and nothing is asked that would make the page one visitor's own.
  const known = isSignedIn(context) ? ownKnown(context) : null;
  return html.replace(OWN_PLACES, (_, at: string) => {
    const word = words[Number(at)];
    if (!word) return '';
    const value = known && ownValue(word, known.reader, vocabulary, known.request, messages);
    return value === null ? escaped(word.or) : `<bdi>${escaped(value)}</bdi>`;
  });
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/**
 * The HTML of a whole Markdown text, with addresses as this context needs them. A link to what this visitor can't open is an
 * annoyance: its words stay, and the link goes; so does a picture that is closed to them.
 */
export const htmlIn = (context: View, markdown: string): string => {
  const open = (to: string) => itemsAt(context.state, to).every((id) => opens(context, id));
  return renderedHtml(markdown)
    .replace(LINK, (whole, to: string, words: string) => (open(to) ? whole : words))
    .replace(PICTURE, (whole, to: string) => (open(to) ? whole : ''))
    .replaceAll(BASE_MARK, context.base);
};

const LINK = new RegExp(`<a href="${BASE_MARK}([^"]*)"[^>]*>([\\s\\S]*?)</a>`, 'g');
const PICTURE = new RegExp(`<img src="${BASE_MARK}([^"]*)"[^>]*>`, 'g');

/** The item that is found at an address as it stands in a text, if there is one. */
function itemsAt({ outline, oldAddresses }: SiteState, to: string): readonly ItemId[] {
  const [path = ''] = to.replaceAll('&#x26;', '&').split(/[?#]/);
  const file = /^\/files\/([^/]+)\//.exec(path)?.[1] as ItemId | undefined;
  if (file !== undefined) return outline.items.get(file)?.kind === 'file' ? [file] : [];
  const address = normaliseAddress(path);
  const id = address === null ? undefined : (outline.addressed.get(address)?.id ?? oldAddresses.get(address));
  return id === undefined ? [] : [id];
}

/** The links and pictures of a Markdown text whose addresses are on this site, with those as they were written. */
const addressesIn = (markdown: string) =>
  (
    [
      ['link', LINK],
      ['picture', PICTURE],
    ] as const
  ).flatMap(([kind, pattern]) =>
    [...renderedHtml(markdown).matchAll(pattern)].map(([, to = '', words = '']) => ({
      kind,
      words,
      to: to.replaceAll('&#x26;', '&'),
    })),
  );

/** Those of them that lead to something. */
export const linksIn = (state: SiteState, markdown: string) =>
  addressesIn(markdown).flatMap(({ kind, words, to }) =>
    itemsAt(state, to).map((item) => ({ kind, words, item })),
  );

/** The items that a text of the site links to, or shows. */
export const linkedFrom = (state: SiteState, compiled: CompiledPolicy, text: string): readonly ItemId[] =>
  textsIn(regionsIn(compiled, text).pieces).flatMap((piece) =>
    linksIn(state, piece.text).map(({ item }) => item),
  );

/** A link or picture of a text that leads to nothing on this site, for whoever may open everything. */
export interface DeadLink {
  readonly kind: 'link' | 'picture';
  /** The words of the link; nothing for a picture. */
  readonly words: string;
  /** The address as it stands in the text. */
  readonly to: string;
}

/** The links and pictures of a text that lead to nothing, whoever follows them. */
export const deadLinksIn = (state: SiteState, compiled: CompiledPolicy, text: string): readonly DeadLink[] =>
  textsIn(regionsIn(compiled, text).pieces)
    .flatMap((piece) => addressesIn(piece.text))
    .filter(({ to }) => isDead(state, to))
    .map((link) => ({ ...link, words: wordsOfHtml(link.words) }));

function isDead(state: SiteState, to: string): boolean {
  const [path = ''] = to.split(/[?#]/);
  if (itemsAt(state, to).length > 0) return false;
  const address = normaliseAddress(path);
  return path.startsWith('/files/') || address === null || !isReserved(address);
}

/** How many pictures of a text have no words for those who don't see them. */
export const picturesWithoutWords = (compiled: CompiledPolicy, text: string): number =>
  textsIn(regionsIn(compiled, text).pieces)
    .flatMap((piece) => renderedHtml(piece.text).match(/<img [^>]*>/g) ?? [])
    .filter((picture) => !/ alt="[^"]/.test(picture)).length;

/** A link whose words this visitor gets without it, or a picture that they don't get: what it leads to is closed to them. */
export interface WithheldLink {
  readonly kind: 'link' | 'picture';
  /** The words of the link; nothing for a picture. */
  readonly words: string;
  /** What it leads to. */
  readonly title: string;
}

/** The links and pictures of a page's texts that this visitor does not get. */
export const withheldLinks = (context: View, id: ItemId): readonly WithheldLink[] =>
  sectionsOf(context.compiled.outline, id)
    .filter((section) => opens(context, section.id))
    .flatMap((section) => shownPieces(context, contentOf(context.state, section.id).body))
    .flatMap(({ text }) => linksIn(context.state, text))
    .filter(({ item }) => !opens(context, item))
    .map(({ kind, words, item }) => ({
      kind,
      words: wordsOfHtml(words),
      title: context.state.outline.items.get(item)?.title ?? '',
    }));

/** The words in a piece of rendered HTML, in which `&` and `<` alone are written otherwise. */
const wordsOfHtml = (html: string): string =>
  html
    .replace(/<[^>]*>/g, '')
    .replace(OWN_PLACES, '…')
    .replaceAll('&#x3C;', '<')
    .replaceAll('&#x26;', '&');

/** Reads the long texts of a page ahead; those who ask for another one don't wait for it. */
export const textsReady = ({ state, compiled }: View, id: ItemId): Promise<void> =>
  readAhead(
    [...sectionsOf(compiled.outline, id), ...compiled.places.on(id)].flatMap((section) =>
      textsIn(regionsIn(compiled, contentOf(state, section.id).body, isShared(section)).pieces).map(
        ({ text }) => text,
      ),
    ),
  );

/** Whether everybody who opens the page gets the same of a text. */
export const isSameForEveryone = (compiled: CompiledPolicy, text: string): boolean =>
  !hasOwnWords(text) && regionsIn(compiled, text, true).pieces.every(({ kind }) => kind === 'text');

const MOST_WORDS = 400;
const MOST_READ = 8000;

/**
 * The first words of a page or post that nothing within it withholds: of sections without gates of their own, outside
 * every region. Whether the page itself is open plays no part.
 */
export function firstWords(state: SiteState, compiled: CompiledPolicy, id: ItemId, count: number): string {
  const { firstWords: known } = textsOf(compiled);
  const words = known.get(id) ?? wordsOf(state, compiled, id);
  known.set(id, words);
  const first = words.slice(0, count).join(' ');
  return words.length > count ? `${first.replace(/[\s,;:.–—-]+$/, '')} …` : first;
}

function wordsOf(state: SiteState, compiled: CompiledPolicy, id: ItemId): readonly string[] {
  const item = compiled.outline.items.get(id);
  const sections = item?.kind === 'section' ? [item] : sectionsOf(compiled.outline, id);
  const words: string[] = [];
  for (const section of sections) {
    const gated = section.id !== id && hasOwnGate(compiled, section.id, id);
    if (section.type !== 'text' || gated || !section.published) continue;
    for (const piece of regionsIn(compiled, contentOf(state, section.id).body).pieces) {
      // Of a long text its beginning is enough.
      if (piece.kind === 'text')
        words.push(...plainTextOf(piece.text.slice(0, MOST_READ)).split(/\s+/).filter(Boolean));
      if (words.length > MOST_WORDS) return words.slice(0, MOST_WORDS + 1);
    }
  }
  return words;
}

/** Whether a section is under a gate that its page is not under: a branch's gate covers both and withholds nothing more. */
export function hasOwnGate({ covering }: CompiledPolicy, section: ItemId, page: ItemId): boolean {
  const over = (id: ItemId) => (covering.get(id) ?? []).filter(({ setAside }) => !setAside);
  const shared = new Set(over(page).map(({ gate }) => gate.id));
  return over(section).some(({ gate }) => !shared.has(gate.id));
}

const SUMMARY_WORDS = 32;

/** The summary of an item for those who may open it: its own, or made of its first words. */
export const summaryOf = (state: SiteState, compiled: CompiledPolicy, id: ItemId): string =>
  contentOf(state, id).summary || firstWords(state, compiled, id, SUMMARY_WORDS);
