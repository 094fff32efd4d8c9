/** Pages to which nothing on the site leads: whoever may open one has to know its address. */
import { givenBy, type ItemId, isShared, type LinkTarget, leadsTo, resolveGiven, textsIn } from '@/core';
import type { SiteState } from '../running';
import { contentOf, linksIn, regionsIn } from '../view';
import { homePage } from './home-page';

/**
 * The pages that are published and that no menu, no text, no button and no gate leads to, for anybody; in the order of the
 * outline. The texts are to have been read before.
 */
export function unledPages(state: SiteState): readonly ItemId[] {
  const { outline } = state;
  const { policy } = state.live;
  const led = new Set<ItemId>();
  const to = (target: LinkTarget | undefined) => {
    if (target?.kind === 'item') led.add(target.item);
  };
  for (const item of outline.items.values()) {
    if (!item.published) continue;
    if (item.kind === 'link') to(item.target);
    if (item.kind !== 'section') continue;
    const { section, body } = contentOf(state, item.id);
    if (section?.type === 'call') to(section.to);
    if (section?.type === 'outline') led.add(section.course as ItemId);
    for (const { text } of textsIn(regionsIn(state.live.compiled, body, isShared(item)).pieces))
      for (const { item: linked } of linksIn(state, text)) led.add(linked);
  }
  for (const gate of policy.gates)
    for (const given of givenBy(gate)) {
      const item = leadsTo(resolveGiven(given, policy.turnAways));
      if (item !== null) led.add(item);
    }
  for (const { to: item } of policy.landings) led.add(item);
  const home = homePage(state);
  return [...outline.items.values()].flatMap((item) =>
    item.kind === 'page' && item.published && item !== home && !led.has(item.id) ? [item.id] : [],
  );
}
