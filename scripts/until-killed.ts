/**
 * Changes a site over and over until it is killed, for the test that kills it. Each change marks everything that it touches
 * with one number, so that a mixture of two states shows. On starting, it checks what the last one left behind.
 */
import { strToU8, zipSync } from 'fflate';
import { type Address, asId, type GateId, type ItemId, type Policy, signedIn } from '../src/core';
import {
  administratorOf,
  beginAttempt,
  changeItem,
  completeActivity,
  editSettings,
  fileOverSite,
  handIn,
  handInsWaiting,
  importSite,
  judge,
  makeAreas,
  openSettings,
  plainRequest,
  putLive,
  type SiteFile,
  saveDraft,
  sendFolder,
  Trivet,
  takeAnswers,
  takeAreaStepBack,
  takeBackIn,
  takeIn,
} from '../src/services';

const [folder = '', how = '', look = ''] = process.argv.slice(2);
const say = (line: string) => process.stdout.write(`${line}\n`);

/** More than anybody gets done with before the last kill. */
const ACTIVITIES = how === 'learn' ? 2000 : 0;
/** By turns a reading, a quiz, which whoever hands it in has passed, and a hand-in, which is accepted. */
const typeOf = (at: number) => (['reading', 'quiz', 'hand-in'] as const)[at % 3] ?? 'reading';
const quiz = {
  passMark: 0,
  questions: [{ kind: 'text' as const, id: 'q', text: 'Mark?', accepted: ['mark'] }],
};
const GATES = 20;
const PAGES = 20;

const policyOf = (mark: number): Policy => ({
  gates: Array.from({ length: GATES }, (_, at) => ({
    id: asId<GateId>(`g${at}`),
    what: { targets: [{ kind: 'item', item: asId<ItemId>(`p${at % PAGES}`) }], except: [] },
    who: signedIn,
    otherwise: {
      cases: [],
      last: { kind: 'message', reason: { kind: 'own', text: `mark ${mark}` }, next: { kind: 'none' } },
    },
    stance: 'also',
  })),
  audiences: [],
  turnAways: [],
  landings: [],
  defaults: [],
  expectations: [],
});

const courseOf = (mark: number): SiteFile['items'] => [
  { kind: 'course', id: 'course', parent: 'site', title: `mark ${mark}`, address: '/course' },
  { kind: 'unit', id: 'unit', parent: 'course', title: `mark ${mark}` },
  ...Array.from({ length: ACTIVITIES }, (_, at) => ({
    kind: 'activity' as const,
    id: `a${at}`,
    parent: 'unit',
    title: `mark ${mark}`,
    address: `/course/a${at}`,
    activity: typeOf(at),
    ...(typeOf(at) === 'quiz' && { quiz }),
  })),
];

const fileOf = (mark: number): SiteFile => ({
  format: 'trivet site',
  version: 1,
  levels: [],
  roles: [{ id: 'role', name: `mark ${mark}` }],
  groups: [],
  people: [
    {
      id: 'owner',
      name: `mark ${mark}`,
      email: 'owner@larkfell.example',
      desk: { right: 'owner', branch: null },
    },
  ],
  items: [
    { kind: 'site', id: 'site', parent: null, title: `mark ${mark}` },
    { kind: 'page', id: 'home', parent: 'site', title: `mark ${mark}`, address: '/', body: `mark ${mark}` },
    ...Array.from({ length: PAGES }, (_, at) => ({
      kind: 'page' as const,
      id: `p${at}`,
      parent: 'site',
      title: `mark ${mark}`,
      // Half of the pages come and go.
      address: at < PAGES / 2 ? `/p${at}` : `/p${at}-${mark % 2}`,
      body: `mark ${mark}`,
    })),
    ...(ACTIVITIES > 0 ? courseOf(mark) : []),
  ],
  policy: policyOf(mark),
});

/** Areas have no marks, and neither has what is taken in: they are counted. */
const ofArea = (name: string) => /^(?:Area|Taken) /.test(name);
const AT_ONCE = 3;

/** Whether everything of every area is there. */
function areasWhole({ state }: Trivet): boolean {
  const { gates, landings, expectations } = state.live.policy;
  const areas = state.names.groups.length;
  const people = [...state.people.values()].filter(({ name }) => ofArea(name));
  return [
    gates.length - GATES,
    state.draft.policy.gates.length - GATES,
    landings.length,
    expectations.length,
    [...state.outline.items.values()].filter((item) => item.kind === 'page' && item.title.startsWith('Area '))
      .length,
    people.length,
    people.filter(({ groups }) => groups.length === 1).length,
  ].every((count) => count === areas);
}

