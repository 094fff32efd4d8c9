/** Making areas: first what it would come to, then all of it in one step. */
import {
  areasIn,
  counted,
  decide,
  describeWhat,
  describeWho,
  listed,
  type PersonId,
  vocabularyOf,
} from '@/core';
import { readWithoutPassword } from '@/store';
import { putInvitations } from '../people';
import type { BrokenExpectation } from '../policy';
import type { SiteState, Trivet } from '../running';
import {
  type Administrator,
  momentAt,
  personOf,
  plainRequest,
  requirePermission,
  yielder,
  yieldToOthers,
} from '../running';
import { siteAfter } from './after';
import { type AreaProblem, type Making, makingForm, readWanted } from './area-form';
import { makeStep, peopleIn } from './area-step';
import { namedIn } from './copy-branch';
import { newlyBroken } from './newly-broken';
import { namesTaken, type Plan, planAreas } from './plan-areas';

/** What making areas would come to. */
export interface AreasReport {
  /** Names the site as it was looked at; what is then made has to name it. */
  readonly basis: string;
  readonly areas: readonly {
    readonly name: string;
    readonly address: string;
    readonly pages: number;
    readonly people: readonly { readonly name: string; readonly email: string; readonly isNew: boolean }[];
  }[];
  /** Everything that is made, in words: "3 groups", "3 gates" … */
  readonly makes: readonly string[];
  /** Who gets in, in words, of one of them. */
  readonly opensTo: string;
  /** How often the copied page's title stands in its texts; 0 where nothing is copied. */
  readonly named: number;
  /** Gates that stand already and will cover the copies too, in words. */
  readonly widened: readonly string[];
  /** Whom another gate would keep out of what is to be theirs, by area, in words. */
  readonly keptOut: readonly string[];
  /** What would no longer be as it is expected; nothing is made then. */
  readonly broken: readonly BrokenExpectation[];
}

export type MakingAnswer =
  | { readonly kind: 'report'; readonly report: AreasReport }
  | { readonly kind: 'problems'; readonly problems: readonly AreaProblem[] }
  /** Something changed since it was looked at. */
  | { readonly kind: 'stale'; readonly message: string }
  | { readonly kind: 'broken'; readonly message: string; readonly expectations: readonly BrokenExpectation[] }
  | { readonly kind: 'made'; readonly step: string; readonly summary: string };

const whole = (message: string): MakingAnswer => ({
  kind: 'problems',
  problems: [{ area: null, line: null, message }],
});

/** Looks at what areas would come to, or makes them once that was looked at. */
export async function makeAreas(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<MakingAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = makingForm.safeParse(input);
  if (!parsed.success)
    return whole(parsed.error.issues[0]?.message ?? 'Say which areas are to be made, and how.');
  const making = parsed.data;
  const { areas, problems } = await readWanted(making.areas);
  const plan = (state: SiteState): ReturnType<typeof planAreas> => {
    const all = [...problems, ...namesTaken(state, areas, !Array.isArray(making.areas))];
    return all.length > 0
      ? Promise.resolve({ problems: all })
      : planAreas(state, making, areas, momentAt(state, now).today);
  };
  if (making.basis === null) {
    const { state } = trivet;
    const planned = await plan(state);
    return 'problems' in planned
      ? { kind: 'problems', problems: planned.problems }
      : { kind: 'report', report: await reportOn(planned, making, state, now) };
  }
  return trivet.change(async (state): Promise<MakingAnswer> => {
    if (making.basis !== basisOf(state))
      return { kind: 'stale', message: 'The site was changed meanwhile. Look again; nothing was made.' };
    const planned = await plan(state);
    if ('problems' in planned) return { kind: 'problems', problems: planned.problems };
    const broken = await newlyBroken(siteAfter(state, planned.step), state, now);
    if (broken.length > 0)
      return {
        kind: 'broken',
        message: 'Something would no longer be as it is expected, so nothing was made.',
        expectations: broken,
      };
    const summary = madeInWords(planned);
    const invited = making.invite ? await invitedBy(trivet, planned) : [];
    const step = await makeStep(trivet, state, planned.step, {
      summary,
      by: administrator.name,
      now,
      files: planned.files,
      alongside: (tx) => putInvitations(tx, state, administrator, invited, now),
    });
    return { kind: 'made', step, summary };
  });
}

