/** The areas there are: their people, when they were last there, and what is wrong with each. */
import {
  type Area,
  areasIn,
  below,
  breakdownOf,
  conditionsOfPolicy,
  counted,
  countOf,
  decide,
  guest,
  type ItemId,
  isAddressed,
  isOpenable,
  without,
} from '@/core';
import { type AreaStepMade, readAreaSteps, readAreaVisits, readUnanswered } from '@/store';
import { type MembershipView, membershipOf } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, type Person, plainRequest, requirePermission, yielder } from '../running';
import { MOST_IN_ONE } from './area-form';

export interface AreaInList {
  readonly page: ItemId;
  readonly name: string;
  readonly address: string;
  readonly group: string;
  readonly gate: string;
  readonly people: number;
  /** Their names and mail addresses, as they are typed; null where there are more than can be typed. */
  readonly list: string | null;
  /** How many were invited and have not answered. */
  readonly waiting: number;
  /** The last day on which one of them was there; null where nobody was, or it is not kept. */
  readonly lastVisit: string | null;
  /** Whether it is expected that nobody else ever opens it. */
  readonly expected: boolean;
  /** What is wrong, in sentences. */
  readonly wrong: readonly string[];
}

export interface AreaList {
  readonly areas: readonly AreaInList[];
  /** What was done lately and can be taken back, the newest first. */
  readonly steps: readonly AreaStepMade[];
}

const MOST_STEPS = 10;
const MOST_WAITING = 10_000;

/** Every area that is live. */
export async function listAreas(trivet: Trivet, administrator: Administrator, now: Date): Promise<AreaList> {
  requirePermission(administrator, 'people');
  const { state } = trivet;
  const visits = await readAreaVisits(trivet.db);
  const unanswered = new Set((await readUnanswered(trivet.db, MOST_WAITING)).map(({ person }) => person));
  const peopleOf = peopleByGroup(state);
  const { compiled, policy } = state.live;
  const membership = await membershipOf(state, compiled.vocabulary, now, conditionsOfPolicy(policy));
  const inDraft = new Set(areasIn(state.draft.policy).map(({ page, group }) => `${page} ${group}`));
  const rest = yielder();
  const areas: AreaInList[] = [];
  for (const area of areasIn(state.live.policy)) {
    const page = state.outline.items.get(area.page);
    const group = state.names.groups.find(({ id }) => id === area.group);
    if (!isAddressed(page)) continue;
    const people = peopleOf.get(area.group) ?? [];
    areas.push({
      page: area.page,
      name: page.title,
      address: page.address,
      group: group?.name ?? '',
      gate: area.gate.id,
      people: people.length,
      list:
        people.length > MOST_IN_ONE ? null : people.map(({ name, email }) => `${name}, ${email}`).join('\n'),
      waiting: people.filter(({ id }) => unanswered.has(id)).length,
      lastVisit: visits.get(area.page) ?? null,
      expected: area.expectation !== null,
      wrong: [
        ...(inDraft.has(`${area.page} ${area.group}`) ? [] : ['The draft no longer has it so.']),
        ...wrongWith(area, people, membership, state, now),
      ],
    });
    await rest();
  }
  return { areas, steps: await readAreaSteps(trivet.db, MOST_STEPS) };
}

function peopleByGroup({ people }: SiteState): ReadonlyMap<string, Person[]> {
  const found = new Map<string, Person[]>();
  for (const person of people.values())
    for (const group of person.groups) {
      const list = found.get(group);
      if (list) list.push(person);
      else found.set(group, [person]);
    }
  return found;
}

function wrongWith(
  area: Area,
  people: readonly Person[],
  { columns, select }: MembershipView,
  state: SiteState,
  now: Date,
): readonly string[] {
  const { live, outline, names } = state;
  const request = plainRequest(state, now);
  const page = outline.items.get(area.page);
  const told: string[] = [];
  if (!names.groups.some(({ id }) => id === area.group)) told.push('Its group is gone, so nobody gets in.');
  else if (people.length === 0) told.push('Nobody is in it.');
  if (page && !page.published) told.push('Its page is not published.');
  else {
    const out = people.filter(
      ({ facts }) => decide(live.compiled, area.page, facts, request).kind !== 'open',
    ).length;
    if (out > 0)
      told.push(
        `${counted(out, 'of its people doesn’t', 'of its people don’t')} get in: another gate keeps them out.`,
      );
  }
  const meant = select(area.gate.who).bits;
  const others = new Set<string>();
  for (const item of below(outline, area.page)) {
    if (!isOpenable(item)) continue;
    const open = breakdownOf(live.compiled, item.id, columns, request)?.open.bits;
    const more = open ? countOf(without(open, meant)) : 0;
    if (decide(live.compiled, item.id, guest, request).kind === 'open')
      others.add(`Guests open “${item.title}”.`);
    else if (more > 0) others.add(`${counted(more, 'other opens', 'others open')} “${item.title}”.`);
  }
  told.push(...[...others].slice(0, 3));
  if (area.expectation === null && others.size === 0)
    told.push('Nothing expects that nobody else ever opens it.');
  return told;
}
