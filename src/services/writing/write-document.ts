/** Writing: drafts that are kept as they are typed, and go to the site whole. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  type Address,
  type Addressed,
  asId,
  below,
  type ItemId,
  isAddressed,
  isShared,
  listed,
  permits,
  type SharedSection,
  same,
  sectionsOf,
} from '@/core';
import {
  type DraftDocument,
  deleteItemDraft,
  deleteItems,
  insertItems,
  insertRemoval,
  noteOldAddress,
  readDraftedItems,
  readItemDraft,
  type StoredItem,
  saveItemDraft,
  updateItem,
} from '@/store';
import type { SiteState, Trivet } from '../running';
import { type Administrator, requirePermission, requirePermissionAt } from '../running';
import { indexItems } from '../texts';
import { contentOf } from '../view';
import { type Document, type DocumentProblem, documentOf, factsIn, readDocument } from './document';
import { enrollingOf } from './enrolling-form';
import { turnsLost } from './in-turn';
import { storedSection } from './section-form';
import { readSharedDocument, type SharedDocument, sharedDocumentOf } from './shared-document';

/** A draft as it is kept. */
export interface KeptDraft {
  readonly document: DraftDocument;
  readonly version: number;
  readonly by: string;
  readonly at: string;
}

/** What the editor of a page, a post or a shared section needs. */
export interface Writing<D extends Document | SharedDocument = Document | SharedDocument> {
  readonly id: ItemId;
  readonly kind: Written['kind'];
  /** As it is on the site, with the version that sending it there has to name. */
  readonly live: D;
  readonly version: number;
  readonly draft: KeptDraft | null;
}

const LARGEST_DRAFT = 1_500_000;

/** What is written as a whole: a page or post with its sections, or a section that many share. */
export type Written = Addressed | SharedSection;

const itemOf = (state: SiteState, id: string): Written | null => {
  const item = state.outline.items.get(asId<ItemId>(id));
  return isAddressed(item) || isShared(item) ? item : null;
};

const liveOf = (state: SiteState, item: Written): Document | SharedDocument =>
  isShared(item) ? sharedDocumentOf(state, item) : documentOf(state, item);

/** What a draft makes of the site's items, or what is wrong with it. */
export function readWritten(
  input: unknown,
  item: Written,
  state: SiteState,
  publish = false,
):
  | { readonly document: Document | SharedDocument; readonly made: Made; readonly address: Address | null }
  | { readonly problems: readonly DocumentProblem[] } {
  if (isShared(item)) {
    const read = readSharedDocument(input, item, state);
    if ('problems' in read) return read;
    const { item: kept, content } = read.stored;
    const stored = publish ? { item: { ...kept, published: true }, content } : read.stored;
    return { document: read.document, made: { changed: [stored], added: [], gone: [] }, address: null };
  }
  const read = readDocument(input, item, state);
  if ('problems' in read) return read;
  const { document, address } = read;
  const shown = publish ? { ...document, published: true } : document;
  return { document, made: itemsFor(shown, address, item, state), address };
}

/** Something to be written, or null when there is no such thing. */
export async function readWriting(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
): Promise<Writing | null> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const item = itemOf(state, id);
  if (!item) return null;
  return {
    id: item.id,
    kind: item.kind,
    live: liveOf(state, item),
    version: state.versions.get(item.id) ?? 0,
    draft: await keptDraft(trivet, item.id),
  };
}

async function keptDraft(trivet: Trivet, id: ItemId): Promise<KeptDraft | null> {
  const draft = await readItemDraft(trivet.db, id);
  return (
    draft && { document: draft.document, version: draft.version, by: draft.by, at: draft.at.toISOString() }
  );
}

/** The items for which something is written that is not on the site. */
export async function draftedItems(trivet: Trivet, administrator: Administrator): Promise<readonly ItemId[]> {
  requirePermission(administrator, 'look');
  return (await readDraftedItems(trivet.db)).map(({ item }) => item);
}

const saving = z.strictObject({
  version: z.int().min(0),
  document: z.record(z.string().max(100), z.unknown()),
});

export type DraftAnswer =
  | { readonly kind: 'saved'; readonly version: number }
  /** Somebody else saved meanwhile; theirs comes back. */
  | { readonly kind: 'stale'; readonly draft: KeptDraft | null }
  | { readonly kind: 'missing' }
  | { readonly kind: 'wrong'; readonly message: string };

/** Keeps what is being written. Based on an older version, it is refused and the newer one comes back. */
export async function saveWriting(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  input: unknown,
  now: Date,
): Promise<DraftAnswer> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)]);
  const parsed = saving.safeParse(input);
  const item = itemOf(trivet.state, id);
  if (!item) return { kind: 'missing' };
  if (!parsed.success) return { kind: 'wrong', message: 'That is no document.' };
  if (JSON.stringify(parsed.data.document).length > LARGEST_DRAFT)
    return { kind: 'wrong', message: 'That is too long for one page. Make two of it.' };
  const { document, version } = parsed.data;
  const saved = await saveItemDraft(trivet.db, item.id, document, version, administrator.name, now);
  return saved === null
    ? { kind: 'stale', draft: await keptDraft(trivet, item.id) }
    : { kind: 'saved', version: saved };
}

