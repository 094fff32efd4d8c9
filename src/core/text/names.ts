/** Finding things by the names people write. */
import { closest, distance } from 'fastest-levenshtein';
import { foldCase } from '../condition/folding';
import { type Named, type NameKind, namesOf, type Vocabulary } from '../site/vocabulary';

const LONGEST_COMPARED = 60;

/** The thing of a name: as it is written, or else whatever its case. */
export const resolveName = (kind: NameKind, name: string, vocabulary: Vocabulary): Named | undefined => {
  const list = namesOf(vocabulary, kind);
  const folded = foldCase(name);
  return list.find((one) => one.name === name) ?? list.find((one) => foldCase(one.name) === folded);
};

/** The name most like a misspelt one, or null when none comes near. */
export function nearest(name: string, names: readonly string[]): string | null {
  if (names.length === 0 || name.length > LONGEST_COMPARED) return null;
  const folded = foldCase(name);
  const candidates = names.filter((one) => one.length <= LONGEST_COMPARED).slice(0, 2000);
  if (candidates.length === 0) return null;
  const best = closest(folded, candidates.map(foldCase));
  const found = candidates.find((one) => foldCase(one) === best);
  return found !== undefined && distance(folded, best) <= Math.max(1, Math.floor(folded.length / 3) + 1)
    ? found
    : null;
}
