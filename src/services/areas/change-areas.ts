/** Areas that are there: another name, other people, taken away; and the latest step taken back. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  type Area,
  areasIn,
  asId,
  below,
  conditionsOfGate,
  counted,
  describeWhat,
  expanded,
  foldCase,
  type GroupId,
  type Item,
  type ItemId,
  isAddressed,
  listed,
  type PersonId,
  rebase,
  same,
  testsIn,
  withoutAreas,
} from '@/core';
import {
  type AreaStep,
  markAreaStepUndone,
  markUndone,
  readAreaStep,
  readWithoutPassword,
  type StoredItem,
} from '@/store';
import { id } from '../forms';
import { newcomer, putInvitations } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, momentAt, type Person, recordOf, requirePermission } from '../running';
import { contentOf } from '../view';
import { goingWith, problemIn, turnsLost } from '../writing';
import { itemsAfter, siteAfter } from './after';
import { MOST_AREAS, MOST_IN_ONE, peopleIn as peopleInText } from './area-form';
import { makeStep, writeStep } from './area-step';
import { newlyBroken } from './newly-broken';

export type AreaAnswer =
  | { readonly kind: 'done'; readonly step: string | null; readonly summary: string; readonly told: string }
  | { readonly kind: 'wrong'; readonly message: string; readonly line?: number };

const wrong = (message: string, line?: number): AreaAnswer => ({
  kind: 'wrong',
  message,
  ...(line !== undefined && { line }),
});
const GONE = 'That area is no longer there.';

const areaOf = ({ live }: SiteState, page: string): Area | undefined =>
  areasIn(live.policy).find((area) => area.page === page);

/** What a step leaves as it is. */
const nothing = ({ draft, live }: SiteState): AreaStep => ({
  items: [],
  groups: [],
  accounts: [],
  members: [],
  draft: { before: draft.policy, after: draft.policy },
  live: { before: live.policy, after: live.policy },
});

const sinceOf = ({ groupsSince }: Pick<Person, 'groupsSince'>, group: GroupId): string | null =>
  groupsSince[group] ?? null;

const storedIn = (state: SiteState, item: Item): StoredItem => ({ item, content: contentOf(state, item.id) });

const renaming = z.strictObject({
  page: id,
  name: z.string().trim().min(1, 'Give it a name.').max(100, 'A name has at most 100 letters.'),
});

/** Calls an area something else: its page, its group, and the menu links that were called like it. Addresses stay. */
export async function renameArea(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<AreaAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = renaming.safeParse(input);
  if (!parsed.success) return wrong(parsed.error.issues[0]?.message ?? GONE);
  const { page, name } = parsed.data;
  return trivet.change(async (state): Promise<AreaAnswer> => {
    const area = areaOf(state, page);
    const top = area && state.outline.items.get(area.page);
    const group = state.names.groups.find((one) => one.id === area?.group);
    if (!area || !top || !group) return wrong(GONE);
    if (state.names.groups.some((one) => one !== group && foldCase(one.name) === foldCase(name)))
      return wrong(`There is a group called “${name}” already. Choose another name.`);
    const called = [...state.outline.items.values()].filter(
      (item) =>
        item.id === top.id ||
        (item.kind === 'link' &&
          item.target.kind === 'item' &&
          item.target.item === top.id &&
          item.title === top.title),
    );
    const step: AreaStep = {
      ...nothing(state),
      items: called.map((item) => ({
        before: storedIn(state, item),
        after: storedIn(state, { ...item, title: name }),
      })),
      groups: [{ before: group, after: { ...group, name } }],
    };
    const summary = `${top.title} is now called ${name}`;
    const made = await makeStep(trivet, state, step, { summary, by: administrator.name, now });
    return { kind: 'done', step: made, summary, told: `${summary}. Its address stays.` };
  });
}

const handing = z.strictObject({
  page: id,
  /** Everybody who is to have it, a person a line. */
  people: z.string().max(100_000, 'That are too many people for one area.'),
  invite: z.boolean(),
  /** Whether it is to be done, or only said. */
  look: z.boolean(),
});

