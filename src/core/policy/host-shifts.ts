/**
 * What changes at a shared section, put together over its hosts. Whoever does not get a host notices nothing of what stands
 * on it. So where the hosts' own gates say what they said, what changes in the gates over the section is worked out once,
 * for all who get one of those hosts: on a site with hundreds of kinds of gates it is one piece of work, and one line.
 */
import { type Bitset, emptyBitset } from '../columns';
import type { ItemId } from '../ids';
import { guest, placeId, type SharedSection } from '../site';
import type { HurdleTerms, itemTerms } from './breakdown';
import type { CompiledPolicy, Hurdle } from './compile';
import { decideAlong } from './decide';
import type { HostKind } from './places';
import { type Group, guestsAt, noticed } from './shift';
import { type Select, transitionBetween } from './transition';

/** A policy with what it tells of hurdles. */
interface Side {
  readonly policy: CompiledPolicy;
  readonly tell: ReturnType<typeof itemTerms>;
}

/** Hosts at which a section stands alike, before and after. */
interface Hosts {
  readonly hosts: readonly ItemId[];
  readonly was: Pick<HostKind, 'own' | 'above'>;
  readonly is: Pick<HostKind, 'own' | 'above'>;
}

/**
 * What changes at a shared section on its hosts, and where no item is. Where the gates over it say the same as before, what
 * changes is the hosts', and told of them.
 */
export function groupsOnHosts(section: SharedSection, before: Side, after: Side): readonly Group[] {
  const said = ({ tell }: Side, hurdles: readonly Hurdle[]) => tell(section, hurdles);
  // Asked about any one thing, the gates over it say the same if they do on every host.
  const [was, is] = [before, after].map((side) => said(side, side.policy.places.own(section, section)));
  if (was?.key === is?.key) return [];
  const byItself = new Map<string, Hosts[]>();
  const groups: Group[] = [];
  for (const one of alikeHosts(section, before.policy, after.policy)) {
    const [old, now] = [said(before, one.was.own), said(after, one.is.own)];
    if (old.key === now.key) continue;
    if (said(before, one.was.above).key !== said(after, one.is.above).key) {
      groups.push(withTheirHosts(section, one, before, after));
      continue;
    }
    const key = `${old.key}${old.gates()} › ${now.key}${now.gates()}`;
    const found = byItself.get(key);
    if (found) found.push(one);
    else byItself.set(key, [one]);
  }
  return [...groups, ...[...byItself.values()].map((list) => onTheirHosts(section, list, before, after))];
}

/** Hosts put together that are alike on both sides: those that are alike now may have differed before. */
function alikeHosts(section: SharedSection, before: CompiledPolicy, after: CompiledPolicy): readonly Hosts[] {
  const kindsBefore = new Map(
    before.places.kindsOf(section).flatMap((kind) => kind.hosts.map((host) => [host, kind] as const)),
  );
  const alike: Hosts[] = [];
  for (const is of after.places.kindsOf(section)) {
    const byKindBefore = new Map<HostKind, ItemId[]>();
    for (const host of is.hosts) {
      const was = kindsBefore.get(host);
      if (!was) continue;
      const found = byKindBefore.get(was);
      if (found) found.push(host);
      else byKindBefore.set(was, [host]);
    }
    for (const [was, hosts] of byKindBefore) alike.push({ hosts, was, is });
  }
  if (section.shared.elsewhere) {
    const [was, is] = [before, after].map(({ places }) => ({ own: places.own(section, null), above: [] }));
    if (was && is) alike.push({ hosts: [], was, is });
  }
  return alike;
}

/** What changes at hosts that change as well. */
function withTheirHosts(section: SharedSection, { hosts, was, is }: Hosts, before: Side, after: Side): Group {
  const told = ({ tell }: Side, { own, above }: Hosts['was']) => tell(section, [...own, ...above]).told();
  return {
    items: [section],
    shiftFor: ({ membership, select, tally, request }) => ({
      ...transitionBetween(told(before, was), told(after, is), membership, select, tally),
      hosts: new Map([[section.id, hosts.length]]),
      guests: guestsAt(before.policy, after.policy, placeId(section.id, hosts[0] as ItemId), request),
    }),
  };
}

/** What changes at hosts that stay as they are: the same for everybody who gets one of them. */
function onTheirHosts(section: SharedSection, list: readonly Hosts[], before: Side, after: Side): Group {
  const [first] = list as [Hosts];
  return {
    items: [section],
    shiftFor: ({ membership, select, tally, request }) => {
      const passing = list.map(({ is }) =>
        letIn(after.tell(section, is.above).told(), membership.none, select),
      );
      const reached = emptyBitset(membership.size);
      for (const passes of passing) addPassing(reached, membership.full, passes);
      const found = transitionBetween(
        before.tell(section, first.was.own).told(),
        after.tell(section, first.is.own).told(),
        { ...membership, full: reached },
        select,
        tally,
      );
      const changed = [found.gains, found.loses, found.sees].filter(({ count }) => count > 0);
      const forGuests = noticed(
        decideAlong(first.was.own, guest, request),
        decideAlong(first.is.own, guest, request),
      );
      let [count, guestsNotice] = [0, false];
      for (const [at, { is, hosts }] of list.entries()) {
        const here = forGuests !== null && is.above.every((one) => one.passes(guest, one.at, request));
        guestsNotice ||= here;
        if (here || changed.some(({ bits }) => somePass(bits, passing[at] as readonly Bitset[])))
          count += hosts.length;
      }
      return {
        ...found,
        hosts: new Map([[section.id, count]]),
        guests: guestsNotice ? forGuests : null,
      };
    },
  };
}

/** Those who pass each hurdle. */
const letIn = (told: readonly HurdleTerms[], none: Bitset, select: Select): readonly Bitset[] =>
  told.map((one) => (one.terms === null ? none : select(one, 'who')));

/** Adds those of all who pass everything. */
function addPassing(to: Bitset, all: Bitset, passes: readonly Bitset[]): void {
  for (let at = 0; at < to.length; at++) {
    let those = (all[at] as number) & ~(to[at] as number);
    for (let hurdle = 0; hurdle < passes.length && those !== 0; hurdle++)
      those &= (passes[hurdle] as Bitset)[at] as number;
    if (those !== 0) to[at] = (to[at] as number) | those;
  }
}

/** Whether somebody of these passes everything. */
function somePass(bits: Bitset, passes: readonly Bitset[]): boolean {
  for (let at = 0; at < bits.length; at++) {
    let those = bits[at] as number;
    for (let hurdle = 0; hurdle < passes.length && those !== 0; hurdle++)
      those &= (passes[hurdle] as Bitset)[at] as number;
    if (those !== 0) return true;
  }
  return false;
}