/** Drops what is being written; the site stays as it is. */
export async function dropWriting(trivet: Trivet, administrator: Administrator, id: string): Promise<void> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)]);
  await deleteItemDraft(trivet.db, asId<ItemId>(id));
}

const sending = z.strictObject({ version: z.int().min(0), draft: z.int().min(0) });

export type SendAnswer =
  | { readonly kind: 'sent'; readonly version: number; readonly live: Document | SharedDocument }
  | { readonly kind: 'wrong'; readonly problems: readonly DocumentProblem[] }
  | { readonly kind: 'stale'; readonly draft: KeptDraft | null }
  | { readonly kind: 'missing' };

/** Puts what is written on the site, whole: the page, its sections and its address, or nothing of it. */
export function sendWriting(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  input: unknown,
): Promise<SendAnswer> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)]);
  return trivet.change(async (state): Promise<SendAnswer> => {
    const parsed = sending.safeParse(input);
    const item = itemOf(state, id);
    const draft = item && (await readItemDraft(trivet.db, item.id));
    if (!parsed.success || !item || !draft) return { kind: 'missing' };
    const version = state.versions.get(item.id) ?? 0;
    if (draft.version !== parsed.data.draft || version !== parsed.data.version)
      return { kind: 'stale', draft: await keptDraft(trivet, item.id) };
    const read = readWritten(draft.document, item, state);
    if ('problems' in read) return { kind: 'wrong', problems: read.problems };
    const { made, address } = read;
    if (enrolsOthers(read.document, item, state) && !permits(administrator.desk, 'people')) {
      const message =
        'How one comes into a course is changed by those who may change people. Ask one of them, or leave it as it was.';
      return { kind: 'wrong', problems: [{ path: 'enrolling', line: null, message }] };
    }
    // Hidden here it would be hidden unasked; on the board that is asked.
    const hidden = made.changed.find(
      ({ item: one }) => one.id === item.id && item.published && !one.published,
    );
    const opens = hidden
      ? turnsLost(
          state,
          [...state.outline.items.values()].map((one) => (one.id === item.id ? hidden.item : one)),
        )
      : [];
    if (opens.length > 0) {
      const message = `With that, ${listed(opens)}. If it is meant, mark it on the board and take it off the site there.`;
      return { kind: 'wrong', problems: [{ path: 'published', line: null, message }] };
    }
    await trivet.db.transaction(async (tx) => {
      if (made.gone.length > 0) {
        const removed = { items: made.gone };
        const summary = `Sections of ${item.title}`;
        await insertRemoval(tx, { id: randomUUID(), by: administrator.name, summary, removed });
        await deleteItems(
          tx,
          made.gone.map((one) => one.item.id),
        );
      }
      for (const one of made.changed) await updateItem(tx, one);
      await insertItems(tx, made.added);
      if (isAddressed(item) && address !== item.address) await noteOldAddress(tx, item.address, item.id);
      await indexItems(tx, [...made.changed, ...made.added], state.live.compiled.vocabulary);
      await deleteItemDraft(tx, item.id);
    });
    return { kind: 'sent', version: version + 1, live: read.document };
  });
}

/** Whether others come into a course with this than before. */
const enrolsOthers = (document: Document | SharedDocument, item: Written, state: SiteState): boolean =>
  item.kind === 'course' &&
  'enrolling' in document &&
  !same(document.enrolling, documentOf(state, item).enrolling);

interface Made {
  readonly changed: readonly StoredItem[];
  readonly added: readonly StoredItem[];
  /** Sections that are no longer there, with the files in them: what a gated section held is not for the whole page. */
  readonly gone: readonly StoredItem[];
}

/** The items that a document makes of a page or post. */
function itemsFor(
  document: Document,
  address: Addressed['address'],
  item: Addressed,
  state: SiteState,
): Made {
  const { vocabulary } = state.live.compiled;
  const { facts: _, ...rest } = item;
  const facts = factsIn(document, item.facts);
  const page: StoredItem = {
    item: {
      ...rest,
      title: document.title,
      published: document.published,
      address,
      ...(facts && { facts }),
      ...(rest.kind === 'activity' && { activity: document.activity ?? rest.activity }),
    } as Addressed,
    content: {
      ...contentOf(state, item.id),
      summary: document.summary,
      ...(item.kind === 'course' && document.enrolling && { enrolling: enrollingOf(document.enrolling) }),
      ...(item.kind === 'activity' && {
        doneWhen: document.doneWhen,
        ...(document.task && { task: document.task }),
      }),
      ...(document.quiz && { quiz: document.quiz }),
    },
  };
  const sections = document.sections.map((section, rank) =>
    storedSection(section, item.id, rank, vocabulary),
  );
  const before = sectionsOf(state.outline, item.id);
  const kept = new Set(sections.map((one) => one.item.id));
  const there = new Set(before.map((one) => one.id));
  return {
    changed: [page, ...sections.filter((one) => there.has(one.item.id))],
    added: sections.filter((one) => !there.has(one.item.id)),
    gone: before
      .filter((section) => !kept.has(section.id))
      .flatMap((section) => below(state.outline, section.id))
      .map((one): StoredItem => ({ item: one, content: contentOf(state, one.id) })),
  };
}
