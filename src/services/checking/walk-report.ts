/**
 * What was withheld from a page on a walk: the page itself, its sections, passages of its texts, entries of its lists, files,
 * links around it, each with the reason. For administrators alone; visitors never learn that there was anything.
 */
import {
  type Addressed,
  activitiesOf,
  asksAbout,
  type Condition,
  capital,
  conditionCompiler,
  type Decision,
  describeBecause,
  describeDecision,
  describeWho,
  explain,
  type Item,
  type ItemId,
  isShared,
  nameOf,
  normaliseAddress,
  type Outcome,
  outcomeOf,
  type Piece,
  parseRegions,
  placedOn,
  placeOf,
  type Section,
  sectionsOf,
  unitsOf,
} from '@/core';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { contentOf, decisionOn, decisionOnHost, named, postsOf, type ViewContext } from '../view';
import { type WalkUnderWay, walkOf } from './walk';

/** Where on the page it would have stood. */
export type Whereabouts = 'page' | 'section' | 'passage' | 'entry' | 'file' | 'link';

/** Something that the visitor did not get, or not as it is. */
export interface Withheld {
  readonly where: Whereabouts;
  readonly item: ItemId;
  /** The item's title; for a passage, of the section it is in. */
  readonly title: string;
  /** What was given for it; null for a passage, which is left out. */
  readonly given: Outcome | null;
  readonly because: string;
}

/** A page of a walk, as whoever walks needs it. */
export interface WalkReport {
  /** The item at the address, and what the visitor gets there as a sentence; null where nothing is. */
  readonly page: {
    readonly item: ItemId;
    readonly title: string;
    readonly outcome: Outcome;
    readonly sentence: string;
    readonly because: string | null;
  } | null;
  readonly withheld: readonly Withheld[];
}

/** Reports on an address of a walk; null when the walk is over, or is somebody else's. */
export async function walkReport(
  trivet: Trivet,
  administrator: Administrator,
  token: string,
  address: string,
  now: Date,
): Promise<WalkReport | null> {
  requirePermission(administrator, 'look');
  const url = URL.canParse(address, 'http://walk.example') ? new URL(address, 'http://walk.example') : null;
  const walk = url && (await walkOf(trivet, administrator, token, now, url));
  return walk ? reportOn(walk, url) : null;
}

/** The pages on the way to others: the question is still about the one that was asked for. */
const THRESHOLDS = ['/sign-in', '/passphrase', '/sign-up'];

function reportOn({ context, standIn }: WalkUnderWay, url: URL): WalkReport {
  const { outline } = context.state;
  const onThreshold = THRESHOLDS.includes(url.pathname);
  const asked = onThreshold ? (url.searchParams.get('next') ?? '').split('?')[0] : url.pathname;
  const path = normaliseAddress(asked ?? '');
  const page = path === null ? undefined : outline.addressed.get(path);
  const decision = page && decisionOn(context, page.id);
  const about =
    page && decision && !(onThreshold && decision.kind === 'open')
      ? {
          item: page.id,
          title: page.title,
          outcome: outcomeOf(decision),
          sentence: describeDecision(decision, nameOf(standIn), page, outline),
          because: becauseOf(context, page),
        }
      : null;
  const onPage =
    page && decision
      ? decision.kind === 'open' && !onThreshold
        ? withheldOn(context, page)
        : [withheldAs('page', context, page, decision)]
      : [...withheldFromList(context, url.pathname), ...sharedWithheld(context, null)];
  return { page: about, withheld: [...onPage, ...withheldLinks(context)] };
}

const becauseOf = (context: ViewContext, item: Item): string | null =>
  describeBecause(
    explain(context.compiled, item.id, context.facts, context.request),
    item,
    context.compiled.vocabulary,
  );

const withheldAs = (where: Whereabouts, context: ViewContext, item: Item, decision: Decision): Withheld => ({
  where,
  item: item.id,
  title: item.title,
  given: outcomeOf(decision),
  because: capital(
    becauseOf(context, item) ??
      // One that is open on some page.
      (isShared(item) ? 'it asks about the page it stands on, and here is none' : 'it is closed'),
  ),
});

/** Whatever of some items is closed. */
const closed = (
  where: Whereabouts,
  context: ViewContext,
  items: readonly (Item | undefined)[],
): readonly Withheld[] =>
  items.flatMap((item) => {
    const decision = item && decisionOn(context, item.id);
    return item && decision?.kind === 'turned away' ? [withheldAs(where, context, item, decision)] : [];
  });

const withheldOn = (context: ViewContext, page: Addressed): readonly Withheld[] => [
  ...sectionsOf(context.state.outline, page.id).flatMap((section) =>
    withheldIn(context, section, decisionOn(context, section.id)),
  ),
  ...(page.kind === 'course' ? closedOfCourse(context, page) : []),
  ...sharedWithheld(context, page),
];

