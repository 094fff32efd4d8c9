'use client';
/** One person: everything known of them, to be changed; and beside it what they can reach, and why. */
import { ArrowLeft } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import {
  type AudienceId,
  asId,
  capital,
  counted,
  keyOfStandIn,
  listed,
  meantBy,
  outcomeName,
  pinned,
  type StandIn,
} from '@/core';
import type { KindsReport, PersonAtItem, PersonReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { FoundOfOne, PinButton } from '../findings';
import { PastChanges } from '../history';
import { OutcomeMark } from '../marks';
import { startOf } from '../screens';
import { ask } from '../service';
import { useAnswer } from '../use-answer';
import { InvitePerson } from './invite';
import { emptyPerson, PersonForm } from './person-form';

export function PersonScreen({ person }: { readonly person: string | null }) {
  const { data, setScreen, request } = useDesk();
  const [report, setReport] = useState<PersonReport | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anybody was changed
  useEffect(() => {
    if (person === null) return;
    const calledOff = new AbortController();
    ask<PersonReport>('GET', `people/${encodeURIComponent(person)}`, undefined, calledOff.signal).then(
      (answer) => {
        if (answer.ok) setReport(answer.value);
        setProblem(answer.ok ? null : answer.title);
      },
      () => undefined,
    );
    return () => calledOff.abort();
  }, [person, data]);
  const newcomer = useMemo(() => ({ ...emptyPerson, joined: request.today }), [request.today]);
  const back = (
    <a
      href="/desk/people"
      onClick={(event) => {
        event.preventDefault();
        setScreen(startOf('people'));
      }}
      className="inline-flex items-center gap-1.5 text-quiet hover:text-copper"
    >
      <ArrowLeft size={15} aria-hidden="true" /> People
    </a>
  );
  if (person !== null && !report) {
    return (
      <main className="min-h-0 flex-1 px-6 py-5">
        {back}
        <p className="mt-4">{problem ?? 'Looking …'}</p>
      </main>
    );
  }
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,34rem)]">
      <section aria-label="What is known" className="min-h-0 overflow-y-auto px-6 py-5">
        {back}
        <h2 className="mt-1 text-2xl">{report?.person.name ?? 'Somebody new'}</h2>
        {report && !report.canSignIn && <InvitePerson id={report.person.id} name={report.person.name} />}
        <PersonForm id={person} person={report?.person ?? newcomer} />
        {person !== null && (
          <section aria-label="What was changed" className="mt-8">
            <h3 className="mb-1">What was changed</h3>
            <PastChanges person={person} />
          </section>
        )}
      </section>
      <aside
        aria-label="What they reach"
        className="min-h-0 overflow-y-auto border-iron border-l bg-raised px-6 py-5"
      >
        {report ? (
          <ReachView report={report} />
        ) : (
          <p className="text-quiet">Once they are saved, this shows what they can reach, and why.</p>
        )}
      </aside>
    </main>
  );
}