/** Gives an area to these people and to nobody else: who is not among them leaves its group. */
export async function handOverArea(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<AreaAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = handing.safeParse(input);
  if (!parsed.success) return wrong(parsed.error.issues[0]?.message ?? GONE);
  const { page, invite, look } = parsed.data;
  const { people, problems } = peopleInText(parsed.data.people);
  const [first] = problems;
  if (first) return wrong(first.message, first.line ?? undefined);
  if (people.length > MOST_IN_ONE) return wrong(`At most ${MOST_IN_ONE} people are given an area at once.`);
  const plan = (state: SiteState) => {
    const area = areaOf(state, page);
    const group = state.names.groups.find((one) => one.id === area?.group);
    if (!area || !group) return null;
    const { today } = momentAt(state, now);
    const byMail = new Map([...state.people.values()].map((one) => [one.email, one]));
    const have = [...state.people.values()].filter(({ groups }) => groups.includes(group.id));
    const kept = new Set(people.map(({ email }) => email));
    const accounts = people
      .filter(({ email }) => !byMail.has(email))
      .map((one) => newcomer(asId<PersonId>(randomUUID()), one, today));
    const comes = people.flatMap(({ email }) => {
      const there = byMail.get(email);
      return there && !there.groups.includes(group.id) ? [there] : [];
    });
    const leaves = have.filter(({ email }) => !kept.has(email));
    const step: AreaStep = {
      ...nothing(state),
      accounts: accounts.map((one) => ({
        before: null,
        after: { ...one, groups: [group.id], groupsSince: { [group.id]: today } },
      })),
      members: [
        ...comes.map((one) => ({ person: one.id, group: group.id, in: true, since: today })),
        ...leaves.map((one) => ({
          person: one.id,
          group: group.id,
          in: false,
          since: sinceOf(one, group.id),
        })),
      ],
    };
    const names = (list: readonly { readonly name: string }[]) =>
      list.length > 5 ? counted(list.length, 'person', 'people') : listed(list.map(({ name }) => name));
    const told = [
      ...(accounts.length + comes.length > 0 ? [`In comes ${names([...accounts, ...comes])}.`] : []),
      ...(leaves.length > 0 ? [`Out goes ${names(leaves)}.`] : []),
    ].join(' ');
    return { step, told, group, accounts, comes, changes: accounts.length + comes.length + leaves.length };
  };
  if (look) {
    const planned = plan(trivet.state);
    if (!planned) return wrong(GONE);
    return { kind: 'done', step: null, summary: '', told: planned.told || 'Nobody comes or goes.' };
  }
  return trivet.change(async (state): Promise<AreaAnswer> => {
    const planned = plan(state);
    if (!planned) return wrong(GONE);
    const { step, told, group, accounts, comes, changes } = planned;
    if (changes === 0) return wrong('These are the people who have it already.');
    const without = await readWithoutPassword(
      trivet.db,
      comes.map((one) => one.id),
    );
    const invited = invite ? [...accounts, ...comes.filter((one) => without.has(one.id))] : [];
    const summary = `Other people at ${group.name}: ${changes}`;
    const made = await makeStep(trivet, state, step, {
      summary,
      by: administrator.name,
      now,
      alongside: (tx) => putInvitations(tx, state, administrator, invited, now),
    });
    return { kind: 'done', step: made, summary, told };
  });
}

const going = z.strictObject({
  pages: z.array(id).min(1, 'Choose an area first.').max(MOST_AREAS, `At most ${MOST_AREAS} go at once.`),
  look: z.boolean(),
});

/** What taking areas away would come to, or that it is done. */
export interface GoingReport {
  readonly kind: 'report';
  /** The areas by name. */
  readonly names: readonly string[];
  readonly pages: number;
  /** The people who lose them; their accounts stay. */
  readonly people: number;
  /** Menu links that go along. */
  readonly links: number;
  /** Gates outside of them that ask for their groups, and would be passed by nobody on that account. */
  readonly asking: readonly string[];
}

