/**
 * The site in memory: one immutable value, made anew and swapped whole when something changes, so that a request sees
 * the old site or the new one and never a mixture, and asks the database for nothing.
 */
import {
  type CompiledPolicy,
  compile,
  type ItemId,
  type Outline,
  outlineOf,
  type PersonId,
  type Vocabulary,
} from '@/core';
import {
  type Content,
  type Database,
  type Draft,
  type Live,
  type Person,
  readItems,
  readPeople,
  readPolicies,
  readVocabulary,
} from '@/store';

/** Everything that decisions and pages need. */
export interface SiteState {
  readonly outline: Outline;
  readonly contents: ReadonlyMap<ItemId, Content>;
  readonly vocabulary: Vocabulary;
  readonly people: ReadonlyMap<PersonId, Person>;
  readonly draft: Draft & { readonly compiled: CompiledPolicy };
  readonly live: Live & { readonly compiled: CompiledPolicy };
}

/** Reads the whole site, or null when the database holds none yet. */
export async function readSiteState(db: Database): Promise<SiteState | null> {
  const policies = await readPolicies(db);
  if (!policies) return null;
  const stored = await readItems(db);
  const outline = outlineOf(stored.map(({ item }) => item));
  if ('problems' in outline) throw new Error(outline.problems.map((problem) => problem.message).join('\n'));
  const vocabulary = await readVocabulary(db);
  const people = await readPeople(db);
  return {
    outline,
    vocabulary,
    contents: new Map(stored.map(({ item, content }) => [item.id, content])),
    people: new Map(people.map((person) => [person.id, person])),
    draft: { ...policies.draft, compiled: compile(policies.draft.policy, outline, vocabulary) },
    live: { ...policies.live, compiled: compile(policies.live.policy, outline, vocabulary) },
  };
}

/** The same site with its policies as they are now in the database. */
export async function withPolicies(state: SiteState, db: Database): Promise<SiteState> {
  const policies = await readPolicies(db);
  if (!policies) throw new Error('The policies are gone from the database.');
  const { draft, live } = policies;
  const { outline, vocabulary } = state;
  return {
    ...state,
    draft:
      draft.version === state.draft.version
        ? state.draft
        : { ...draft, compiled: compile(draft.policy, outline, vocabulary) },
    live:
      live.revision === state.live.revision
        ? state.live
        : { ...live, compiled: compile(live.policy, outline, vocabulary) },
  };
}
