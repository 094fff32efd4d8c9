'use client';
/** Who gains and who loses: over all, by gate, and item by item. */
import { useState } from 'react';
import {
  capital,
  counted,
  describeForGuests,
  type GateId,
  type Item,
  isOpenable,
  listed,
  nameInContext,
  type Outcome,
  outcomeName,
} from '@/core';
import type { Crowd, EffectReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { legsOf } from '../gate-legs';
import { OutcomeMark } from '../marks';
import type { useEffectReport } from './use-effect-report';

export function EffectView({ report }: { readonly report: EffectReport }) {
  const { outline } = useDesk();
  const [most, setMost] = useState(FIRST_PLACES);
  const { gains, loses, places, byGate } = report;
  const guests = describeForGuests(report.guests, outline);
  if (places.length === 0) return <p>Nobody: every visitor gets what they got before.</p>;
  return (
    <div className="grid gap-3" data-testid="effect">
      <p className="font-head text-lg">Guests {guests ?? 'notice nothing'}</p>
      <p className="flex gap-6">
        <Tally sign="+" colour="text-open" crowd={gains} word="member gains" many="members gain" />
        <Tally sign="−" colour="text-alarm" crowd={loses} word="member loses" many="members lose" />
      </p>
      {byGate.length > 0 && (
        <section>
          <h4 className="mb-1 font-head">By gate</h4>
          <ul className="grid gap-2">
            {byGate.map((entry) => (
              <li key={entry.gate} className="border-thin border-t pt-2">
                <GateName id={entry.gate} />
                <People sign="+" colour="text-open" crowd={entry.gains} word="it no longer turns away" />
                <People sign="−" colour="text-alarm" crowd={entry.loses} word="it turns away now" />
              </li>
            ))}
          </ul>
        </section>
      )}
      <h4 className="-mb-2 font-head">By item</h4>
      <ul className="grid gap-2">
        {places.slice(0, most).map((entry) => (
          <li key={entry.items.join()} className="border-thin border-t pt-2">
            <Places items={entry.items} hosts={entry.hosts} />
            {entry.guests && (
              <p className="flex items-center gap-1.5">
                Guests: <Outcomed outcome={entry.guests.before} /> <span aria-hidden="true">›</span>
                <span className="sr-only">becomes</span> <Outcomed outcome={entry.guests.after} />
              </p>
            )}
            <People sign="+" colour="text-open" crowd={entry.gains} />
            <People sign="−" colour="text-alarm" crowd={entry.loses} />
            <People sign="~" colour="text-quiet" crowd={entry.sees} word="get something else" />
          </li>
        ))}
      </ul>
      {places.length > most && (
        <Button weight="quiet" onClick={() => setMost(places.length)}>
          {places.length - most} more
        </Button>
      )}
    </div>
  );
}

const FIRST_PLACES = 30;

/** A gate by what it covers; one that is only live is read as it is there. */
function GateName({ id }: { readonly id: GateId }) {
  const { compiled, setBench } = useDesk();
  const side = compiled.draft.policy.gates.some((gate) => gate.id === id) ? compiled.draft : compiled.live;
  const gate = side.policy.gates.find((one) => one.id === id);
  if (!gate) return null;
  const { what } = legsOf(gate, side);
  return side === compiled.draft ? (
    <button
      type="button"
      onClick={() => setBench({ kind: 'gate', gate: id })}
      className="text-left font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
    >
      {capital(what)}
    </button>
  ) : (
    <del>{capital(what)}</del>
  );
}

/** The effect as far as it is known: how far it is, with the way to stop it, or what it came to. */
export function EffectStateView({ state, stop, again }: ReturnType<typeof useEffectReport>) {
  const report = state.kind === 'report' ? state.report : state.kind === 'refused' ? null : state.last;
  return (
    <>
      {state.kind === 'working' && (
        <div className="mb-2 flex items-center gap-3">
          <progress
            value={state.done}
            max={1}
            aria-label="Working it out for everybody"
            className="h-1.5 flex-1 accent-copper"
          />
          <span className="note tabular-nums">{Math.round(state.done * 100)} %</span>
          <Button weight="quiet" size="small" onClick={stop}>
            Stop
          </Button>
        </div>
      )}
      {state.kind === 'stopped' && (
        <p className="mb-2 flex items-center gap-3">
          Stopped. <Button onClick={again}>Work it out</Button>
        </p>
      )}
      {state.kind === 'refused' && (
        <p role="alert" className="text-alarm">
          {state.title}
        </p>
      )}
      {report && (
        <div className={state.kind === 'report' ? '' : 'opacity-60'}>
          <EffectView report={report} />
        </div>
      )}
    </>
  );
}

/** Items by title: what opens by itself, then the links that lead there, then the parts that follow. */
function Places({ items, hosts }: Pick<EffectReport['places'][number], 'items' | 'hosts'>) {
  const { outline } = useDesk();
  const there = items.flatMap((id) => outline.items.get(id) ?? []);
  const [open, links, rest] = [
    there.filter(isOpenable),
    there.filter(({ kind }) => kind === 'link'),
    there.filter((item) => item.kind !== 'link' && !isOpenable(item)),
  ];
  const named = (list: readonly Item[]) =>
    listed([...new Set(list.map((item) => nameInContext(item, outline) + onPages(hosts[item.id])))]);
  return (
    <p>
      <strong>{named(open)}</strong>
      {links.length > 0 && (
        <>
          <span className="text-quiet">{open.length > 0 ? ', and in menus ' : 'In menus '}</span>
          {named(links)}
        </>
      )}
      {rest.length > 0 && (
        <>
          {open.length + links.length > 0 && <span className="text-quiet">, and </span>}
          {named(rest)}
        </>
      )}
    </p>
  );
}

/** Where a shared section changes; one may do so on search and sign-in alone. */
const onPages = (count: number | undefined): string =>
  count === undefined ? '' : count === 0 ? ' (where no page is)' : ` (on ${counted(count, 'page')})`;

const Outcomed = ({ outcome }: { readonly outcome: Outcome }) => (
  <span className="inline-flex items-center gap-1">
    <OutcomeMark outcome={outcome} size={14} /> {outcomeName(outcome)}
  </span>
);

interface TallyProps {
  readonly sign: string;
  readonly colour: string;
  readonly crowd: Crowd;
}

const Tally = ({
  sign,
  colour,
  crowd,
  word,
  many,
}: TallyProps & { readonly word: string; readonly many: string }) => (
  <span className="font-head text-lg">
    <strong className={crowd.count > 0 ? colour : 'text-quiet'}>
      {crowd.count > 0 && sign}
      {crowd.count}
    </strong>{' '}
    {crowd.count === 1 ? word : many}
  </span>
);

function People({ sign, colour, crowd, word = '' }: TallyProps & { readonly word?: string }) {
  if (crowd.count === 0) return null;
  return (
    <p>
      <strong className={colour}>
        {sign}
        {crowd.count}
      </strong>{' '}
      {word && `${word}: `}
      <CrowdNames crowd={crowd} />
    </p>
  );
}
