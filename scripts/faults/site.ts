/** The site that is changed while processes are killed: what is open on each of its pages hangs on one thing alone. */
import { parts, type SiteFile } from '../../src/services';

export const MEMBERS = 4;
export const GROUPS = 3;
export const PRODUCTS = 40;
export const PASSWORD = 'under the stairs';
export const OWNER = 'owner@larkfell.example';
export const memberMail = (at: number): string => `member-${at}@larkfell.example`;
/** Stands on a page that is open to whoever asks, and nowhere else. */
export const MARK = 'What stands here is for some';

const page = (id: string, address: string, parent = 'site', body = MARK) =>
  parts.page(id, parent, id, address, '', body);
const gate = (id: string, who: string) => parts.gate(id, parts.item(id), who, parts.missing);
const counted = <T>(count: number, make: (at: number) => T): T[] =>
  Array.from({ length: count }, (_, at) => make(at));

export const faultySite: SiteFile = {
  format: 'trivet site',
  version: 1,
  levels: [],
  roles: [],
  groups: counted(GROUPS, (at) => ({ id: `group-${at}`, name: `Group ${at}`, open: true })),
  products: counted(PRODUCTS, (at) => ({ id: `product-${at}`, name: `Product ${at}`, kind: 'one-off' })),
  people: [
    {
      id: 'owner',
      name: 'Olga',
      email: OWNER,
      password: PASSWORD,
      desk: { right: 'owner', branch: null },
    },
    ...counted(MEMBERS, (at) => ({
      id: `member-${at}`,
      name: `Member ${at}`,
      email: memberMail(at),
      password: PASSWORD,
      enrolments: [{ course: 'course', on: '2026-01-01' }],
    })),
  ],
  items: [
    { kind: 'site', id: 'site', parent: null, title: 'Three processes' },
    { kind: 'page', id: 'home', parent: 'site', title: 'Home', address: '/', body: 'Open to everybody.' },
    page('board', '/board'),
    page('members', '/members'),
    page('written', '/written', 'site', 'Nothing yet.'),
    page('titled', '/titled', 'site', 'Its title changes.'),
    { ...page('shown', '/shown'), published: false },
    page('shut', '/shut'),
    page('moved', '/moved', 'shut'),
    parts.course('course', 'Course', '/course', '', 'Two things to do.'),
    parts.unit('unit', 'course', 'Unit'),
    parts.reading('first', 'unit', 'First', '/course/first', 'Read this.'),
    parts.reading('second', 'unit', 'Second', '/course/second', MARK),
    ...counted(GROUPS, (at) => page(`in-${at}`, `/in/${at}`)),
    ...counted(PRODUCTS, (at) => page(`of-${at}`, `/of/${at}`)),
  ],
  policy: {
    gates: [
      gate('board', 'nobody'),
      gate('members', 'signed in'),
      parts.gate('shut', parts.branch('shut'), 'nobody', parts.missing),
      gate('second', 'completed "First"'),
      ...counted(GROUPS, (at) => gate(`in-${at}`, `in group "Group ${at}"`)),
      ...counted(PRODUCTS, (at) => gate(`of-${at}`, `owns "Product ${at}"`)),
    ],
  },
};
