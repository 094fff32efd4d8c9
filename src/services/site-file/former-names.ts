/**
 * Files from when courses and activities were no more than names: what a condition or a record means by one of them is an
 * item with the same id, which nobody sees until somebody has written and published it.
 */
import type { SiteFileRead } from './site-file-form';

type Entry = SiteFileRead['items'][number];

/** The activities of before stand together in one unit. */
const TOGETHER = 'Activities';

/** The items that the names of such a file become. */
export function itemsOfNames({ items, courses, activities }: SiteFileRead): readonly Entry[] {
  const taken = new Set(items.map(({ id }) => id));
  const root = items.find(({ kind }) => kind === 'site')?.id ?? null;
  const base = (id: string, parent: string | null, title: string) => ({
    id,
    parent,
    title,
    published: false,
  });
  const page = (address: string) => ({ address, summary: '', body: '', sections: [], formerly: [] });
  const course = (id: string, title: string): Entry => ({
    kind: 'course',
    ...base(id, root, title),
    ...page(`/courses/${id}`),
  });
  const free = (id: string): string => (taken.has(id) ? free(`${id}-too`) : id);
  const made = courses.filter(({ id }) => !taken.has(id)).map(({ id, name }) => course(id, name));
  const done = activities.filter(({ id }) => !taken.has(id));
  if (done.length === 0) return made;
  const [whole, unit] = [free('activities-of-before'), free('activities-of-before-unit')];
  return [
    ...made,
    course(whole, TOGETHER),
    { kind: 'unit', ...base(unit, whole, TOGETHER) },
    ...done.map(
      ({ id, name }): Entry => ({
        kind: 'activity',
        activity: 'reading',
        ...base(id, unit, name),
        ...page(`/courses/${whole}/${id}`),
      }),
    ),
  ];
}
