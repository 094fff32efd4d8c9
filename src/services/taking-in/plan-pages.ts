/** What taking in comes to: every page, text and file of it, worked out before anything is written. */
import { randomUUID } from 'node:crypto';
import slugify from '@sindresorhus/slugify';
import {
  type Address,
  asId,
  counted,
  type Item,
  type ItemFacts,
  type ItemId,
  isDay,
  isReserved,
  normaliseAddress,
  type Section,
  sectionsOf,
} from '@/core';
import { noContent, type StoredItem } from '@/store';
import { type SiteState, yielder } from '../running';
import { cut, type Note } from '../texts';
import { contentOf } from '../view';
import { addressesFor, problemIn, sectionProblems, startOf, storedSection } from '../writing';
import type { FoundFile, FoundText, Material } from './material';
import { keyOf, type Place, placesOf } from './places';
import { type LeftOut, saidOf, targetOf } from './source';

/** How what was found is to come in. */
export interface Wishes {
  /** What it is to stand below. */
  readonly above: ItemId;
  /** Whether what has a date becomes a post. */
  readonly posts: boolean;
  /** Whether what says nothing else is published. */
  readonly published: boolean;
  /** Whether its first page becomes the text of the site's. */
  readonly first: boolean;
  /** The menu in which links to its topmost pages stand; null for none. */
  readonly menu: ItemId | null;
}

/** A page or post that comes in. */
export interface PlannedPage {
  readonly item: ItemId;
  readonly title: string;
  readonly address: Address;
  readonly kind: 'page' | 'post';
  /** How deep it stands below what it was put below. */
  readonly depth: number;
  /** Where it was found; null for a page that was made for a folder. */
  readonly from: string | null;
  readonly published: boolean;
  readonly formerly: readonly Address[];
  readonly files: number;
  readonly notes: readonly Note[];
}

export interface PlannedFile {
  readonly item: ItemId;
  readonly file: FoundFile;
}

export interface Plan {
  readonly pages: readonly PlannedPage[];
  /** Everything that comes, each after what it stands below. */
  readonly stored: readonly StoredItem[];
  readonly files: readonly PlannedFile[];
  readonly formerly: ReadonlyMap<Address, ItemId>;
  /** The site's first page and its text, before and after; empty where those stay. */
  readonly first: readonly { readonly before: StoredItem; readonly after: StoredItem }[];
  readonly leftOut: readonly LeftOut[];
  /** The words of its texts. */
  readonly words: ReadonlyMap<string, string>;
}

const MOST_FORMER = 50;
const MOST_ITEMS = 20_000;

/** The site's first page with its one text, which another can take the place of; null where it is more than that. */
export function firstPage({ outline }: SiteState): { readonly page: Item; readonly text: Section } | null {
  const page = outline.addressed.get('/' as Address);
  const children = page ? (outline.children.get(page.id) ?? []) : [];
  const [text, ...more] = page ? sectionsOf(outline, page.id) : [];
  const simple = children.every(({ kind }) => kind === 'section' || kind === 'page' || kind === 'post');
  return page?.kind === 'page' && text?.type === 'text' && more.length === 0 && simple
    ? { page, text }
    : null;
}

/** Plans what comes in, or says why it can't. */
export async function planPages(
  state: SiteState,
  material: Material,
  wishes: Wishes,
  today: string,
): Promise<Plan | { readonly problem: string }> {
  const planner = new Planner(state, material, wishes, today);
  const rest = yielder();
  for (const one of planner.steps()) {
    one();
    await rest();
  }
  return planner.done();
}

/** A place once it is known what becomes of it. */
interface Standing {
  readonly place: Place;
  readonly item: ItemId;
  readonly address: Address;
  readonly kind: 'page' | 'post';
  readonly depth: number;
  readonly notes: Note[];
  readonly files: Set<string>;
  formerly: readonly Address[];
  body: string;
}

class Planner {
  readonly #texts: FoundText[] = [];
  #tooMany = false;
  readonly #leftOut: LeftOut[];
  readonly #standing = new Map<Place, Standing>();
  readonly #byKey = new Map<string, Standing>();
  readonly #children = new Map<Place | null, Place[]>();
  readonly #files = new Map<string, { readonly item: ItemId; users: Standing[]; alt: string }>();
  readonly #former = new Map<Address, ItemId>();
  readonly #first: ReturnType<typeof firstPage>;
  #base: string;

