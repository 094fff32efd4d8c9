'use client';
import { ChevronUp, X } from 'lucide-react';
import { useMemo } from 'react';
import {
  type Case,
  type Condition,
  capital,
  coverage,
  describeWho,
  fitTo,
  type Gate,
  type Given,
  guests,
  ITEM_KINDS,
  type Item,
  listed,
  nameOfId,
  passedByBuying,
  redirectToSignIn,
  resolveGiven,
  same,
  signedIn,
  type TurnAway,
  type TurnAwayId,
} from '@/core';
import { Button, Pick } from '@/ui';
import { ConditionEditor, newTest } from '../condition';
import { followingIn, useDesk } from '../context';
import { TurnAwayEditor } from './turn-away-editor';
import { TurnAwayPreview } from './turn-away-preview';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

/** One step: whoever does not pass may buy what lets them pass, and comes back. */
function MayBuy({ gate, onChange }: LegProps) {
  const { data, vocabulary, request } = useDesk();
  const products = useMemo(
    () =>
      passedByBuying(gate.who, vocabulary, request, { onSale: data.onSale, following: followingIn(data) }),
    [gate.who, vocabulary, request, data],
  );
  const { last } = gate.otherwise;
  const offered =
    last.kind !== 'named' && 'next' in last && last.next.kind === 'buy' ? last.next.product : null;
  return products
    .filter((product) => product !== offered)
    .map((product) => (
      <Button
        key={product}
        weight="quiet"
        onClick={() =>
          onChange({
            ...gate,
            otherwise: {
              // Who buys needs no account before: guests get the same.
              cases: gate.otherwise.cases.filter(({ when }) => !same(when, guests)),
              last:
                last.kind !== 'named' && 'next' in last
                  ? { ...last, next: { kind: 'buy', product } }
                  : { kind: 'message', reason: { kind: 'written' }, next: { kind: 'buy', product } },
            },
          })
        }
      >
        Everybody else may buy {nameOfId(vocabulary, 'product', product)} here
      </Button>
    ));
}

/** The third leg: what everyone else gets, case by case; the first that fits is used. */
export function OtherwiseLeg({ gate, onChange }: LegProps) {
  const { outline, vocabulary } = useDesk();
  const { cases, last } = gate.otherwise;
  const change = (otherwise: Partial<Gate['otherwise']>) =>
    onChange({ ...gate, otherwise: { ...gate.otherwise, ...otherwise } });
  const put = (index: number, entry: Case) =>
    change({ cases: cases.map((one, at) => (at === index ? entry : one)) });
  const covered = [...coverage(gate, outline, vocabulary)]
    .map((id) => outline.items.get(id))
    .filter((item) => item !== undefined);
  const samples = ITEM_KINDS.flatMap((kind) => covered.find((item) => item.kind === kind) ?? []);
  const guestCase = cases.some(({ when }) => same(when, guests));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      {cases.map((entry, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: cases have no identity but their place
        <section key={index} className="grid gap-2" aria-label={`Case ${index + 1}`}>
          <div className="flex items-center gap-1.5">
            <WhoInCase when={entry.when} onChange={(when) => put(index, { ...entry, when })} />
            <span className="ml-auto flex">
              {index > 0 && (
                <Button
                  weight="quiet"
                  size="small"
                  aria-label="Move this case up"
                  title="Move up"
                  onClick={() => change({ cases: moved(cases, index) })}
                >
                  <ChevronUp size={15} aria-hidden="true" />
                </Button>
              )}
              <Button
                weight="quiet"
                size="small"
                aria-label="Take this case out"
                title="Take out"
                onClick={() => change({ cases: cases.filter((_, at) => at !== index) })}
              >
                <X size={14} aria-hidden="true" />
              </Button>
            </span>
          </div>
          {!isShort(entry.when) && (
            <ConditionEditor condition={entry.when} onChange={(when) => put(index, { ...entry, when })} />
          )}
          <GivenEditor
            gate={gate}
            samples={samples}
            given={entry.give}
            onChange={(give) => put(index, { ...entry, give })}
          />
        </section>
      ))}
      <section className="grid gap-2" aria-label="Everyone else">
        <p className="font-semibold">{cases.length === 0 ? 'Everyone who does not pass' : 'Everyone else'}</p>
        <GivenEditor
          gate={gate}
          samples={samples}
          given={last}
          onChange={(turnAway) => change({ last: turnAway })}
        />
      </section>
      <div>
        <Button
          weight="quiet"
          onClick={() =>
            change({
              cases: guestCase
                ? [...cases, { when: newTest('level', vocabulary), give: last }]
                : [{ when: guests, give: redirectToSignIn }, ...cases],
            })
          }
        >
          {guestCase ? '+ another case' : '+ something else for guests'}
        </Button>
        <MayBuy gate={gate} onChange={onChange} />
      </div>
    </div>
  );
}

