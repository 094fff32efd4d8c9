import type { ItemId } from '@/core';
import type { Answer } from '../service';

const LARGEST = 20_000_000;

/** Puts a file on the site. What it is, the server says by its content. */
export async function upload(file: File, parent: ItemId): Promise<Answer<{ readonly item: ItemId }>> {
  const refused = (title: string, status = 0): Answer<never> => ({ ok: false, status, title, body: {} });
  if (file.size > LARGEST)
    return refused(`${file.name} is larger than ${LARGEST / 1_000_000} MB. Make it smaller.`);
  try {
    const about = new URLSearchParams({ name: file.name, parent });
    const response = await fetch(`/desk/api/files?${about}`, { method: 'POST', body: file });
    const value = await response.json().catch(() => ({}));
    return response.ok
      ? { ok: true, value }
      : refused(
          typeof value.title === 'string' ? value.title : 'The server refused this file.',
          response.status,
        );
  } catch {
    return refused('The server can’t be reached. Try again.');
  }
}
