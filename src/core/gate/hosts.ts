/** The hosts of shared sections: worked out like what a gate covers, and standing only where that is certain. */
import type { ItemId } from '../ids';
import { below, isAddressed, type Outline, type SharedSection, type Vocabulary } from '../site';
import type { Target } from '../site/what';
import { selectedIn } from './selected';

// Many sections stand on the same branches, above all on the whole site.
const known = new WeakMap<Outline, Map<ItemId, readonly ItemId[]>>();

/** The pages and posts of a branch. */
function addressedBelow(outline: Outline, top: ItemId): readonly ItemId[] {
  const branches = known.get(outline) ?? new Map<ItemId, readonly ItemId[]>();
  known.set(outline, branches);
  const found =
    branches.get(top) ??
    below(outline, top)
      .filter(isAddressed)
      .map(({ id }) => id);
  branches.set(top, found);
  return found;
}

/** The pages and posts that a shared section stands on. What it names and is gone brings none. */
export function hostsOf(
  { shared }: SharedSection,
  outline: Outline,
  vocabulary: Vocabulary,
): ReadonlySet<ItemId> {
  const meant = (target: Target, doubt: boolean): readonly ItemId[] => {
    if (target.kind === 'branch') return addressedBelow(outline, target.item);
    const items =
      target.kind === 'selection' ? selectedIn(target.where, outline, vocabulary, doubt) : [target.item];
    return items.filter((id) => isAddressed(outline.items.get(id)));
  };
  const hosts = new Set<ItemId>();
  // A section that is shown in doubt would be shown to the wrong people.
  for (const target of shared.on.targets) for (const id of meant(target, false)) hosts.add(id);
  for (const target of shared.on.except) for (const id of meant(target, true)) hosts.delete(id);
  return hosts;
}
