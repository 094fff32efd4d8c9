/** Pages to which nothing on the site leads, for some of those who may open them: they have to know the address. */
import { givenBy, type ItemId, type LinkTarget, leadsTo, resolveGiven } from '@/core';
import { type SiteState, yielder } from '../running';
import { contentOf, linksIn } from '../view';
import { type Audience, audiencesOf, butFor, joined } from './audiences';
import { homePage } from './home-page';

export interface UnledPage {
  readonly item: ItemId;
  /** Those who may open it and get nothing that leads to it, in words; null where nothing leads to it for anybody. */
  readonly to: string | null;
}

/**
 * The pages that are published and that no menu, no text and no button leads to which everybody gets who may open the page, and
 * no gate; in the order of the outline. The texts are to have been read before.
 */
export async function unledPages(state: SiteState, now: Date): Promise<readonly UnledPage[]> {
  const { outline } = state;
  const { policy } = state.live;
  const { getting, textsTo } = await audiencesOf(state, now);
  // Whom a gate sends on, or lands, is seldom told from those whom it does not.
  const forAll = new Set<ItemId>(policy.landings.map(({ to }) => to));
  for (const gate of policy.gates)
    for (const given of givenBy(gate)) {
      const item = leadsTo(resolveGiven(given, policy.turnAways));
      if (item !== null) forAll.add(item);
    }
  const home = homePage(state);
  if (home) forAll.add(home.id);
  const led = new Map<ItemId, Audience>();
  const leads = (item: ItemId, to: Audience) => led.set(item, joined(led.get(item), to));
  const leadsBy = (target: LinkTarget | undefined, by: ItemId) => {
    if (target?.kind === 'item') leads(target.item, getting(by));
  };
  const rest = yielder();
  for (const item of outline.items.values()) {
    if (!item.published) continue;
    if (item.kind === 'link') leadsBy(item.target, item.id);
    if (item.kind !== 'section') continue;
    await rest();
    const { section, body } = contentOf(state, item.id);
    if (section?.type === 'call') leadsBy(section.to, item.id);
    if (section?.type === 'outline') leads(section.course as ItemId, getting(item.id));
    // Where no address is, nobody needs to be asked who gets it.
    if (!body.includes('/')) continue;
    for (const { text, to } of textsTo(item, body, getting(item.id)))
      for (const { item: linked } of linksIn(state, text)) leads(linked, to);
  }
  const unled: UnledPage[] = [];
  for (const item of outline.items.values()) {
    if (item.kind !== 'page' || !item.published || forAll.has(item.id)) continue;
    await rest();
    const those = led.get(item.id);
    const to = those ? butFor(getting(item.id), those) : null;
    if (!those || to !== null) unled.push({ item: item.id, to });
  }
  return unled;
}