/** Of a course what is closed: a unit stands for all that is in it. */
function closedOfCourse(context: ViewContext, course: Addressed): readonly Withheld[] {
  const { outline } = context.state;
  return unitsOf(outline, course.id).flatMap((unit) => {
    const shut = closed('entry', context, [unit]);
    return shut.length > 0 ? shut : closed('entry', context, activitiesOf(outline, unit.id));
  });
}

/** Of the shared sections on a page, or of those where no item is. */
const sharedWithheld = (context: ViewContext, host: Addressed | null): readonly Withheld[] =>
  context.compiled.places
    .on(host?.id ?? null)
    .flatMap((section) =>
      withheldIn(
        context,
        host ? placedOn(section, host) : section,
        decisionOnHost(context, section, host),
        host,
      ),
    );

/** Of a section; `host` is what a shared one stands on, null where no item is. */
function withheldIn(
  context: ViewContext,
  section: Section,
  decision: Decision,
  host?: Item | null,
): readonly Withheld[] {
  const { outline } = context.state;
  if (decision.kind === 'turned away') return [withheldAs('section', context, section, decision)];
  const { body, section: more } = contentOf(context.state, placeOf(section.id)?.section ?? section.id);
  const passages = withheldPassages(context, section, body, host);
  const fileNamed = (id: string | null) => (id === null ? undefined : outline.items.get(id as ItemId));
  switch (more?.type) {
    case 'posts':
      return [...passages, ...entriesWithheld(context, more)];
    case 'files':
      return [
        ...passages,
        ...closed(
          'file',
          context,
          (outline.children.get(outline.root) ?? []).filter(
            (item) =>
              item.kind === 'file' && (more.category === null || item.facts?.category === more.category),
          ),
        ),
      ];
    case 'outline': {
      const course = outline.items.get(more.course as ItemId);
      return course?.kind !== 'course'
        ? passages
        : decisionOn(context, course.id).kind === 'open'
          ? [...passages, ...closedOfCourse(context, course)]
          : [...passages, ...closed('entry', context, [course])];
    }
    case 'picture':
      return [...passages, ...closed('file', context, [fileNamed(more.file)])];
    case 'video':
      return [
        ...passages,
        ...closed('file', context, [fileNamed(more.file), fileNamed(more.captions ?? null)]),
      ];
    case 'call':
      return [
        ...passages,
        ...(more.to.kind === 'item' ? closed('link', context, [outline.items.get(more.to.item)]) : []),
      ];
    case 'form':
    case 'follow':
    case 'prices':
    case undefined:
      return passages;
    default:
      return more satisfies never;
  }
}

const entriesWithheld = (context: ViewContext, choice: Parameters<typeof postsOf>[1]): readonly Withheld[] =>
  closed('entry', context, postsOf(context.state, choice));

/** The lists of a category or a tag have addresses of their own. */
function withheldFromList(context: ViewContext, pathname: string): readonly Withheld[] {
  const [, of, slug = ''] = pathname.split('/');
  if (of !== 'category' && of !== 'tag') return [];
  const name = named(context, of, decoded(slug));
  return name === null ? [] : entriesWithheld(context, { [of]: name });
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Passages of a text that are for others. */
function withheldPassages(
  context: ViewContext,
  section: Item,
  body: string,
  host: Item | null | undefined,
): readonly Withheld[] {
  const { vocabulary } = context.compiled;
  const compiled = conditionCompiler(vocabulary);
  // Where there is no host, nothing holds of it.
  const holds = (condition: Condition) =>
    !(host === null && asksAbout(condition, vocabulary)) &&
    compiled(condition)(context.facts, host ?? null, context.request);
  const visit = (pieces: readonly Piece[]): readonly Withheld[] =>
    pieces.flatMap((piece): readonly Withheld[] => {
      if (piece.kind === 'text') return [];
      const shown = piece.cases.find(({ when }) => holds(when));
      const others = piece.cases.filter((one) => one !== shown);
      return [
        ...others.map(
          ({ when }): Withheld => ({
            where: 'passage',
            item: section.id,
            title: section.title,
            given: null,
            because: `This passage is for ${describeWho(when, vocabulary)}`,
          }),
        ),
        ...visit(shown?.pieces ?? piece.last),
      ];
    });
  return visit(parseRegions(body, vocabulary, host !== undefined).pieces);
}

/** Links of the menus; what is below one that is closed goes with it. */
function withheldLinks(context: ViewContext): readonly Withheld[] {
  const { outline } = context.state;
  const below = (id: ItemId): readonly Withheld[] =>
    (outline.children.get(id) ?? []).flatMap((item): readonly Withheld[] => {
      if (item.kind !== 'link') return [];
      const decision = decisionOn(context, item.id);
      return decision.kind === 'turned away' ? [withheldAs('link', context, item, decision)] : below(item.id);
    });
  return (outline.children.get(outline.root) ?? []).flatMap((menu) =>
    menu.kind === 'menu' && decisionOn(context, menu.id).kind === 'open' ? below(menu.id) : [],
  );
}
