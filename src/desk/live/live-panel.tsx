'use client';
/** Before anything goes live: what differs, who gains, who loses, what guests notice. */
import { useState } from 'react';
import { toast } from 'sonner';
import {
  type AudienceChange,
  type Condition,
  capital,
  counted,
  describeGate,
  describeTurnAway,
  describeWho,
  difference,
  type Gate,
  type GateChange,
  gateAsOneSentence,
  type Item,
  type ItemId,
  type ListChange,
  listed,
  type Outcome,
  type PolicyChange,
  same,
  type TurnAwayChange,
} from '@/core';
import type { Crowd, EffectReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { OUTCOME_NAMES, OutcomeMark } from '../marks';
import { Panel } from '../panel';
import { ask } from '../service';
import { useAnswer } from '../use-answer';

export function LivePanel() {
  const { draft, setBench, setSide } = useDesk();
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const changes = difference(draft.live.policy, draft.policy);
  const answer = useAnswer<EffectReport>('effect', draft.policy);

  const putLive = async () => {
    setGoing(true);
    setProblem(null);
    const result = await ask<{ revision: number }>('POST', 'live', {
      version: draft.version,
      revision: draft.live.revision,
      note,
    });
    setGoing(false);
    await draft.refresh();
    if (!result.ok) {
      setProblem(result.title);
      return;
    }
    toast.success(`Revision ${result.value.revision} is live.`);
    setSide('live');
    setBench({ kind: 'gates' });
  };

  const discard = () => {
    draft.edit(draft.live.policy);
    toast('The draft is back to what is live.', { action: { label: 'Undo', onClick: draft.undo } });
    setBench({ kind: 'gates' });
  };

  if (changes.length === 0) {
    return (
      <Panel title="Put live" onClose={() => setBench({ kind: 'gates' })}>
        <p>
          The draft and what is live are the same. Change a gate, and what would change for whom is shown
          here.
        </p>
      </Panel>
    );
  }
  return (
    <Panel
      title="Before it is live"
      note={`${counted(changes.length, 'change')}, against revision ${draft.live.revision}`}
      onClose={() => setBench({ kind: 'gates' })}
    >
      <h3 className="mb-2">What differs</h3>
      <ul className="grid gap-3">
        {changes.map((change) => (
          <ChangeView key={`${change.kind} ${idOf(change)}`} change={change} />
        ))}
      </ul>
      <h3 className="mt-6 mb-2">Who notices</h3>
      {!answer && <p className="note">Working it out for everybody …</p>}
      {answer && !answer.ok && <p className="text-alarm">{answer.title}</p>}
      {answer?.ok && <EffectView report={answer.value} />}
      <form
        className="mt-6 grid gap-2 border-thin border-t pt-4"
        onSubmit={(event) => {
          event.preventDefault();
          void putLive();
        }}
      >
        <label className="grid gap-1">
          <span className="text-quiet">Note for the record (may stay empty)</span>
          <input
            value={note}
            maxLength={500}
            onChange={(event) => setNote(event.target.value)}
            className="rounded-[3px] border border-iron bg-raised px-2 py-1.5"
          />
        </label>
        {problem && (
          <p role="alert" className="text-alarm">
            {problem}
          </p>
        )}
        {!draft.settled && <p className="note">The last edit is not saved yet.</p>}
        <div className="flex items-center gap-2">
          <Button weight="main" type="submit" disabled={going || !draft.settled} className="px-4 py-1.5">
            Put {counted(changes.length, 'change')} live
          </Button>
          <Button weight="quiet" onClick={discard}>
            Drop the draft
          </Button>
        </div>
      </form>
    </Panel>
  );
}

const gateOf = (change: GateChange): Gate => (change.kind === 'removed' ? change.before : change.after);

const idOf = (change: PolicyChange): string =>
  change.of === 'landings' || change.of === 'defaults'
    ? change.of
    : change.kind === 'removed'
      ? change.before.id
      : change.after.id;

const TITLES: Record<PolicyChange['kind'], string> = {
  added: 'New',
  removed: 'Removed',
  changed: 'Changed',
  moved: 'Moved',
};

function ChangeView({ change }: { readonly change: PolicyChange }) {
  switch (change.of) {
    case 'gate':
      return <GateChangeView change={change} />;
    case 'audience':
      return <AudienceChangeView change={change} />;
    case 'turn-away':
      return <TurnAwayChangeView change={change} />;
    case 'landings':
    case 'defaults':
      return <ListChangeView change={change} />;
    default:
      return change satisfies never;
  }
}

function TurnAwayChangeView({ change }: { readonly change: TurnAwayChange }) {
  const { outline, vocabulary, setBench } = useDesk();
  const named = change.kind === 'removed' ? change.before : change.after;
  return (
    <li className="border-copper border-l-3 pl-3">
      <span className="text-copper">{TITLES[change.kind]} turn-away:</span>{' '}
      {change.kind === 'removed' ? (
        <del>{named.name}</del>
      ) : (
        <button
          type="button"
          className="font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
          onClick={() => setBench({ kind: 'rules' })}
        >
          {named.name}
        </button>
      )}
      <p>everyone who gets it {describeTurnAway(named.give, outline, 'one', vocabulary)}</p>
    </li>
  );
}

const LISTS = { landings: 'landing rules', defaults: 'gates that new items start with' } as const;

function ListChangeView({ change }: { readonly change: ListChange }) {
  const { setBench } = useDesk();
  const { before, after, of } = change;
  return (
    <li className="border-copper border-l-3 pl-3">
      <span className="text-copper">Changed:</span>{' '}
      <button
        type="button"
        className="font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
        onClick={() => setBench({ kind: 'rules' })}
      >
        {LISTS[of]}
      </button>{' '}
      <span className="text-quiet">
        ({before.length} before, {after.length} now)
      </span>
    </li>
  );
}

function AudienceChangeView({ change }: { readonly change: AudienceChange }) {
  const { compiled, setScreen } = useDesk();
  const audience = change.kind === 'removed' ? change.before : change.after;
  const said = (who: Condition, side: 'draft' | 'live') =>
    capital(describeWho(who, compiled[side].vocabulary));
  return (
    <li className="border-copper border-l-3 pl-3">
      <p>
        <span className="text-copper">{TITLES[change.kind]} audience:</span>{' '}
        {change.kind === 'removed' ? (
          <del>{audience.name}</del>
        ) : (
          <button
            type="button"
            className="font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
            onClick={() => setScreen({ kind: 'audiences', audience: audience.id })}
          >
            {audience.name}
          </button>
        )}
      </p>
      {change.kind === 'changed' && change.before.name !== change.after.name && (
        <p className="text-quiet">was called {change.before.name}</p>
      )}
      {change.kind === 'changed' && !same(change.before.who, change.after.who) && (
        <p>
          <del className="block text-quiet">{said(change.before.who, 'live')}</del>
          <ins className="block no-underline">{said(change.after.who, 'draft')}</ins>
        </p>
      )}
      {change.kind === 'added' && <p>{said(audience.who, 'draft')}</p>}
    </li>
  );
}

function GateChangeView({ change }: { readonly change: GateChange }) {
  const { outline, vocabulary, compiled, setBench } = useDesk();
  const gate = gateOf(change);
  const named = compiled.draft.policy.turnAways;
  const legs = describeGate(gate, outline, vocabulary, named);
  const before =
    change.kind === 'changed'
      ? describeGate(change.before, outline, compiled.live.vocabulary, compiled.live.policy.turnAways)
      : null;
  return (
    <li className="border-copper border-l-3 pl-3">
      <p>
        <span className="text-copper">{TITLES[change.kind]}:</span>{' '}
        {change.kind === 'removed' ? (
          <del>{gateAsOneSentence(gate, outline, vocabulary, named)}</del>
        ) : (
          <button
            type="button"
            className="font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
            onClick={() => setBench({ kind: 'gate', gate: gate.id })}
          >
            {capital(legs.what)}
          </button>
        )}
      </p>
      {change.kind === 'added' && (
        <p>
          {capital(legs.who)}; otherwise {legs.otherwise}
        </p>
      )}
      {before && (
        <dl className="mt-1 grid grid-cols-[5rem_1fr] gap-x-2 gap-y-1">
          {(['what', 'who', 'otherwise'] as const)
            .filter((leg) => before[leg] !== legs[leg])
            .map((leg) => (
              <div key={leg} className="contents">
                <dt className="text-quiet">{capital(leg)}</dt>
                <dd>
                  <del className="block text-quiet">{capital(before[leg])}</del>
                  <ins className="block no-underline">{capital(legs[leg])}</ins>
                </dd>
              </div>
            ))}
          {change.kind === 'changed' && change.before.stance !== change.after.stance && (
            <div className="contents">
              <dt className="text-quiet">Stance</dt>
              <dd>
                <del className="text-quiet">{change.before.stance}</del>{' '}
                <ins className="no-underline">{change.after.stance}</ins>
              </dd>
            </div>
          )}
        </dl>
      )}
    </li>
  );
}

function EffectView({ report }: { readonly report: EffectReport }) {
  const { gains, loses, places } = report;
  if (places.length === 0) return <p>Nobody: every visitor gets what they got before.</p>;
  return (
    <div className="grid gap-3" data-testid="effect">
      <p className="flex gap-6">
        <Tally sign="+" colour="text-open" crowd={gains} word="gains" many="gain" />
        <Tally sign="−" colour="text-alarm" crowd={loses} word="loses" many="lose" />
      </p>
      <ul className="grid gap-2">
        {places.map((entry) => (
          <li key={entry.items.join()} className="border-thin border-t pt-2">
            <Places items={entry.items} />
            <People sign="+" colour="text-open" crowd={entry.gains} />
            <People sign="−" colour="text-alarm" crowd={entry.loses} />
            <People sign="~" colour="text-quiet" crowd={entry.sees} word="get something else" />
            {entry.guests && (
              <p className="flex items-center gap-1.5">
                Guests: <Outcomed outcome={entry.guests.before} /> <span aria-hidden="true">›</span>
                <span className="sr-only">becomes</span> <Outcomed outcome={entry.guests.after} />
              </p>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Items by title; pages and links of one name are told apart. */
function Places({ items }: { readonly items: readonly ItemId[] }) {
  const { outline } = useDesk();
  const titles = (wanted: (item: Item) => boolean) =>
    items
      .map((id) => outline.items.get(id))
      .filter((item) => item !== undefined)
      .filter(wanted)
      .map((item) => item.title);
  const pages = titles((item) => item.kind === 'page');
  const others = titles((item) => item.kind !== 'page');
  return (
    <p>
      <strong>{listed(pages)}</strong>
      {pages.length > 0 && others.length > 0 && <span className="text-quiet">, and in the menu </span>}
      <strong className="font-normal">{listed(others)}</strong>
    </p>
  );
}

const Outcomed = ({ outcome }: { readonly outcome: Outcome }) => (
  <span className="inline-flex items-center gap-1">
    <OutcomeMark outcome={outcome} size={14} /> {OUTCOME_NAMES[outcome]}
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
