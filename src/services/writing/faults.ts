/** What is wrong with the site's content, whoever looks at it. */
import {
  type Addressed,
  type Item,
  type ItemId,
  isAddressed,
  isShared,
  nameInContext,
  type Section,
  type SharedSection,
  sectionsOf,
  textsIn,
} from '@/core';
import { momentAt, type SiteState, yielder } from '../running';
import { readAhead } from '../texts';
import { contentOf, deadLinksIn, picturesWithoutWords, regionsIn } from '../view';
import { fileFaults } from './file-faults';
import { emptyQuiz } from './quiz-form';
import { editedSection, sectionProblems } from './section-form';

export interface Fault {
  /** What is opened to mend it. */
  readonly item: ItemId;
  /** The section that it is in, by name; null where it is of the item itself. */
  readonly section: string | null;
  readonly message: string;
}

/** What was found, and the day on which. */
const known = new WeakMap<
  SiteState,
  { readonly today: string; readonly faults: Promise<readonly Fault[]> }
>();

/**
 * Everything that is wrong, in the order of the outline, and then with files. Worked out once a day for a state of the site,
 * in pieces.
 */
export function faultsIn(state: SiteState, now: Date): Promise<readonly Fault[]> {
  const { today } = momentAt(state, now);
  const found = known.get(state);
  if (found?.today === today) return found.faults;
  const faults = look(state).then(async (those) => [...those, ...(await fileFaults(state, now))]);
  known.set(state, { today, faults });
  return faults;
}

async function look(state: SiteState): Promise<readonly Fault[]> {
  const faults: Fault[] = [];
  const rest = yielder();
  for (const item of state.outline.items.values()) {
    await rest();
    if (isAddressed(item)) faults.push(...(await faultsOf(state, item)));
    else if (isShared(item)) faults.push(...sharedFaults(state, item));
    else faults.push(...pictureFaults(state, item));
  }
  return faults;
}

async function faultsOf(state: SiteState, page: Addressed): Promise<readonly Fault[]> {
  const { compiled } = state.live;
  const sections = sectionsOf(state.outline, page.id);
  await readAhead(
    sections.flatMap(({ id }) =>
      textsIn(regionsIn(compiled, contentOf(state, id).body).pieces).map(({ text }) => text),
    ),
  );
  const empty =
    page.kind === 'activity' && page.published
      ? emptyQuiz(page.activity, contentOf(state, page.id).quiz ?? null)
      : null;
  return [
    ...(empty === null ? [] : [{ item: page.id, section: null, message: empty }]),
    ...sections.flatMap((section) =>
      faultsWithin(state, section).map((message) => ({
        item: page.id,
        section: nameInContext(section, state.outline),
        message,
      })),
    ),
  ];
}

/** What is wrong with what a section says. */
function faultsWithin(state: SiteState, section: Section): readonly string[] {
  const { compiled } = state.live;
  const content = contentOf(state, section.id);
  const wrong = sectionProblems(
    [editedSection(section, content, compiled.vocabulary)],
    compiled.vocabulary,
    (id) => state.outline.items.get(id as ItemId),
    isShared(section),
  );
  const bare = picturesWithoutWords(compiled, content.body);
  return [
    ...wrong.map(({ line, message }) => (line === null ? message : `Line ${line}: ${message}`)),
    ...deadLinksIn(state, compiled, content.body).map(({ kind, words, to }) =>
      kind === 'link'
        ? `“${words}” leads to ${to}, where nothing is.`
        : `It shows a picture from ${to}, where none is.`,
    ),
    ...(bare > 0
      ? [
          bare === 1
            ? 'A picture has no words for those who don’t see it.'
            : `${bare} pictures have no words for those who don’t see them.`,
        ]
      : []),
  ];
}

/** Of a section that many share: what is wrong with it, and whether it stands anywhere. */
function sharedFaults(state: SiteState, section: SharedSection): readonly Fault[] {
  const { places } = state.live.compiled;
  const bare = section.published && !section.shared.elsewhere && places.hosts(section).size === 0;
  return [
    ...(bare ? ['It stands on nothing: no page or post is like what it asks for.'] : []),
    ...faultsWithin(state, section),
  ].map((message) => ({ item: section.id, section: null, message }));
}

const pictureFaults = (state: SiteState, item: Item): readonly Fault[] =>
  item.kind === 'file' && item.mediaType.startsWith('image/') && !contentOf(state, item.id).picture?.alt
    ? [{ item: item.id, section: null, message: 'It has no words for those who don’t see it.' }]
    : [];