/** What they have and by what, what they bought, and what the next days bring. */
function Standing({ report: { has, orders, ahead } }: { readonly report: PersonReport }) {
  const { setScreen } = useDesk();
  return (
    <>
      {has.length > 0 && (
        <section aria-label="What they have" className="mt-4">
          <h3 className="mb-1">What they have</h3>
          <ul className="grid gap-0.5">
            {has.map((one) => (
              <li key={one}>{capital(one)}</li>
            ))}
          </ul>
        </section>
      )}
      {orders.length > 0 && (
        <section aria-label="What they bought" className="mt-4">
          <h3 className="mb-1">What they bought</h3>
          <ul className="grid gap-0.5">
            {orders.map(({ id, productName, price, standing, on }) => (
              <li key={id}>
                <button
                  type="button"
                  className="text-left hover:text-copper"
                  onClick={() => setScreen({ kind: 'sales', order: id })}
                >
                  {productName}, {price}
                </button>{' '}
                <span className="note">
                  {standing}, {on}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {ahead.length > 0 && (
        <section aria-label="What the next days bring" className="mt-4">
          <h3 className="mb-1">What the next days bring</h3>
          <ol className="grid gap-1.5">
            {ahead.map(({ on, what, loses, gets, closes, opens }) => (
              <li key={on} className="grid grid-cols-[6rem_minmax(0,1fr)] gap-x-2">
                <time dateTime={on} className="text-quiet">
                  {on}
                </time>
                <div>
                  {listed(what)}.{gets.length > 0 && ` They get ${listed(gets)}.`}
                  {opens.length > 0 && ` Opens ${listed(opens)}.`}
                  {(loses.length > 0 || closes.length > 0) && (
                    <span className="text-alarm">
                      {loses.length > 0 && ` They lose ${listed(loses)}.`}
                      {closes.length > 0 && ` Closes ${listed(closes)}.`}
                    </span>
                  )}
                </div>
              </li>
            ))}
          </ol>
        </section>
      )}
    </>
  );
}

function ReachView({ report }: { readonly report: PersonReport }) {
  const { outline, setScreen, standIns, setStandIns, setBench, walk } = useDesk();
  const { person, member, audiences, reach } = report;
  const standIn: StandIn = { kind: 'member', member };
  const onBoard = standIns.find((one) => keyOfStandIn(one) === keyOfStandIn(standIn));
  const open = reach.filter(({ outcome }) => outcome === 'open');
  const away = reach.filter(({ outcome }) => outcome !== 'open');
  const why = (item: PersonAtItem['item']) => {
    if (!onBoard) setStandIns([...standIns, standIn]);
    setBench({ kind: 'why', item, standIn: keyOfStandIn(standIn) });
  };
  return (
    <>
      <div className="flex items-start justify-between gap-3">
        <h2 className="text-xl">What they reach</h2>
        <span className="flex gap-1.5">
          <PinButton
            title="Nothing goes live any more by which they get something else"
            expected={() =>
              pinned(
                meantBy(standIn),
                reach.map(({ item, outcome }) => [item, outcome]),
                outline,
              )
            }
          />
          <Button onClick={() => walk(standIn, null)}>Walk as {person.name.split(' ')[0]}</Button>
        </span>
      </div>
      <p className="note mt-0.5">On the live site. Choose a page to see every gate on the way.</p>
      <OfAKind person={person.id} />
      <p>
        <button
          type="button"
          className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
          onClick={() => setScreen({ kind: 'ahead', person: person.id })}
        >
          What will open and close to them by itself
        </button>
      </p>
      <FoundOfOne visitor={member.facts} />
      {audiences.length > 0 && (
        <p className="mt-3 flex flex-wrap items-center gap-1.5">
          <span className="text-quiet">In</span>
          {audiences.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              onClick={() => setScreen({ kind: 'audiences', audience: asId<AudienceId>(id) })}
              className="rounded-full border border-iron px-2 leading-6 hover:border-copper hover:text-copper"
            >
              {name}
            </button>
          ))}
        </p>
      )}
      <Standing report={report} />
      <ReachList
        title={`Closed: ${away.length} of ${reach.length} pages, posts and activities`}
        list={away}
        onWhy={why}
      />
      <ReachList title={`Open: ${open.length}`} list={open} onWhy={why} />
    </>
  );
}

/** How many others get the same everywhere, with the way to all kinds. */
function OfAKind({ person }: { readonly person: string }) {
  const { data, draft, setScreen } = useDesk();
  const answer = useAnswer<KindsReport>('kinds', { policy: draft.live.policy, person }, data);
  const kind = answer?.ok ? answer.value.kinds.find(({ asked }) => asked) : undefined;
  if (!kind) return null;
  const others = kind.people.count - 1;
  return (
    <p className="mt-2">
      <button
        type="button"
        className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
        onClick={() => setScreen({ kind: 'kinds', person })}
      >
        {others === 0
          ? 'The only one of their kind of visitor'
          : `Of one kind of visitor with ${counted(others, 'other')}`}
      </button>
    </p>
  );
}

function ReachList({
  title,
  list,
  onWhy,
}: {
  readonly title: string;
  readonly list: readonly PersonAtItem[];
  readonly onWhy: (item: PersonAtItem['item']) => void;
}) {
  if (list.length === 0) return null;
  return (
    <section className="mt-5">
      <h3 className="mb-1">{title}</h3>
      <ul>
        {list.map((one) => (
          <li key={one.item} className="border-thin border-b last:border-b-0">
            <button
              type="button"
              onClick={() => onWhy(one.item)}
              title={`${one.sentence}. Why?`}
              className="grid w-full grid-cols-[1.5rem_1fr] gap-x-2 rounded-[3px] px-1 py-1.5 text-left hover:bg-sunk"
            >
              <span className="pt-0.5" title={outcomeName(one.outcome)}>
                <OutcomeMark outcome={one.outcome} size={17} />
              </span>
              <span>
                <span className="font-semibold">{one.title}</span>{' '}
                <span className="text-quiet text-xs">{one.address}</span>
                {one.because && <span className="block text-[0.8125rem] text-quiet">{one.because}.</span>}
                {one.waysIn.length > 0 && (
                  <span className="block text-[0.8125rem]">
                    <span className="text-open">Would open:</span> {capital(one.waysIn.join('; or '))}
                    {one.moreWays && '; and in other ways'}
                  </span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
