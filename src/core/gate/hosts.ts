/** The hosts of shared sections: worked out like what a gate covers, and standing only where that is certain. */
import type { ItemId } from '../ids';
import { isAddressed, type Outline, type SharedSection, sharedIn, type Vocabulary } from '../site';
import { coverage } from './gate';

/** The pages and posts that a shared section stands on. What it names and is gone brings none. */
export function hostsOf(
  { shared }: SharedSection,
  outline: Outline,
  vocabulary: Vocabulary,
): ReadonlySet<ItemId> {
  const hosts = new Set<ItemId>();
  // A section that is shown in doubt would be shown to the wrong people.
  for (const id of coverage({ what: shared.on, stance: 'instead' }, outline, vocabulary))
    if (isAddressed(outline.items.get(id))) hosts.add(id);
  return hosts;
}

/** The shared sections on each host, in the order in which they stand. */
export function sharedByHost(
  outline: Outline,
  hosts: (section: SharedSection) => ReadonlySet<ItemId>,
): ReadonlyMap<ItemId, readonly SharedSection[]> {
  const byHost = new Map<ItemId, SharedSection[]>();
  for (const section of sharedIn(outline)) {
    for (const host of hosts(section)) {
      const there = byHost.get(host);
      if (there) there.push(section);
      else byHost.set(host, [section]);
    }
  }
  return byHost;
}
