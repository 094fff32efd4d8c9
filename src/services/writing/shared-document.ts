/** A shared section as its author sees it: what it says, at which spot it stands and on what. */
import { z } from 'zod';
import type { ItemId, SharedSection } from '@/core';
import type { StoredItem } from '@/store';
import { tooDeep } from '../forms';
import type { SiteState } from '../running';
import { contentOf } from '../view';
import type { DocumentProblem } from './document';
import { editedSection, sectionProblems, sectionShape, storedSection } from './section-form';
import { readStands, standsShape } from './shared-form';

const sharedDocument = z.strictObject({ ...standsShape.shape, section: sectionShape });

export type SharedDocument = z.output<typeof sharedDocument>;

/** The document of a shared section as it is on the site. */
export function sharedDocumentOf(state: SiteState, item: SharedSection): SharedDocument {
  const { spot, on, elsewhere } = item.shared;
  const section = editedSection(item, contentOf(state, item.id), state.live.compiled.vocabulary);
  return { spot, on: on as SharedDocument['on'], elsewhere, section };
}

/** Reads one into what is kept, or says everything that is wrong with it. */
export function readSharedDocument(
  input: unknown,
  item: SharedSection,
  state: SiteState,
):
  | { readonly document: SharedDocument; readonly stored: StoredItem }
  | { readonly problems: readonly DocumentProblem[] } {
  const problem = (path: string, message: string, line: number | null = null) => ({ path, line, message });
  if (tooDeep(input))
    return { problems: [problem('on', 'What it stands on is nested too deep. Take some groups apart.')] };
  const parsed = sharedDocument.safeParse(input);
  if (!parsed.success)
    return {
      problems: parsed.error.issues.slice(0, 30).map(({ path, message }) => problem(path.join('.'), message)),
    };
  const { section, ...stands } = parsed.data;
  const { vocabulary } = state.live.compiled;
  const where = readStands(stands, vocabulary);
  const wrong = sectionProblems([section], vocabulary, (id) => state.outline.items.get(id as ItemId), true);
  const problems = [
    ...('problems' in where ? where.problems.map((message) => problem('on', message)) : []),
    ...wrong.map(({ line, message }) => problem('section', message, line)),
    ...(section.id === item.id
      ? []
      : [problem('section', 'It has the id of another section. Open it anew.')]),
  ];
  if (problems.length > 0 || 'problems' in where) return { problems };
  const stored = storedSection(section, state.outline.root, item.rank, vocabulary, where.shared);
  return { document: parsed.data, stored };
}