/** Whether everything that was taken in is there, and nothing else of that kind. */
async function takingsWhole({ state, db }: Trivet): Promise<boolean> {
  const { rows } = await db.execute<{ items: readonly string[]; formerly: readonly string[] }>(
    'select items, formerly from takings where not undone',
  );
  const noted = rows.flatMap(({ items }) => items).toSorted();
  const pages = [...state.outline.items.values()].filter(
    (item) => item.kind === 'page' && item.title.startsWith('Taken '),
  );
  const there = pages.flatMap(({ id }) => [
    id,
    ...(state.outline.children.get(id) ?? []).map((one) => one.id),
  ]);
  const words = await db.execute<{ count: number }>(
    `select count(*)::int from search_texts where kind = 'text' and text like 'Words of %'`,
  );
  return (
    noted.join() === there.toSorted().join() &&
    words.rows[0]?.count === pages.length &&
    // Another first page has earlier addresses of its own.
    (how === 'move' || state.oldAddresses.size === rows.flatMap(({ formerly }) => formerly).length)
  );
}

/** Whether the site is in one language with its first page and with all that is searched: they change together. */
async function settingsWhole({ state, db }: Trivet): Promise<boolean> {
  const { rows } = await db.execute<{ config: string }>('select distinct config::text from search_texts');
  const [home, read] = state.settings.language === 'de' ? ['p0', 'german'] : ['home', 'english'];
  return (
    state.outline.addressed.get('/' as Address)?.id === home &&
    rows.map(({ config }) => config).join() === read
  );
}

/** A folder of pages as it is sent. */
const folderOf = (mark: number): ReadableStream<Uint8Array> => {
  const files = Array.from({ length: AT_ONCE }, (_, at): [string, Uint8Array] => [
    `${mark}-${at}.html`,
    strToU8(`<title>Taken ${mark} ${at}</title><main><p>Words of it</p></main>`),
  ]);
  return new Blob([new Uint8Array(zipSync(Object.fromEntries(files)))]).stream() as never;
};

/** Every mark that there is at one state of the site. */
function marksIn({ state }: Trivet): { readonly site: readonly string[]; readonly live: readonly string[] } {
  const told = (policy: Policy) =>
    policy.gates
      .slice(0, GATES)
      .map(({ otherwise }) => JSON.stringify(otherwise.last).match(/mark \d+/)?.[0] ?? 'none');
  return {
    site: [
      ...[...state.outline.items.values()].filter(({ kind }) => kind !== 'section').map(({ title }) => title),
      ...[...state.contents.values()]
        .map(({ body }) => body)
        .filter((body) => body !== '' && !body.startsWith('Words of ')),
      ...state.names.roles.map(({ name }) => name),
      ...[...state.people.values()].map(({ name }) => name),
    ].filter((one) => !ofArea(one)),
    live: told(state.live.policy),
  };
}

const only = (marks: readonly string[]): string | null => {
  const different = [...new Set(marks)];
  return different.length === 1 ? (different[0] ?? null) : null;
};

const trivet = await Trivet.open(folder);
if (!trivet.hasSite) {
  if (how === 'begin') say('whole nothing after 0');
  if (how === 'begin' && look !== '') process.exit(0);
  if (how === 'begin') say('begins');
  const problems = await importSite(trivet, fileOf(0), 'The test');
  if (problems.length > 0) throw new Error(problems.join('\n'));
}
const marks = marksIn(trivet);
const site = only(marks.site);
const live = only(marks.live);
/** What the pages that are moved together stand below. */
const moved = Array.from({ length: PAGES - 1 }, (_, at) => asId<ItemId>(`p${at + 1}`));
const parents = moved.map((id) => trivet.state.outline.items.get(id)?.parent ?? 'nothing');
/** What its owner is done with: one after the other, each once. */
const done = ([...trivet.state.people.values()][0]?.facts.completions ?? []).map(
  ({ item }) => item as string,
);
/** The quizzes that were handed in and the work that was accepted: those and no others are done. */
const handedIn = (
  await trivet.db.execute<{ activity: string }>(
    `select activity from quiz_attempts where finished is not null
     union all select activity from hand_ins where state = 'accepted'`,
  )
).rows.map(({ activity }) => activity);
const letters = (await trivet.db.execute<{ count: number }>('select count(*)::int from outbox')).rows[0]
  ?.count;
const isNoted = (one: string) => handedIn.includes(one) || typeOf(Number(one.slice(1))) === 'reading';
const inTurn =
  handedIn.every((one) => done.includes(one)) &&
  done.every(isNoted) &&
  // With each that is accepted goes a letter; invitations are told of elsewhere.
  (how === 'areas' ? 0 : letters) ===
    handedIn.filter((one) => typeOf(Number(one.slice(1))) === 'hand-in').length &&
  done.toSorted().join() ===
    done
      .map((_, at) => `a${at}`)
      .toSorted()
      .join();
const whole =
  site !== null &&
  live !== null &&
  (how !== 'import' || site === live) &&
  only(parents) !== null &&
  inTurn &&
  areasWhole(trivet) &&
  (await settingsWhole(trivet)) &&
  (await takingsWhole(trivet));
const changes =
  how === 'learn'
    ? done.length
    : how === 'move'
      ? trivet.state.versions.get(asId('p1'))
      : trivet.state.live.revision;
say(
  whole ? `whole ${live} after ${changes}` : `MIXED ${JSON.stringify({ ...marks, parents, done, handedIn })}`,
);
if (look !== '') {
  await trivet.close();
  process.exit(whole ? 0 : 1);
}