  constructor(
    private readonly state: SiteState,
    private readonly material: Material,
    private readonly wishes: Wishes,
    private readonly today: string,
  ) {
    this.#leftOut = [...material.leftOut];
    this.#first = wishes.first && wishes.above === state.outline.root ? firstPage(state) : null;
    this.#base = startOf(state.outline, wishes.above);
  }

  /** The work in pieces, in the order in which they have to be done. */
  *steps(): Generator<() => void> {
    for (const text of this.material.texts) yield () => this.#look(text);
    let places: readonly Place[] = [];
    yield () => {
      const found = placesOf(this.#texts);
      this.#tooMany = found === null;
      places = found ?? [];
      // Below another page its first page holds the rest.
      const first = places.find(({ key }) => key === '');
      if (first && this.wishes.above !== this.state.outline.root)
        for (const place of places) if (place !== first) place.parent ??= first;
      for (const place of places) {
        const siblings = this.#children.get(place.parent) ?? [];
        siblings.push(place);
        this.#children.set(place.parent, siblings);
      }
      for (const siblings of this.#children.values()) siblings.sort((a, b) => inOrder.compare(a.key, b.key));
    };
    const addressLike = addressesFor(this.state);
    const waiting: { readonly place: Place; readonly depth: number }[] = [];
    yield () => waiting.push(...this.#below(null, 0));
    while (waiting.length > 0) {
      yield () => {
        const next = waiting.shift();
        if (!next) return;
        this.#stand(next.place, next.depth, addressLike);
        waiting.unshift(...this.#below(next.place, next.depth + 1));
      };
    }
    for (const standing of this.#standing.values()) yield () => this.#addressesOfBefore(standing);
    for (const standing of this.#standing.values()) yield () => this.#write(standing);
  }

  /** Nothing is known to be wrong with a text once it is read; if something is, it stays out rather than half in. */
  #look(text: FoundText): void {
    const { vocabulary } = this.state.live.compiled;
    const { body } = text.document;
    const [wrong] = body === '' ? [] : sectionProblems([sectionWith(body)], vocabulary, () => undefined);
    if (!wrong) this.#texts.push(text);
    else
      this.#leftOut.push({
        path: saidOf(this.material.kind, text.path),
        why: wrong.line === null ? wrong.message : `Line ${wrong.line}: ${wrong.message}`,
      });
  }

  readonly #below = (place: Place | null, depth: number) =>
    (this.#children.get(place) ?? []).map((one) => ({ place: one, depth }));

  /** Gives a place its item, its kind and its address. */
  #stand(place: Place, depth: number, addressLike: (wanted: string) => Address): void {
    const { document } = place.text ?? {};
    const notes: Note[] = [...(document?.notes ?? []), ...place.notes];
    const takesFirst = place.key === '' && this.#first !== null;
    const isPost =
      this.wishes.posts &&
      (document?.date ?? place.day) != null &&
      place.key !== '' &&
      (this.#children.get(place) ?? []).length === 0;
    const item = takesFirst && this.#first ? this.#first.page.id : asId<ItemId>(randomUUID());
    const address = takesFirst ? ('/' as Address) : this.#addressOf(place, notes, addressLike);
    const standing: Standing = {
      place,
      item,
      address,
      kind: isPost ? 'post' : 'page',
      depth,
      notes,
      files: new Set(),
      formerly: [],
      body: '',
    };
    this.#standing.set(place, standing);
    if (place.key === '' && this.wishes.above !== this.state.outline.root) this.#base = address;
    this.#byKey.set(place.key, standing);
    const { formerPath } = place.text ?? {};
    if (formerPath != null && !this.#byKey.has(keyOf(formerPath)))
      this.#byKey.set(keyOf(formerPath), standing);
  }

  #addressOf(place: Place, notes: Note[], addressLike: (wanted: string) => Address): Address {
    const path =
      place.parts.length === 0 ? `/${slugify(place.title) || 'home'}` : `/${place.parts.join('/')}`;
    const asked = place.asks === null ? null : this.#asked(place.asks, path, notes);
    const wanted = this.#base + (asked ?? path);
    const address = addressLike(wanted);
    if (address !== normaliseAddress(wanted)) {
      const normal = normaliseAddress(wanted);
      const holder = normal && this.state.outline.addressed.get(normal);
      const why = holder
        ? `“${holder.title}” has the address ${wanted}`
        : normal === null || isReserved(normal)
          ? `It can’t have the address ${wanted}`
          : `Another page that comes in has the address ${wanted}`;
      notes.push({ line: null, message: `${why}, so it has ${address}.` });
    }
    return address;
  }

  /** What a page asks for as its address: a whole one, or another last part. */
  #asked(asks: string, path: string, notes: Note[]): string | null {
    const plain = URL.canParse(asks) ? new URL(asks).pathname : asks;
    const whole = plain.startsWith('/') ? plain : `${path.slice(0, path.lastIndexOf('/'))}/${plain}`;
    const address = normaliseAddress(whole.replace(/[?#].*$/s, '').replace(/\.html?$/i, ''));
    if (address !== null && address !== '/') return address;
    notes.push({
      line: null,
      message: `It asks for the address “${asks.slice(0, 80)}”, which none can have.`,
    });
    return null;
  }

  /** Other spellings of its address, under which somebody may still look for it. */
  #addressesOfBefore({ place, item, address, notes }: Standing): void {
    if (!place.text) return;
    const { path, formerPath, document } = place.text;
    const isWeb = this.material.kind === 'web';
    const own = isWeb ? '' : this.#base;
    const queried = [path, formerPath].some((one) => one?.includes('?'));
    if (queried)
      notes.push({ line: null, message: 'Its address had a question mark in it; such a one can’t be kept.' });
    const folder = `/${place.parts.slice(0, -1).join('/')}`.replace(/\/$/, '');
    const spellings = [
      ...(isWeb || /\.html?$/i.test(path) ? [`/${path}`] : []),
      ...(place.key === '' ? ['/index.html'] : [`/${place.key.replace(/\?.*$/s, '')}`]),
      ...(formerPath === null ? [] : [`/${formerPath}`]),
    ].filter((one) => !one.includes('?'));
    const wanted = [
      ...spellings.map((one) => own + one),
      ...document.formerly
        .map((one) => (URL.canParse(one) ? new URL(one).pathname : one))
        .map((one) => (one.startsWith('/') ? own + one : `${own}${folder}/${one}`)),
    ];
    const kept: Address[] = [];
    for (const one of wanted) {
      const former = normaliseAddress(one);
      if (former === null || former === address || isReserved(former) || former === '/') continue;
      if (this.#former.has(former) || this.#isTaken(former) || kept.length >= MOST_FORMER) continue;
      this.#former.set(former, item);
      kept.push(former);
    }
    const standing = this.#standing.get(place);
    if (standing) standing.formerly = kept;
  }

  readonly #isTaken = (address: Address): boolean =>
    this.state.outline.addressed.has(address) ||
    this.state.oldAddresses.has(address) ||
    this.#taken().has(address);

  #addresses: ReadonlySet<Address> | null = null;
  #taken(): ReadonlySet<Address> {
    this.#addresses ??= new Set([...this.#standing.values()].map(({ address }) => address));
    return this.#addresses;
  }

  /** Writes a text with its addresses as they are on this site. */
  #write(standing: Standing): void {
    const { text } = standing.place;
    if (!text) return;
    const { body, spots } = text.document;
    const nowhere = new Set<string>();
    let written = '';
    let end = 0;
    for (const { kind, from, to, before, after, url } of spots) {
      const address = this.#addressFor(standing, text, kind, url, before, nowhere);
      if (address === null) continue;
      written += `${body.slice(end, from)}${before}${address}${after}`;
      end = to;
    }
    standing.body = written + body.slice(end);
    if (nowhere.size > 0) {
      const list = [...nowhere];
      standing.notes.push({
        line: null,
        message: `It leads to what is not there: ${list.slice(0, 5).join(', ')}${list.length > 5 ? ` and ${list.length - 5} more` : ''}.`,
      });
    }
  }

  /** An address in a text as it is here; null where it stays as it is. */
  #addressFor(
    standing: Standing,
    { path }: FoundText,
    kind: 'link' | 'picture',
    url: string,
    before: string,
    nowhere: Set<string>,
  ): string | null {
    if (url.startsWith('#')) return this.#anchorIn(standing, url.slice(1)) ?? null;
    const target = targetOf(url, path, this.material.base);
    if (!target) {
      if (kind === 'picture') nowhere.add(`${url.slice(0, 80)} (a picture from elsewhere)`);
      return null;
    }
    const file = this.material.files.get(target.path);
    if (file) return this.#use(standing, file, before);
    const page =
      this.#byKey.get(keyOf(target.path)) ?? this.#byKey.get(keyOf(target.path.replace(/\?.*$/s, '')));
    if (page && kind === 'link')
      return (
        spelled(page.address) + (target.anchor === '' ? '' : (this.#anchorIn(page, target.anchor) ?? ''))
      );
    nowhere.add(url.slice(0, 80));
    // So it is found among what leads nowhere, and again once there is something.
    return spelled(`/${target.path.replace(/\?.*$/s, '')}`);
  }

  readonly #anchorIn = ({ place }: Standing, anchor: string): string | undefined => {
    const known = place.text?.document.anchors ?? {};
    const now = Object.hasOwn(known, anchor) ? known[anchor] : anchor;
    return now ? `#${encodeURIComponent(now)}` : undefined;
  };

  #use(standing: Standing, file: FoundFile, before: string): string {
    const used = this.#files.get(file.path) ?? { item: asId<ItemId>(randomUUID()), users: [], alt: '' };
    this.#files.set(file.path, used);
    if (!used.users.includes(standing)) used.users.push(standing);
    standing.files.add(file.path);
    const alt = /^!\[(.*)\]\($/s.exec(before)?.[1] ?? '';
    used.alt ||= cut(alt.replace(/\\([[\]\\])/g, '$1'), 500);
    return spelled(`/files/${used.item}/${file.name}`);
  }

  done(): Plan | { readonly problem: string } {
    const { state, wishes } = this;
    if (this.#tooMany)
      return {
        problem: `With all the folders that it stands in, that comes to more than ${MOST_ITEMS} pages. Take it in in parts.`,
      };
    const stored: StoredItem[] = [];
    const pages: PlannedPage[] = [];
    const ranks = new Map<ItemId, number>();
    const rank = (parent: ItemId): number => {
      const next =
        ranks.get(parent) ??
        Math.max(-1, ...(state.outline.children.get(parent) ?? []).map((one) => one.rank)) + 1;
      ranks.set(parent, next + 1);
      return next;
    };
    const first: Plan['first'][number][] = [];
    for (const standing of this.#standing.values()) {
      const { place, item, address, kind, depth, notes, formerly, files, body } = standing;
      const { document } = place.text ?? {};
      const published = this.#isPublished(standing);
      const parent = place.parent ? (this.#standing.get(place.parent)?.item ?? wishes.above) : wishes.above;
      const facts = this.#factsOf(standing);
      const summary = document?.summary ?? '';
      const title = cut(place.title, 200);
      const isFirst = this.#first !== null && item === this.#first.page.id;
      pages.push({
        item,
        title: isFirst && this.#first ? this.#first.page.title : title,
        address,
        kind,
        depth,
        from: place.text ? saidOf(this.material.kind, place.text.path) : null,
        published,
        formerly,
        files: files.size,
        notes,
      });
      if (isFirst && this.#first) {
        first.push(...firstAfter(state, this.#first, body, summary));
        continue;
      }
      stored.push({
        item: {
          kind,
          id: item,
          parent,
          rank: rank(parent),
          title,
          published,
          address,
          ...(facts && { facts }),
        },
        content: { ...noContent, summary },
      });
      if (body !== '')
        stored.push(
          storedSection({ ...sectionWith(body), id: randomUUID() }, item, 0, state.live.compiled.vocabulary),
        );
    }
    const files = this.#planFiles(stored, rank);
    const { menu } = wishes;
    if (menu !== null)
      for (const { item, kind, title, depth } of pages)
        if (depth === 0 && kind === 'page' && item !== this.#first?.page.id)
          stored.push({
            item: {
              kind: 'link',
              id: asId<ItemId>(randomUUID()),
              parent: menu,
              rank: rank(menu),
              title,
              published: true,
              target: { kind: 'item', item },
            },
            content: noContent,
          });
    if (stored.length + first.length === 0)
      return { problem: 'Nothing of it can be taken in. What was found stands below, with why.' };
    if (stored.length > MOST_ITEMS)
      return {
        problem: `That comes to ${counted(stored.length, 'page, text and file', 'pages, texts and files')}, and at most ${MOST_ITEMS} are taken in at once. Take it in in parts.`,
      };
    const replaced = new Map(first.map(({ after }) => [after.item.id, after.item]));
    const wrong = problemIn([
      ...[...state.outline.items.values()].map((one) => replaced.get(one.id) ?? one),
      ...stored.map(({ item }) => item),
    ]);
    if (wrong !== null) return { problem: wrong };
    return {
      pages,
      stored,
      files,
      formerly: this.#former,
      first,
      leftOut: this.#leftOut,
      words: new Map(
        [...this.#standing.values()].map(({ body, place }) => [body, place.text?.document.words ?? '']),
      ),
    };
  }

  readonly #isPublished = ({ place, item }: Standing): boolean =>
    item === this.#first?.page.id
      ? this.#first.page.published
      : this.wishes.published && place.text?.document.draft !== true;

  #factsOf({ place, kind }: Standing): ItemFacts | null {
    const { document } = place.text ?? {};
    const date = document?.date ?? (place.day !== null && isDay(place.day) ? place.day : null);
    const above = place.parent?.title;
    const category = document?.category ?? (kind === 'post' && above ? cut(above, 200) : null);
    const facts: ItemFacts = {
      ...(category && { category }),
      ...(document && document.tags.length > 0 && { tags: document.tags }),
      ...(document?.author && { author: document.author }),
      ...(date && { date }),
    };
    return Object.keys(facts).length > 0 ? facts : null;
  }

  /** Files stand in the page that shows them, or in what all pages that do stand below: as closed as those are. */
  #planFiles(stored: StoredItem[], rank: (parent: ItemId) => number): readonly PlannedFile[] {
    return [...this.#files].flatMap(([path, { item, users, alt }]): PlannedFile[] => {
      const file = this.material.files.get(path);
      if (!file) return [];
      const parent = this.#holding(users);
      const stem = (path.split('/').at(-1) ?? '')
        .replace(/\.[^.]*$/, '')
        .replace(/\p{Cc}/gu, ' ')
        .trim();
      stored.push({
        item: {
          kind: 'file',
          id: item,
          parent,
          rank: rank(parent),
          title: cut(stem || file.name, 200),
          // Nobody is to find it before what it stands on.
          published: users.some((one) => this.#isPublished(one)),
          name: file.name,
          mediaType: file.mediaType,
          size: file.size,
          facts: { date: this.today as NonNullable<ItemFacts['date']> },
        },
        content: { ...noContent, ...(file.picture && { picture: { ...file.picture, alt } }) },
      });
      return [{ item, file }];
    });
  }

  #holding(users: readonly Standing[]): ItemId {
    const chains = users.map(({ place }) => {
      const chain: Place[] = [];
      for (let at: Place | null = place; at; at = at.parent) chain.unshift(at);
      return chain;
    });
    const [one = []] = chains;
    let common: Place | null = null;
    for (const [at, place] of one.entries()) if (chains.every((chain) => chain[at] === place)) common = place;
    return (common && this.#standing.get(common)?.item) ?? this.wishes.above;
  }
}

const inOrder = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** An address as Markdown takes it. */
const spelled = (address: string): string =>
  encodeURI(address).replace(/[()?#]/g, (one) => `%${one.charCodeAt(0).toString(16)}`);

const sectionWith = (text: string) => ({
  type: 'text' as const,
  id: 'text',
  title: 'Text',
  summary: '',
  published: true,
  text,
});

function firstAfter(
  state: SiteState,
  { page, text }: NonNullable<ReturnType<typeof firstPage>>,
  body: string,
  summary: string,
): Plan['first'] {
  const before = (item: Item): StoredItem => ({ item, content: contentOf(state, item.id) });
  const ofPage = before(page);
  const ofText = before(text);
  return [
    ...(summary === ''
      ? []
      : [{ before: ofPage, after: { ...ofPage, content: { ...ofPage.content, summary } } }]),
    { before: ofText, after: { ...ofText, content: { ...ofText.content, body } } },
  ];
}
