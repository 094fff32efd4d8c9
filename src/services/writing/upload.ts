/** Taking a file in: read by its content, put where it belongs, under the gates that new files start with. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { asId, type File, type ItemId, mayHold } from '@/core';
import { insertItems, noContent, type StoredItem, writeFileBytes } from '@/store';
import { newId as id, readFile } from '../forms';
import type { Trivet } from '../running';
import { type Administrator, momentAt, requirePermission, requirePermissionAt } from '../running';
import { indexItems } from '../texts';
import { type ItemAnswer, startWithDefaults } from './change-items';

const about = z.object({
  name: z.string().min(1, 'The file has no name.').max(300),
  parent: id,
  category: z.string().trim().max(200).nullable().default(null),
  alt: z.string().trim().max(500).default(''),
});

/** Puts a file on the site: below the site itself, or in a page, a post or a section. */
export async function uploadFile(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  bytes: Uint8Array,
  now: Date,
): Promise<ItemAnswer> {
  requirePermission(administrator, 'content');
  const parsed = about.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be taken.' };
  const read = await readFile(bytes, parsed.data.name);
  if ('problem' in read) return { kind: 'wrong', message: read.problem };
  return trivet.change(async (state): Promise<ItemAnswer> => {
    const { category, alt } = parsed.data;
    const parent = state.outline.items.get(asId<ItemId>(parsed.data.parent));
    if (!parent || !mayHold(parent.kind, 'file'))
      return { kind: 'wrong', message: 'Where it was to go is no longer there.' };
    requirePermissionAt(administrator, state.outline, [parent.id]);
    const siblings = state.outline.children.get(parent.id) ?? [];
    const stem = parsed.data.name
      .split(/[/\\]/)
      .at(-1)
      ?.replace(/\.[^.]*$/, '')
      .trim();
    const item: File = {
      kind: 'file',
      id: asId<ItemId>(randomUUID()),
      parent: parent.id,
      rank: Math.max(-1, ...siblings.map(({ rank }) => rank)) + 1,
      title: (stem || read.name).slice(0, 200),
      published: true,
      name: read.name,
      mediaType: read.mediaType,
      size: read.bytes.length,
      facts: { date: momentAt(state, now).today, ...(category && { category }) },
    };
    const stored: StoredItem = {
      item,
      content: { ...noContent, ...(read.picture && { picture: { ...read.picture, alt } }) },
    };
    await trivet.db.transaction(async (tx) => {
      await insertItems(tx, [stored], 'changed');
      await writeFileBytes(tx, item.id, read.bytes);
      await indexItems(tx, [stored], state.live.compiled.vocabulary);
      await startWithDefaults(tx, administrator, state, item);
    });
    return { kind: 'done', item: item.id, removal: null, summary: `New file: ${item.title}` };
  });
}
