/** What is written, named, shown, moved and learnt: each is open or closed by one register, and can be set to either. */
import { answerOf } from './answer';
import type { Value } from './oracle';
import type { Processes } from './processes';
import { MARK } from './site';

type Desk = (method: string, path: string, body?: unknown) => Promise<Response>;

export interface Setting {
  readonly name: string;
  readonly path: string;
  /** How it is set, once everything else that this takes is done; null where that can't be done just now. */
  readonly set: (value: Value) => Promise<(() => Promise<Response>) | null>;
  /** Whether it is so in the database. */
  readonly isThere: (value: Value) => Promise<boolean>;
}

interface Writing {
  readonly version: number;
  readonly live: { readonly sections: readonly object[] };
  readonly draft: { readonly version: number } | null;
}

/** Puts another text on a page, by way of a draft. */
async function writes(desk: Desk, text: string): Promise<(() => Promise<Response>) | null> {
  const writing = await answerOf<Writing>(desk('GET', '/desk/api/items/written'));
  if (!writing) return null;
  const { version, live, draft } = writing;
  const document = { ...live, sections: live.sections.map((section) => ({ ...section, text })) };
  const kept = await answerOf<{ readonly version: number }>(
    desk('PUT', '/desk/api/items/written/draft', { version: draft?.version ?? 0, document }),
  );
  if (!kept) return null;
  return () => desk('POST', '/desk/api/items/written/send', { version, draft: kept.version });
}

/** Everything of the content that can be set; `learner` is who is done with something, or is not. */
export function settingsOf(desk: Desk, processes: Processes, learner: string): readonly Setting[] {
  const found = async (text: string, value: Value): Promise<boolean> =>
    (await processes.ask(text)).length > 0 === (value === 'open');
  const isItem = (id: string, where: string) => (value: Value) =>
    found(`select 1 from items where id = '${id}' and ${where}`, value);
  const changes =
    (body: (open: boolean) => object): Setting['set'] =>
    async (value) =>
    () =>
      desk('POST', '/desk/api/items', body(value === 'open'));
  return [
    {
      name: 'A text',
      path: '/written',
      set: (value) => writes(desk, value === 'open' ? MARK : 'Nothing any more.'),
      isThere: (value) =>
        found(`select 1 from items where 'written' in (id, parent) and body like '%${MARK}%'`, value),
    },
    {
      name: 'A title',
      path: '/titled',
      set: changes((open) => ({ kind: 'rename', item: 'titled', title: open ? MARK : 'Another' })),
      isThere: isItem('titled', `title = '${MARK}'`),
    },
    {
      name: 'What is shown',
      path: '/shown',
      set: changes((published) => ({ kind: 'publish', items: ['shown'], published, leaving: true })),
      isThere: isItem('shown', 'published'),
    },
    {
      name: 'What is moved',
      path: '/moved',
      set: changes((open) => ({
        kind: 'move',
        moves: [{ item: 'moved', parent: open ? 'site' : 'shut', before: null }],
        leaving: true,
      })),
      isThere: isItem('moved', "parent = 'site'"),
    },
    {
      name: 'What opens to a learner',
      path: '/course/second',
      set: async (value) => () =>
        desk('POST', `/desk/api/courses/course/learners/${learner}`, {
          activity: 'first',
          done: value === 'open',
          why: 'The fault test',
        }),
      isThere: (value) =>
        found(`select 1 from completions where person = '${learner}' and activity = 'first'`, value),
    },
  ];
}
