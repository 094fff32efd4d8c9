/** Where links, redirects and next steps lead those who get them. */
import { type Gate, givenBy, resolveGiven } from '../gate';
import type { ItemId } from '../ids';
import { arrivalFrom, decide, hurdlesOf, outcomeOf } from '../policy';
import { type Item, isAddressed } from '../site';
import { closed } from './axioms';
import { type Diagram, NONE, Undecided } from './diagram';
import { type Finding, keyOfFinding, type Witness } from './finding';
import type { Way } from './gate-findings';
import { givenAlong, type Outcomes } from './outcomes';
import type { Reach } from './reach';

/** Somebody in a set as they are at all: whoever owns a product has what it gives. */
export function shownBy(set: Diagram, reach: Reach, plain = false): Witness | null {
  const found = plain ? reach.plainMemberIn(set) : reach.somebodyIn(set);
  return found && { visitor: closed(found.visitor, reach.following), request: found.request };
}

/** Throws where somebody who was found does not get what is said. */
export const sure = (isSo: boolean): void => {
  if (!isSo) throw new Undecided('Nobody could be found to show it.');
};

/** Links that a gate hides from members who can open the page. */
export function hiddenLinks(reach: Reach, gate: Gate, links: readonly Item[]): readonly Finding[] {
  const { covering, hurdles } = reach.compiled;
  return links.flatMap((link): readonly Finding[] => {
    if (link.kind !== 'link' || link.target.kind !== 'item') return [];
    const covered = covering.get(link.id)?.some((one) => one.gate === gate && !one.setAside);
    const hurdle = (hurdles(link.id) ?? []).find((one) => one.gate === gate && one.over === link);
    if (!covered || !hurdle) return [];
    const page = link.target.item;
    const astray = reach.space.and(reach.openTo(page), reach.space.not(reach.passing(hurdle)));
    // A link for those who have signed in may well be hidden from guests.
    const witness = shownBy(astray, reach, true);
    if (!witness) return [];
    const gets = (item: ItemId) => outcomeOf(decide(reach.compiled, item, witness.visitor, witness.request));
    sure(gets(page) === 'open' && gets(link.id) !== 'open');
    return [{ gate: gate.id, kind: 'hidden link', link: link.id, page, witness }];
  });
}

/** Whether a gate sends somebody on to an item, or offers them one. */
const leads = (gate: Gate, named: Reach['compiled']['policy']['turnAways']): boolean =>
  givenBy(gate).some((given) => {
    const give = resolveGiven(given, named);
    return give.kind === 'redirect' ? give.to.kind === 'item' : 'next' in give && give.next.kind === 'item';
  });

/** Whom a gate sends on, or offers a step, and who come to a closed door by it. */
export function ledAstray(
  reach: Reach,
  gate: Gate,
  own: readonly Way[],
  outcomes: (item: ItemId) => Outcomes,
): readonly Finding[] {
  const { compiled, space } = reach;
  if (!leads(gate, compiled.policy.turnAways)) return [];
  const found = new Map<string, Finding>();
  const add = (one: Finding) => found.set(keyOfFinding(one), one);
  for (const way of own) {
    // What is no page of its own sends nobody on.
    const from = way.items.find((id) => isAddressed(compiled.outline.items.get(id)));
    if (from === undefined) continue;
    const speaks = ({ visitor, request }: Witness): boolean => {
      const decision = decide(compiled, from, visitor, request);
      return (
        decision.kind === 'turned away' &&
        decision.because.kind === 'gate' &&
        decision.because.gate === gate.id
      );
    };
    for (const { hurdle, set, give } of givenAlong(reach, way.hurdles).away) {
      if (hurdle.gate !== gate || give === null) continue;
      if (give.kind === 'redirect' && give.to.kind === 'item') {
        const to = give.to.item;
        const away = [...outcomes(to)].flatMap(([outcome, those]) =>
          outcome === 'open' ? [] : [space.and(set, those)],
        );
        for (const those of [...away, sentOn(reach, set, to, MOST_TURNS)]) {
          const witness = shownBy(those, reach);
          const astray = witness && speaks(witness) && astrayFrom(witness, from, reach);
          if (witness && astray) add({ gate: gate.id, kind: 'led astray', from, witness, ...astray });
        }
      } else if ('next' in give && give.next.kind === 'item') {
        const to = give.next.item;
        const shut = space.and(set, space.not(reach.openTo(to)));
        const witness = shownBy(shut, reach);
        if (!witness || !speaks(witness)) continue;
        const { end } = arrivalFrom(compiled, to, witness.visitor, witness.request);
        // Being sent on to somewhere else that is open, or to sign in, is an arrival.
        if (end?.kind === 'open' || (end?.kind === 'turned away' && end.turnAway.kind === 'redirect'))
          continue;
        add({ gate: gate.id, kind: 'step to a closed door', from, to, witness });
      }
    }
  }
  return [...found.values()];
}

/** Nobody is to be sent on more often than that. */
const MOST_TURNS = 2;

/** Some of a set who are sent on so many times more from an item. */
function sentOn(reach: Reach, set: Diagram, item: ItemId, times: number): Diagram {
  if (times === 0) return set;
  for (const { set: those, give } of givenAlong(reach, hurdlesOf(reach.compiled, item) ?? []).away) {
    if (give?.kind !== 'redirect' || give.to.kind !== 'item') continue;
    const left = reach.space.and(set, those);
    const on = left === NONE ? NONE : sentOn(reach, left, give.to.item, times - 1);
    if (on !== NONE) return on;
  }
  return NONE;
}

/** How somebody is led astray who is sent on from an item, and where that ends; null where they arrive soon enough. */
export function astrayFrom(
  { visitor, request }: Witness,
  from: ItemId,
  { compiled }: Pick<Reach, 'compiled'>,
): { readonly at: ItemId; readonly how: 'closed' | 'circle' | 'long' } | null {
  const { path, end } = arrivalFrom(compiled, from, visitor, request);
  const at = path.at(-1) ?? from;
  if (end === null) return { at, how: 'circle' };
  if (end.kind === 'turned away' && end.turnAway.kind !== 'redirect') return { at, how: 'closed' };
  return path.length > MOST_TURNS + 1 ? { at, how: 'long' } : null;
}