const moved = (cases: readonly Case[], index: number): readonly Case[] => {
  const next = [...cases];
  next.splice(index - 1, 0, ...next.splice(index, 1));
  return next;
};

/** Conditions that a case names in a word. */
const isShort = (when: Condition): boolean => same(when, guests) || same(when, signedIn);

function WhoInCase({
  when,
  onChange,
}: {
  readonly when: Condition;
  readonly onChange: (when: Condition) => void;
}) {
  const { vocabulary } = useDesk();
  const value = same(when, guests) ? 'guests' : same(when, signedIn) ? 'members' : 'others';
  return (
    <Pick
      label="Who gets this"
      className="font-semibold"
      value={value}
      options={[
        { value: 'guests', label: 'Guests' },
        { value: 'members', label: 'Members' },
        {
          value: 'others',
          label: value === 'others' ? capital(describeWho(when, vocabulary)) : 'Certain people …',
        },
      ]}
      onPick={(next) =>
        onChange(
          next === 'guests'
            ? guests
            : next === 'members'
              ? signedIn
              : value === 'others'
                ? when
                : newTest('level', vocabulary),
        )
      }
    />
  );
}

interface GivenProps {
  readonly gate: Gate;
  /** One of each kind of item that the gate covers. */
  readonly samples: readonly Item[];
  readonly given: Given;
  readonly onChange: (given: Given) => void;
}

const OWN = 'own';

/** What a case gives: a turn-away of its own or one with a name, drawn for every kind of item that the gate covers. */
function GivenEditor({ gate, samples, given, onChange }: GivenProps) {
  const { draft } = useDesk();
  const named = draft.policy.turnAways;
  const turnAway = resolveGiven(given, named);
  return (
    <>
      {(named.length > 0 || given.kind === 'named') && (
        <Pick
          className="max-w-full justify-self-start"
          label="A turn-away with a name, or one of its own"
          value={given.kind === 'named' ? given.turnAway : OWN}
          options={[
            { value: OWN, label: 'one of its own' },
            ...named.map(({ id, name }) => ({ value: id as string, label: `“${name}”` })),
            ...(given.kind === 'named' && !named.some(({ id }) => id === given.turnAway)
              ? [{ value: given.turnAway as string, label: 'one that no longer exists' }]
              : []),
          ]}
          onPick={(id) => onChange(id === OWN ? turnAway : { kind: 'named', turnAway: id as TurnAwayId })}
        />
      )}
      {given.kind !== 'named' && <TurnAwayEditor turnAway={given} onChange={onChange} />}
      {samples.length === 0 && <TurnAwayPreview turnAway={turnAway} item={null} who={gate.who} />}
      {alike(samples, turnAway).map(({ kinds, sample, shown }) => (
        <div key={kinds.join()} className="grid gap-1">
          {(samples.length > 1 || shown !== turnAway) && (
            <p className="note">
              {capital(listed(kinds.map((kind) => `${kind}s`)))}
              {shown === turnAway ? '' : ': the nearest that fits'}
            </p>
          )}
          <TurnAwayPreview turnAway={shown} item={sample} who={gate.who} />
        </div>
      ))}
    </>
  );
}

/** The kinds of items that get the same of a turn-away, with one of them to draw. */
function alike(samples: readonly Item[], turnAway: TurnAway) {
  const found: { readonly kinds: Item['kind'][]; readonly sample: Item; readonly shown: TurnAway }[] = [];
  for (const sample of samples) {
    const shown = fitTo(sample.kind, turnAway);
    const before = found.find((one) => same(one.shown, shown));
    if (before) before.kinds.push(sample.kind);
    else found.push({ kinds: [sample.kind], sample, shown });
  }
  return found;
}