const person = [...trivet.state.people.values()].find(({ desk }) => desk !== null) ?? null;
const administrator = person && administratorOf({ person, facts: person.facts, session: 'test' });
if (!administrator) throw new Error('Nobody owns the site.');
for (let mark = how === 'areas' ? trivet.state.live.revision : Number(live?.slice(5) ?? 0) + 1; ; mark++) {
  say('begins');
  const now = new Date();
  if (how === 'learn') {
    const visitor = { person, facts: person.facts, session: 'test' };
    const next = `a${done.length + mark - 1}`;
    const request = plainRequest(trivet.state, now);
    const type = typeOf(done.length + mark - 1);
    if (type === 'hand-in') {
      const sent = await handIn(trivet, visitor, next, { text: 'mark', files: [] }, request, now);
      if (sent.kind !== 'handed in') throw new Error(`${next}: ${JSON.stringify(sent)}`);
      const [waits] = (await handInsWaiting(trivet, administrator, 'course'))?.list ?? [];
      const input = { course: 'course', handIn: waits?.id, accepts: true };
      const judged = await judge(trivet, administrator, input, now);
      if (judged.kind !== 'judged') throw new Error(`${next}: ${judged.message}`);
    } else if (type === 'quiz') {
      await beginAttempt(trivet, visitor, next, request, now);
      const form = { attempt: '1', do: 'hand in', q0: 'mark' };
      const taken = await takeAnswers(trivet, visitor, next, form, request, now);
      if (taken.kind !== 'handed in') throw new Error(`${next}: ${taken.kind}`);
    } else {
      const answer = await completeActivity(trivet, visitor, next, request, now);
      if (answer !== 'done') throw new Error(`${next}: ${answer}`);
    }
  } else if (how === 'import') {
    const looked = await fileOverSite(trivet, fileOf(mark), null, 'The test', now);
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    const taken = await fileOverSite(trivet, fileOf(mark), looked.report.basis, 'The test', now);
    if (taken.kind !== 'done') throw new Error(JSON.stringify(taken));
  } else if (how === 'areas') {
    const areas = Array.from({ length: AT_ONCE }, (_, at) => ({
      name: `Area ${mark} ${at}`,
      people: `Area ${mark} ${at}, area-${mark}-${at}@larkfell.example`,
    }));
    const like = { source: null, below: 'site', menu: null, also: { kind: 'nobody' } };
    const asked = { ...like, areas, lands: true, renames: false, invite: true };
    const looked = await makeAreas(trivet, administrator, { ...asked, basis: null }, now);
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    const made = await makeAreas(trivet, administrator, { ...asked, basis: looked.report.basis }, now);
    if (made.kind !== 'made') throw new Error(JSON.stringify(made));
    // Every other step is taken back.
    if (mark % 2 === 0) {
      say('begins');
      const back = await takeAreaStepBack(trivet, administrator, made.step, now);
      if (back.kind !== 'done') throw new Error(JSON.stringify(back));
    }
    // What is taken in comes and goes with them.
    const sent = await sendFolder(trivet, administrator, folderOf(mark), 'a folder');
    if (sent.kind !== 'sent') throw new Error(sent.message);
    const wishes = { above: 'site', posts: true, published: true, first: false, menu: null };
    const follow = { onProgress: () => undefined, signal: new AbortController().signal };
    const take = (basis: string | null) =>
      takeIn(trivet, administrator, { source: sent.source, wishes, basis }, now, follow);
    const report = await take(null);
    if (report.kind !== 'report') throw new Error(JSON.stringify(report));
    say('begins');
    const taken = await take(report.report.basis);
    if (taken.kind !== 'taken') throw new Error(JSON.stringify(taken));
    if (mark % 3 === 0) {
      say('begins');
      const back = await takeBackIn(trivet, administrator, taken.taking, now);
      if (back.kind !== 'done') throw new Error(JSON.stringify(back));
    }
  } else if (how === 'move') {
    const parent = trivet.state.outline.items.get(asId<ItemId>('p1'))?.parent === 'site' ? 'p0' : 'site';
    const moves = moved.map((item) => ({ item, parent, before: null }));
    const went = await changeItem(trivet, administrator, { kind: 'move', moves, leaving: true }, now);
    if (went.kind !== 'done') throw new Error(JSON.stringify(went));
    say('begins');
    const { given: _, ...settings } = openSettings(trivet, administrator);
    const other =
      settings.language === 'de' ? { language: 'en', home: 'home' } : { language: 'de', home: 'p0' };
    const wrong = await editSettings(trivet, administrator, { ...settings, ...other }, now);
    if (wrong !== null) throw new Error(JSON.stringify(wrong));
  } else {
    const saved = await saveDraft(trivet, administrator, {
      version: trivet.state.draft.version,
      policy: policyOf(mark),
    });
    if (saved.kind !== 'saved') throw new Error(JSON.stringify(saved));
    const { draft, live: now0 } = trivet.state;
    const put = await putLive(
      trivet,
      administrator,
      { version: draft.version, revision: now0.revision },
      now,
    );
    if (put.kind !== 'live') throw new Error(JSON.stringify(put));
  }
}
