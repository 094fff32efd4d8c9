/** Pages that list the posts of a category, or with a tag. */
import { viewList } from '@/services';
import { keptDocument, madeDocument } from './documents';
import type { Ask, Door } from './door';
import { missing } from './page';

const listing = (of: 'category' | 'tag'): Door => ({
  GET: (ask: Ask) => {
    const [slug, ...more] = ask.rest;
    const page = Number(ask.url.searchParams.get('page') ?? '1');
    if (!slug || more.length > 0 || !Number.isInteger(page) || page < 1 || page > 100_000)
      return missing(ask);
    const name = slug.normalize('NFC').toLowerCase();
    const what = { part: 'lists', name: `${of} ${name} ${page}` } as const;
    return keptDocument(ask, what) ?? madeDocument(ask, what, (view) => viewList(view, of, name, page));
  },
});

export const category = listing('category');
export const tag = listing('tag');
