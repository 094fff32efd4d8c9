/**
 * Where texts name things: in the conditions of their regions, in their own words, where shared ones say what they stand on,
 * and where courses say who comes into them.
 */
import {
  conditionsIn,
  type Item,
  type ItemId,
  isShared,
  namedIn,
  namedInOwnWords,
  nameInContext,
  type Outline,
  pageOf,
  parseRegions,
  type Vocabulary,
} from '@/core';
import type { Content } from '@/store';

interface Texts {
  readonly outline: Outline;
  readonly contents: ReadonlyMap<ItemId, Content>;
}

// Texts change less often than they are asked about.
const known = new WeakMap<
  Texts['contents'],
  { vocabulary: Vocabulary; uses: ReadonlyMap<string, readonly string[]> }
>();

/** The texts that name each thing, in words, by "kind id". */
export function textUses(site: Texts, vocabulary: Vocabulary): ReadonlyMap<string, readonly string[]> {
  const found = known.get(site.contents);
  if (found?.vocabulary === vocabulary) return found.uses;
  const uses = new Map<string, string[]>();
  const use = (name: string, where: string) => uses.set(name, [...(uses.get(name) ?? []), where]);
  for (const item of site.outline.items.values()) {
    const content = site.contents.get(item.id);
    if (!content) continue;
    const { body, enrolling } = content;
    const where = inPlace(nameInContext(item, site.outline), pageOf(site.outline, item)?.title);
    for (const name of new Set([...namedInText(body, vocabulary, isShared(item)), ...namedInHosts(item)]))
      use(name, where);
    for (const { group } of enrolling?.groups ?? []) use(`group ${group}`, `who comes into ${item.title}`);
  }
  known.set(site.contents, { vocabulary, uses });
  return uses;
}

/** "Opening words in My account"; "the text in Visit us" for one without a name of its own. */
const inPlace = (name: string, page: string | undefined): string => {
  if (page === undefined) return name;
  return name.endsWith(` in ${page}`) ? `the ${name}` : `${name} in ${page}`;
};

/** What the description of a shared section's hosts names. */
const namedInHosts = (item: Item): readonly string[] =>
  isShared(item)
    ? [...item.shared.on.targets, ...item.shared.on.except].flatMap((one) =>
        one.kind === 'selection' ? namedIn(one.where) : [],
      )
    : [];

const namedInText = (body: string, vocabulary: Vocabulary, ofShared: boolean): readonly string[] => [
  ...conditionsIn(parseRegions(body, vocabulary, ofShared).pieces).flatMap(namedIn),
  ...namedInOwnWords(body),
];