/** Takes areas away: pages, groups, gates, landing rules, expectations and links. People keep their accounts. */
export async function takeAreasAway(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<AreaAnswer | GoingReport> {
  requirePermission(administrator, 'everything');
  const parsed = going.safeParse(input);
  if (!parsed.success) return wrong(parsed.error.issues[0]?.message ?? GONE);
  const plan = (state: SiteState) => {
    const wanted = new Set<string>(parsed.data.pages);
    const areas = areasIn(state.live.policy).filter(({ page }) => wanted.has(page));
    if (areas.length < wanted.size || areas.some(({ page }) => !state.outline.items.has(page))) return GONE;
    const items = goingWith(state.outline, ...areas.map(({ page }) => page));
    const gone = new Set(items.map((one) => one.id));
    const home = items.find((item) => isAddressed(item) && item.address === '/');
    if (home)
      return `${home.title} is the first page of the site. Give another page the address / before this goes.`;
    const lost = turnsLost(
      state,
      [...state.outline.items.values()].filter((item) => !gone.has(item.id)),
    );
    if (lost.length > 0)
      return `Without them, ${listed(lost)}. Change that gate first; nothing was taken away.`;
    const ids = new Set<GroupId>(areas.map(({ group }) => group));
    const groups = state.names.groups.filter((one) => ids.has(one.id));
    const people = [...state.people.values()].filter((one) => one.groups.some((group) => ids.has(group)));
    const step: AreaStep = {
      items: items.map((item) => ({ before: storedIn(state, item), after: null })),
      groups: groups.map((before) => ({ before, after: null })),
      accounts: [],
      members: people.flatMap((one) =>
        one.groups
          .filter((group) => ids.has(group))
          .map((group) => ({ person: one.id, group, in: false, since: sinceOf(one, group) })),
      ),
      draft: {
        before: state.draft.policy,
        after: withoutAreas(state.draft.policy, areas, state.outline),
      },
      live: { before: state.live.policy, after: withoutAreas(state.live.policy, areas, state.outline) },
    };
    return { step, areas, items, groups, people };
  };
  if (parsed.data.look) {
    const planned = plan(trivet.state);
    return typeof planned === 'string' ? wrong(planned) : reportOnGoing(planned, trivet.state);
  }
  return trivet.change(async (state): Promise<AreaAnswer> => {
    const planned = plan(state);
    if (typeof planned === 'string') return wrong(planned);
    const broken = await brokenBy(planned.step, state, now);
    if (broken) return wrong(broken);
    const names = planned.groups.map(({ name }) => name);
    const summary =
      names.length === 1 ? `Taken away: the area ${names[0]}` : `Taken away: ${names.length} areas`;
    const made = await makeStep(trivet, state, planned.step, { summary, by: administrator.name, now });
    return { kind: 'done', step: made, summary, told: `${summary}.` };
  });
}

function reportOnGoing(
  {
    step,
    areas,
    items,
    groups,
    people,
  }: {
    readonly step: AreaStep;
    readonly areas: readonly Area[];
    readonly items: readonly Item[];
    readonly groups: readonly { readonly name: string }[];
    readonly people: readonly unknown[];
  },
  state: SiteState,
): GoingReport {
  const left = new Set(step.live.after.gates.map((gate) => gate.id));
  const ids = new Set<string>(areas.map(({ group }) => group));
  const asks = state.live.policy.gates.filter(
    (gate) =>
      left.has(gate.id) &&
      conditionsOfGate(gate).some((condition) =>
        testsIn(expanded(condition, state.live.policy.audiences)).some(
          ({ fact, value }) => fact === 'group' && ids.has(String(value)),
        ),
      ),
  );
  return {
    kind: 'report',
    names: groups.map(({ name }) => name),
    pages: items.filter(({ kind }) => kind === 'page').length,
    people: people.length,
    links: items.filter(({ kind }) => kind === 'link').length,
    asking: asks.map(({ what }) => describeWhat(what, state.outline, state.live.compiled.vocabulary)),
  };
}

/** Takes the step of an id back, if what it touched is as it left it. */
export async function takeAreaStepBack(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<AreaAnswer> {
  requirePermission(administrator, 'everything');
  const which = typeof input === 'string' && input.length <= 100 ? input : '';
  return trivet.change(async (state): Promise<AreaAnswer> => {
    const made = await readAreaStep(trivet.db, which);
    if (!made || made.undone) return wrong('That was taken back already.');
    const back = await stepBack(trivet, state, made.step);
    if (typeof back === 'string') return wrong(`${back} Nothing was taken back.`);
    const problem = problemIn(itemsAfter(state, back));
    if (problem !== null) return wrong(`${problem} Nothing was taken back.`);
    const broken = await brokenBy(back, state, now);
    if (broken) return wrong(broken);
    const summary = `Taken back: ${made.summary}`;
    await trivet.db.transaction(async (tx) => {
      await writeStep(tx, state, back, {
        id: randomUUID(),
        summary,
        by: administrator.name,
        now,
      });
      await markAreaStepUndone(tx, which);
      await markUndone(tx, which);
    });
    const gone = back.accounts.flatMap(({ before, after }) => (before && !after ? [before.id] : []));
    for (const person of gone) trivet.forgetSessionsOf(person);
    return { kind: 'done', step: null, summary, told: `${summary}.` };
  });
}

/** A step the other way round; or what has changed since, in a sentence. */
async function stepBack({ db }: Trivet, state: SiteState, step: AreaStep): Promise<AreaStep | string> {
  const { outline, names, people } = state;
  const made = new Set(step.items.flatMap(({ after }) => (after ? [after.item.id] : [])));
  for (const { before, after } of step.items) {
    const item = outline.items.get((after ?? before)?.item.id as ItemId);
    if (!after && item) return `“${item.title}” is there again.`;
    if (!after) continue;
    if (!item) return `“${after.item.title}” was taken away since.`;
    if (!same(bare(item), bare(after.item)) || !same(contentOf(state, item.id), after.content))
      return `“${item.title}” was changed since.`;
    if (before) continue;
    const other = below(outline, item.id).find(({ id: one }) => !made.has(one));
    if (other) return `“${other.title}” came since.`;
  }
  for (const { before, after } of step.groups) {
    const group = names.groups.find((one) => one.id === (after ?? before)?.id);
    if (!after && group) return `The group “${group.name}” is there again.`;
    if (after && !same(group, after)) return `The group “${after.name}” was changed since.`;
    if (!after && before && names.groups.some((one) => foldCase(one.name) === foldCase(before.name)))
      return `There is another group called “${before.name}”.`;
  }
  const policies = {
    draft: rebase(step.draft.after, step.draft.before, state.draft.policy),
    live: rebase(step.live.after, step.live.before, state.live.policy),
  };
  if (policies.draft.contested.length > 0 || policies.live.contested.length > 0)
    return 'The gates over them were changed since.';
  const taken = new Set(step.groups.flatMap(({ before, after }) => (after && !before ? [after.id] : [])));
  const brought = step.accounts.flatMap(({ after }) => (after ? [after.id] : []));
  const without = await readWithoutPassword(db, brought);
  // Whoever has come in meanwhile, or is not as they were, stays.
  const unused = step.accounts.flatMap(({ after }) => {
    const person = after && people.get(after.id);
    return person && without.has(person.id) && same(recordOf(person), after) ? [recordOf(person)] : [];
  });
  const going = new Set(unused.map((one) => one.id));
  return {
    items: step.items.map(({ before, after }) => ({ before: after, after: before })),
    groups: step.groups.map(({ before, after }) => ({ before: after, after: before })),
    accounts: unused.map((before) => ({ before, after: null })),
    members: [
      ...step.members.map((one) => ({ ...one, in: !one.in })),
      ...[...people.values()].flatMap((person) =>
        going.has(person.id)
          ? []
          : person.groups
              .filter((group) => taken.has(group))
              .map((group) => ({ person: person.id, group, in: false, since: sinceOf(person, group) })),
      ),
      // Of those who came with it and stay, whoever came in with a group that stays leaves it.
      ...step.accounts.flatMap(({ after }) =>
        after && people.has(after.id) && !going.has(after.id)
          ? after.groups.map((group) => ({
              person: after.id,
              group,
              in: false,
              since: sinceOf(after, group),
            }))
          : [],
      ),
    ],
    draft: { before: state.draft.policy, after: policies.draft.policy },
    live: { before: state.live.policy, after: policies.live.policy },
  };
}

/** An item but for what is worked out of where it stands. */
const bare = ({ within: _, rank: __, ...item }: Item): unknown => item;

/** What a step would break that is expected and holds now, in a sentence; null where it breaks nothing. */
async function brokenBy(step: AreaStep, state: SiteState, now: Date): Promise<string | null> {
  const [first] = await newlyBroken(siteAfter(state, step), state, now);
  return first ? `Expected is: ${first.expected}. Then, ${first.instead} Nothing was done.` : null;
}
