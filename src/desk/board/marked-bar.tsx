'use client';
/** What can be done with the rows that are marked, all at once. */
import { useMemo } from 'react';
import {
  below,
  capital,
  coverToo,
  decide,
  type Gate,
  ITEM_KINDS,
  type Item,
  KINDS,
  keyOfStandIn,
  mayHold,
  meantBy,
  nameInContext,
  nameOf,
  type Outline,
  outcomeOf,
  permits,
  pinned,
  type StandIn,
  standInFacts,
} from '@/core';
import { Button, type Findable, Finder } from '@/ui';
import { useDesk } from '../context';
import { usePin } from '../findings';
import { legsOf } from '../gate-legs';
import { useChangeItem } from '../use-change-item';
import { type Marking, markAll, unmarked } from './marking';
import type { Row } from './rows';

/** What is no part of the draft says so. */
const AT_ONCE = 'On the site, at once; can be undone';

interface MarkedBarProps {
  readonly marking: Marking;
  readonly rows: readonly Row[];
  readonly onChange: (marking: Marking) => void;
}

export function MarkedBar({ marking, rows, onChange }: MarkedBarProps) {
  const { data, outline, compiled, request, setBench } = useDesk();
  const { change } = useChangeItem();
  const pin = usePin();
  const { marked } = marking;
  // What others have taken away meanwhile is no longer meant.
  const items = useMemo(() => [...marked].flatMap((id) => outline.items.get(id) ?? []), [marked, outline]);
  const inView = useMemo(() => new Set(rows.map(({ item }) => item.id)), [rows]);
  const away = items.filter(({ id }) => !inView.has(id)).length;
  const ids = items.map(({ id }) => id as string);
  const keep = (standIn: StandIn) => {
    const facts = standInFacts(standIn);
    pin(
      pinned(
        meantBy(standIn),
        items.map(({ id }) => [id, outcomeOf(decide(compiled.draft, id, facts, request))]),
        outline,
      ),
    );
  };
  const publish = (published: boolean) => void change({ kind: 'publish', items: ids, published });
  return (
    <section
      aria-label="What is marked"
      data-testid="marked-bar"
      className="flex flex-wrap items-center gap-x-2 gap-y-1 border-copper border-t-2 bg-raised px-4 py-1.5 text-[0.8125rem]"
    >
      <span role="status" className="mr-1 font-semibold">
        {items.length} marked
        {away > 0 && <span className="font-normal text-quiet">, {away} of them not in view</span>}
      </span>
      {permits(data.desk, 'gates') && (
        <>
          <GateFinder items={items} />
          <VisitorFinder
            says="Make it so …"
            asks="For whom it should be otherwise"
            title="What opens or closes all of it to somebody"
            onChoose={(standIn) =>
              setBench({
                kind: 'make so',
                items: items.map(({ id }) => id),
                standIns: [keyOfStandIn(standIn)],
              })
            }
          />
          <VisitorFinder
            says="Keep it so …"
            asks="For whom it must stay so"
            title="Nothing goes live any more by which this is otherwise"
            onChoose={keep}
          />
        </>
      )}
      {permits(data.desk, 'content') && (
        <>
          {items.some((item) => !item.published) && (
            <Button title={AT_ONCE} onClick={() => publish(true)}>
              Publish
            </Button>
          )}
          {items.some((item) => item.published) && (
            <Button title={AT_ONCE} onClick={() => publish(false)}>
              Unpublish
            </Button>
          )}
          <PlaceFinder items={items} />
        </>
      )}
      <span className="ml-auto flex gap-1">
        {[...inView].some((id) => !marked.has(id)) && (
          <Button weight="quiet" onClick={() => onChange(markAll(marking, [...inView]))}>
            Mark all {inView.size}
          </Button>
        )}
        <Button weight="quiet" title="Esc" onClick={() => onChange(unmarked)}>
          Unmark
        </Button>
      </span>
    </section>
  );
}

interface FoundGate extends Findable {
  /** Null for a new one. */
  readonly gate: Gate | null;
}