/** The site as it was looked at, as a text. */
const basisOf = ({ draft, live, outline, people }: SiteState): string =>
  [draft.version, live.revision, outline.items.size, people.size].join(' ');

const madeInWords = ({ areas }: Plan): string => {
  const [first] = areas;
  return areas.length === 1 && first ? `New area: ${first.name}` : `${areas.length} new areas`;
};

/** Those of the people who can't sign in yet. */
async function invitedBy(trivet: Trivet, { areas }: Plan) {
  const people = new Map(areas.flatMap((area) => area.people).map((one) => [one.id, one]));
  const there = [...people.values()].filter(({ isNew }) => !isNew).map(({ id }) => id);
  const without = await readWithoutPassword(trivet.db, there);
  return [...people.values()].filter(({ id, isNew }) => isNew || without.has(id));
}

async function reportOn(plan: Plan, making: Making, state: SiteState, now: Date): Promise<AreasReport> {
  const { step, areas, widened } = plan;
  await yieldToOthers();
  const after = siteAfter(state, step);
  const { outline, names, compiled } = after;
  await yieldToOthers();
  const vocabulary = vocabularyOf(names, step.live.after);
  const made = new Set<string>(areas.map(({ page }) => page));
  const gates = areasIn(step.live.after).filter(({ page }) => made.has(page));
  const people = new Map(areas.flatMap((area) => area.people).map((one) => [one.id, one]));
  const come = [...people.values()].filter(({ isNew }) => isNew).length;
  const of = (kind: string) => step.items.filter(({ after }) => after?.item.kind === kind).length;
  const newGates = step.live.after.gates.length - step.live.before.gates.length;
  return {
    basis: basisOf(state),
    areas: areas.map(({ name, address, pages, people: list }) => ({
      name,
      address,
      pages,
      people: list.map(({ name: called, email, isNew }) => ({ name: called, email, isNew })),
    })),
    makes: [
      counted(of('page'), 'page', 'pages'),
      ...(of('file') > 0 ? [counted(of('file'), 'file', 'files')] : []),
      counted(step.groups.length, 'private group', 'private groups'),
      `${counted(newGates, 'gate', 'gates')}, live at once`,
      counted(
        areas.length,
        'expectation that nobody else opens it',
        'expectations that nobody else opens them',
      ),
      ...(making.lands ? [counted(areas.length, 'landing rule', 'landing rules')] : []),
      ...(of('link') > 0 ? [counted(of('link'), 'menu link', 'menu links')] : []),
      ...(come > 0 ? [counted(come, 'account', 'accounts')] : []),
      ...(making.invite && come > 0 ? [counted(come, 'invitation by mail', 'invitations by mail')] : []),
    ],
    opensTo: gates[0] ? describeWho(gates[0].gate.who, vocabulary) : '',
    named: making.source === null ? 0 : namedIn(state, making.source as never),
    widened: widened.map(({ what }) => describeWhat(what, state.outline, state.live.compiled.vocabulary)),
    keptOut: await keptOutOf(plan, { ...state, outline, names }, compiled, now),
    broken: await newlyBroken(after, state, now),
  };
}

const MOST_TOLD = 20;

/** Whom something else keeps out of an area of theirs. */
async function keptOutOf(
  { areas, step }: Plan,
  state: SiteState,
  compiled: SiteState['live']['compiled'],
  now: Date,
): Promise<readonly string[]> {
  const request = plainRequest(state, now);
  const rest = yielder();
  const records = new Map(peopleIn(state, step).flatMap(({ after }) => (after ? [[after.id, after]] : [])));
  const told: string[] = [];
  for (const { name, page, people } of areas) {
    const out = people.filter(({ id }: { readonly id: PersonId }) => {
      const record = records.get(id);
      return record && decide(compiled, page, personOf(record, state).facts, request).kind !== 'open';
    });
    if (out.length > 0) told.push(`${name}: ${listed(out.slice(0, 3).map((one) => one.name))}`);
    if (told.length >= MOST_TOLD) break;
    await rest();
  }
  return told;
}
