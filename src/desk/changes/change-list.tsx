'use client';
/** What differs between two policies, in words: gates leg by leg, audiences, turn-aways, rules. */
import {
  type AudienceChange,
  type Condition,
  capital,
  describeExpectation,
  describeGate,
  describeTurnAway,
  describeWho,
  difference,
  type ExpectationChange,
  type Gate,
  type GateChange,
  gateAsOneSentence,
  type ListChange,
  type Policy,
  type PolicyChange,
  same,
  type TurnAwayChange,
  type Vocabulary,
} from '@/core';
import { useDesk } from '../context';

/** A policy with the names that its conditions use. */
export interface PolicySide {
  readonly policy: Policy;
  readonly vocabulary: Vocabulary;
}

interface Sides {
  readonly before: PolicySide;
  readonly after: PolicySide;
}

export function ChangeList({ before, after }: Sides) {
  return (
    <ul className="grid gap-3">
      {difference(before.policy, after.policy).map((change) => (
        <ChangeView key={`${change.kind} ${idOf(change)}`} change={change} before={before} after={after} />
      ))}
    </ul>
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

function ChangeView({ change, before, after }: { readonly change: PolicyChange } & Sides) {
  switch (change.of) {
    case 'gate':
      return <GateChangeView change={change} before={before} after={after} />;
    case 'audience':
      return <AudienceChangeView change={change} before={before} after={after} />;
    case 'turn-away':
      return <TurnAwayChangeView change={change} before={before} after={after} />;
    case 'expectation':
      return <ExpectationChangeView change={change} before={before} after={after} />;
    case 'landings':
    case 'defaults':
      return <ListChangeView change={change} />;
    default:
      return change satisfies never;
  }
}

function TurnAwayChangeView({ change, before: was, after: is }: { readonly change: TurnAwayChange } & Sides) {
  const { outline, setBench } = useDesk();
  const { vocabulary } = change.kind === 'removed' ? was : is;
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

function ExpectationChangeView({
  change,
  before: was,
  after: is,
}: { readonly change: ExpectationChange } & Sides) {
  const { outline, setScreen } = useDesk();
  const one = change.kind === 'removed' ? change.before : change.after;
  const said = (expectation: typeof one, { vocabulary }: PolicySide) =>
    capital(describeExpectation(expectation, outline, vocabulary));
  return (
    <li className="border-copper border-l-3 pl-3">
      <span className="text-copper">{TITLES[change.kind]} expectation:</span>{' '}
      {change.kind === 'removed' ? (
        <del>{said(one, was)}</del>
      ) : (
        <button
          type="button"
          className="text-left font-semibold underline decoration-thin underline-offset-3 hover:text-copper"
          onClick={() => setScreen({ kind: 'findings', open: null, expectation: one.id })}
        >
          {said(one, is)}
        </button>
      )}
      {change.kind === 'changed' && <del className="block text-quiet">{said(change.before, was)}</del>}
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

function AudienceChangeView({ change, before: was, after: is }: { readonly change: AudienceChange } & Sides) {
  const { setScreen } = useDesk();
  const audience = change.kind === 'removed' ? change.before : change.after;
  const said = (who: Condition, { vocabulary }: PolicySide) => capital(describeWho(who, vocabulary));
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
          <del className="block text-quiet">{said(change.before.who, was)}</del>
          <ins className="block no-underline">{said(change.after.who, is)}</ins>
        </p>
      )}
      {change.kind === 'added' && <p>{said(audience.who, is)}</p>}
    </li>
  );
}

function GateChangeView({ change, before: was, after: is }: { readonly change: GateChange } & Sides) {
  const { outline, setBench } = useDesk();
  const gate = gateOf(change);
  const { policy, vocabulary } = change.kind === 'removed' ? was : is;
  const named = policy.turnAways;
  const legs = describeGate(gate, outline, vocabulary, named);
  const before =
    change.kind === 'changed'
      ? describeGate(change.before, outline, was.vocabulary, was.policy.turnAways)
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
          {capital(legs.who)}
          {legs.otherwise !== null && `; otherwise ${legs.otherwise}`}
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
                  <del className="block text-quiet">{capital(before[leg] ?? 'nobody is turned away')}</del>
                  <ins className="block no-underline">{capital(legs[leg] ?? 'nobody is turned away')}</ins>
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
