/**
 * Shared sections on their hosts. On a host, the gates over the section stand before those over the host, and ask the host
 * what they ask of the item. Of itself a shared section is open to whoever gets it anywhere.
 */
import { type Aspect, aspectOf, type Condition, expanded, testsIn } from '../condition';
import { casesIn, type Gate, hostsOf } from '../gate';
import type { ItemId } from '../ids';
import { onceFor } from '../once';
import {
  type Item,
  type ItemKind,
  isShared,
  type Outline,
  placeOf,
  type RequestFacts,
  type SharedSection,
  sharedIn,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import type { CoveringGate, Hurdle } from './compile';
import { shutAt } from './turn-away-at';

/** Hosts of a shared section at which the same is asked of everybody: who gets it at one gets it at all. */
export interface HostKind {
  readonly hosts: readonly ItemId[];
  /** What stands over the section itself, asked about the first host. */
  readonly own: readonly Hurdle[];
  /** Those of the first host. */
  readonly above: readonly Hurdle[];
  /** Both, in the order in which they speak. */
  readonly hurdles: readonly Hurdle[];
}

export interface Places {
  /** The hosts of a shared section, in the order of the outline. */
  hosts(section: SharedSection): ReadonlySet<ItemId>;
  /** The shared sections on a page or post; `null` asks for those that stand where no item is. */
  on(host: ItemId | null): readonly SharedSection[];
  /** The hurdles of a section on a host by the id of both; null where there is no such place. */
  at(place: ItemId): readonly Hurdle[] | null;
  /** What stands over a section itself, asked about a host, or where no item is. */
  own(section: SharedSection, host: Item | null): readonly Hurdle[];
  /** The hurdles of a section on a host, or where no item is: its own, and then the host's. */
  hurdlesAt(section: SharedSection, host: Item | null): readonly Hurdle[];
  /** Its hosts, put together by what is asked there. */
  kindsOf(section: SharedSection): readonly HostKind[];
  /** Its hurdles as an item of itself, or as what a file stands in: it is open where it is open on some host. */
  hurdlesOf(section: SharedSection, kind: ItemKind): readonly Hurdle[];
}

/** Whether what a gate does depends on the item that it is asked about. */
export const asksAboutItem = (gate: Gate, vocabulary: Vocabulary): boolean =>
  aspectOfGate(gate, vocabulary) !== null;

/** What a gate asks of items; null where it asks nothing of them. */
export const aspectOfGate = (gate: Gate, vocabulary: Vocabulary): Aspect | null =>
  aspectOf([gate.who, ...casesIn(gate)], vocabulary);

/** Whether what a gate does depends on what somebody has completed before the item. */
export const asksOneBefore = (gate: Gate, { audiences }: Vocabulary): boolean =>
  [gate.who, ...casesIn(gate)].some((one) =>
    testsIn(expanded(one, audiences)).some(({ fact }) => fact === 'completed the one before'),
  );

/** Whether a condition asks about the item, by itself or by an audience in it. */
export const asksAbout = (condition: Condition, vocabulary: Vocabulary): boolean =>
  aspectOf([condition], vocabulary) !== null;

const passesAll = (hurdles: readonly Hurdle[], visitor: VisitorFacts, request: RequestFacts): boolean =>
  hurdles.every(({ passes, at }) => passes(visitor, at, request));

/** `over` makes the hurdles over an item itself, `collect` all those of an item. Nothing is worked out before it is asked for. */
export function placesIn(
  outline: Outline,
  vocabulary: Vocabulary,
  covering: ReadonlyMap<ItemId, readonly CoveringGate[]>,
  over: (item: Item, kind: ItemKind, at?: Item | null) => readonly Hurdle[],
  collect: (item: Item, kind: ItemKind) => readonly Hurdle[],
): Places {
  const hosts = onceFor((section: SharedSection) => hostsOf(section, outline, vocabulary));
  const onHost = onceFor((host: ItemId) => sharedIn(outline).filter((section) => hosts(section).has(host)));
  const aspect = onceFor((gate: Gate) => aspectOfGate(gate, vocabulary));
  const asks = (gate: Gate) => aspect(gate) !== null;
  /** Whether some gate over a section asks about its host. */
  const asksHost = onceFor((section: SharedSection) =>
    (covering.get(section.id) ?? []).some(({ gate, setAside }) => !setAside && asks(gate)),
  );
  const anywhere = onceFor((section: SharedSection) => over(section, 'section', section));
  const nowhere = onceFor((section: SharedSection) => over(section, 'section', null));
  // Made once for each: what a hurdle decides is the same value whenever it decides it.
  const asked = onceFor((section: SharedSection) =>
    onceFor((host: Item): readonly Hurdle[] => over(section, 'section', host)),
  );
  const own = (section: SharedSection, host: Item | null): readonly Hurdle[] => {
    if (!asksHost(section)) return anywhere(section);
    return host === null ? nowhere(section) : asked(section)(host);
  };
  const hurdlesAt = (section: SharedSection, host: Item | null): readonly Hurdle[] =>
    host === null ? own(section, null) : own(section, host).concat(collect(host, 'section'));
  /** What is asked at a host, as a number that is equal for the same. */
  const numbers = new Map<string, number>();
  const askedAt = onceFor((host: Item): number => {
    const asks = collect(host, 'section').map(keyOf).join(' ');
    const number = numbers.get(asks) ?? numbers.size;
    numbers.set(asks, number);
    return number;
  });
  const keyOf = ({ gate, at }: Hurdle): string =>
    gate === null ? 'closed' : `${gate.id}${aspect(gate)?.(at) ?? ''}`;
  /** What of a host the gates over a section ask, as a text that is equal for the same. */
  const ownAskedBy = onceFor((section: SharedSection) => {
    const aspects = anywhere(section).flatMap(({ gate }) => (gate && aspect(gate)) ?? []);
    return (host: Item): string => aspects.map((of) => of(host)).join('\n');
  });
  const kindsOf = onceFor((section: SharedSection): readonly HostKind[] => {
    const ownAsked = ownAskedBy(section);
    const kinds = new Map<string, HostKind & { readonly hosts: ItemId[] }>();
    for (const id of hosts(section)) {
      const host = outline.items.get(id);
      if (!host) continue;
      const key = `${askedAt(host)} ${ownAsked(host)}`;
      const found = kinds.get(key);
      if (found) {
        found.hosts.push(id);
        continue;
      }
      const [of, above] = [own(section, host), collect(host, 'section')];
      kinds.set(key, { hosts: [id], own: of, above, hurdles: of.concat(above) });
    }
    return [...kinds.values()];
  });
  return {
    hosts,
    on: (host) => (host === null ? sharedIn(outline).filter(({ shared }) => shared.elsewhere) : onHost(host)),
    own,
    at: (place) => {
      const found = placeOf(place);
      const section = found && outline.items.get(found.section);
      const host = found && outline.items.get(found.host);
      return section && host && isShared(section) && hosts(section).has(host.id)
        ? hurdlesAt(section, host)
        : null;
    },
    hurdlesAt,
    kindsOf,
    hurdlesOf: (section, kind) => {
      // What doesn't ask about the host speaks for itself; the rest is asked host by host.
      const plain = over(section, kind, section).filter(({ gate }) => gate === null || !asks(gate));
      const away = shutAt(section.id, kind);
      const somewhere: Hurdle = {
        over: section,
        at: section,
        gate: null,
        hostless: false,
        passes: (visitor, _, request) =>
          (section.shared.elsewhere && passesAll(hurdlesAt(section, null), visitor, request)) ||
          kindsOf(section).some(({ hurdles }) => passesAll(hurdles, visitor, request)),
        away: () => away,
      };
      return [...plain, somewhere];
    },
  };
}

/** On how many of its hosts a visitor gets a shared section. */
export function hostsOpenTo(
  { places }: { readonly places: Places },
  section: SharedSection,
  visitor: VisitorFacts,
  request: RequestFacts,
): { readonly open: number; readonly of: number } {
  let [open, of] = [0, 0];
  for (const { hosts, hurdles } of places.kindsOf(section)) {
    of += hosts.length;
    if (passesAll(hurdles, visitor, request)) open += hosts.length;
  }
  return { open, of };
}