function GateFinder({ items }: { readonly items: readonly Item[] }) {
  const { outline, vocabulary, compiled, changeGate, addGate, setBench } = useDesk();
  const { policy } = compiled.draft;
  const put = (gate: Gate) => {
    const ids = items.map(({ id }) => id);
    changeGate(coverToo(gate, ids, outline, vocabulary));
    setBench({ kind: 'gate', gate: gate.id });
  };
  return (
    <Finder<FoundGate>
      label="Gates"
      placeholder="What the gate is over, or who passes"
      nothing="No gate like that."
      wide
      trigger={<Button>Put under a gate …</Button>}
      found={[
        ...policy.gates.map((gate) => {
          const { what, who } = legsOf(gate, compiled.draft);
          return { key: gate.id as string, label: capital(what), note: who, gate };
        }),
        { key: 'new', label: 'A new gate', note: 'over what is marked', gate: null },
      ]}
      onChoose={({ gate }) => (gate ? put(gate) : addGate(...items))}
    />
  );
}

interface FoundVisitor extends Findable {
  readonly standIn: StandIn;
}

interface VisitorFinderProps {
  readonly says: string;
  readonly asks: string;
  readonly title: string;
  readonly onChoose: (standIn: StandIn) => void;
}

/** One of the visitors on the board, for whom something is said of all that is marked. */
function VisitorFinder({ says, asks, title, onChoose }: VisitorFinderProps) {
  const { standIns } = useDesk();
  return (
    <Finder<FoundVisitor>
      label="Visitors"
      placeholder={asks}
      nothing="Nobody of that name is on the board."
      trigger={<Button title={title}>{says}</Button>}
      found={standIns.map((standIn) => ({
        key: keyOfStandIn(standIn),
        label: nameOf(standIn),
        note: standIn.kind === 'made up' ? 'and everybody like that' : '',
        standIn,
      }))}
      onChoose={({ standIn }) => onChoose(standIn)}
    />
  );
}

interface FoundPlace extends Findable {
  readonly place: Item;
}

function PlaceFinder({ items }: { readonly items: readonly Item[] }) {
  const { outline } = useDesk();
  const { change } = useChangeItem();
  const places = useMemo(() => placesFor(items, outline), [items, outline]);
  if (places.length === 0)
    return (
      <span className="text-quiet">
        {capital(
          ITEM_KINDS.filter((kind) => items.some((item) => item.kind === kind))
            .map((kind) => KINDS[kind].many)
            .join(' and '),
        )}{' '}
        have no place in common to move to.
      </span>
    );
  return (
    <Finder<FoundPlace>
      label="Places"
      placeholder="Below what"
      nothing="Nothing by that name can hold what is marked."
      trigger={<Button title={AT_ONCE}>Move below …</Button>}
      found={places.map((place) => ({
        key: place.id as string,
        label: place.kind === 'site' ? 'At the top' : nameInContext(place, outline),
        note: KINDS[place.kind].one,
        place,
      }))}
      onChoose={({ place }) =>
        void change({
          kind: 'move',
          moves: inOrder(items, outline).map(({ id }) => ({ item: id, parent: place.id, before: null })),
        })
      }
    />
  );
}

/** What can hold every one of them and does not yet: of a right kind, and none of what is in them. */
function placesFor(items: readonly Item[], outline: Outline): readonly Item[] {
  const within = new Set(items.flatMap(({ id }) => below(outline, id).map((one) => one.id)));
  return [...outline.items.values()].filter(
    (place) =>
      !within.has(place.id) &&
      items.every(({ kind }) => mayHold(place.kind, kind)) &&
      items.some(({ parent }) => parent !== place.id),
  );
}

/** As they follow one another in the outline; what stands in something that moves as well goes along by itself. */
function inOrder(items: readonly Item[], outline: Outline): readonly Item[] {
  const marked = new Set(items.map(({ id }) => id));
  const goesAlong = ({ parent }: Item): boolean => {
    const above = parent === null ? undefined : outline.items.get(parent);
    return above !== undefined && (marked.has(above.id) || goesAlong(above));
  };
  return below(outline, outline.root).filter((item) => marked.has(item.id) && !goesAlong(item));
}
