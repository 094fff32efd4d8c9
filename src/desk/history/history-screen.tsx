'use client';
/** Revisions of the gates with their difference and effect, and changes of people; each with the way back. */
import { clsx } from 'clsx';
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import {
  asId,
  capital,
  counted,
  describeForGuests,
  type GuestChange,
  listed,
  type Policy,
  permits,
  same,
} from '@/core';
import type { Revision } from '@/services';
import { Button, Choice } from '@/ui';
import { ChangeList } from '../changes';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';
import { When } from '../when';
import { PastChanges } from './past-changes';

export function HistoryScreen({ revision }: { readonly revision: number | null }) {
  const { draft, setScreen } = useDesk();
  const [list, setList] = useState<readonly Revision[] | null>(null);
  const [ended, setEnded] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [of, setOf] = useState<'gates' | 'people'>('gates');
  const take = useCallback((answer: Answer<readonly Revision[]>, before: readonly Revision[]) => {
    setProblem(answer.ok ? null : answer.title);
    if (!answer.ok) return;
    setList([...before, ...answer.value]);
    setEnded(answer.value.length === 0 || answer.value.at(-1)?.number === 1);
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when something was put live
  useEffect(() => {
    ask<readonly Revision[]>('GET', 'revisions').then((answer) => take(answer, []));
  }, [draft.live.revision, take]);
  const chosen = revision ?? list?.[0]?.number ?? null;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[27rem_minmax(0,1fr)]">
      <section aria-label="Revisions" className="flex min-h-0 flex-col border-iron border-r">
        <div className="border-thin border-b px-5 py-3">
          <Choice
            label="History of"
            value={of}
            options={[
              { value: 'gates', label: 'Gates' },
              { value: 'people', label: 'People and names' },
            ]}
            onChoose={setOf}
          />
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto px-3 py-2">
          {problem && (
            <p role="alert" className="px-2 text-alarm">
              {problem}
            </p>
          )}
          {of === 'people' ? (
            <p className="note px-2 py-2">
              Who changed roles, groups, levels, purchases and fields, with what was otherwise before.
            </p>
          ) : (
            <ol className="grid">
              {list?.map((one) => (
                <li key={one.number}>
                  <button
                    type="button"
                    aria-current={one.number === chosen ? 'true' : undefined}
                    onClick={() => setScreen({ kind: 'history', revision: one.number })}
                    className={clsx(
                      'grid w-full grid-cols-[3rem_1fr] rounded-[3px] px-2 py-2.5 text-left hover:bg-sunk',
                      one.number === chosen && 'bg-wash',
                    )}
                  >
                    <span className="font-head text-lg tabular-nums">{one.number}</span>
                    <span>
                      <span className="block">
                        {one.note || <span className="text-quiet">No note</span>}
                        {one.live && <strong className="ml-2 text-copper text-xs">live</strong>}
                      </span>
                      <span className="note block">
                        {one.author}, <When at={one.at} />
                      </span>
                      <Effect revision={one} />
                    </span>
                  </button>
                </li>
              ))}
            </ol>
          )}
          {of === 'gates' && list && !ended && (
            <Button
              weight="quiet"
              onClick={() =>
                void ask<readonly Revision[]>('GET', `revisions?before=${list.at(-1)?.number}`).then(
                  (answer) => take(answer, list),
                )
              }
            >
              Earlier ones
            </Button>
          )}
        </div>
      </section>
      <section aria-label="What it was" className="min-h-0 overflow-y-auto px-8 py-5">
        {of === 'people' ? (
          <PastChanges person={null} />
        ) : (
          chosen !== null && <RevisionView key={chosen} number={chosen} />
        )}
      </section>
    </main>
  );
}

function Effect({ revision: { gained, lost, effect } }: { readonly revision: Revision }) {
  const { outline } = useDesk();
  const guests = effect && describeForGuests(guestsIn(effect), outline);
  if (gained + lost === 0 && !guests)
    return <span className="note block">Nobody gained or lost anything.</span>;
  return (
    <span className="block text-[0.8125rem]">
      {guests && <span className="block">Guests {guests}</span>}
      {gained > 0 && <span className="text-open">+{counted(gained, 'person', 'people')}</span>}{' '}
      {lost > 0 && <span className="text-alarm">−{counted(lost, 'person', 'people')}</span>}
    </span>
  );
}

/** Where guests noticed; revisions of before this was kept say only that they did. */
const guestsIn = ({ guests }: NonNullable<Revision['effect']>): GuestChange =>
  'gains' in guests ? guests : { gains: [], loses: [], sees: guests };

interface Whole {
  readonly revision: Revision;
  readonly policy: Policy;
  readonly previous: Policy | null;
}

function RevisionView({ number }: { readonly number: number }) {
  const { data, draft, outline, setSide, setBench } = useDesk();
  const [answer, setAnswer] = useState<Answer<Whole> | null>(null);
  useEffect(() => {
    ask<Whole>('GET', `revisions/${number}`).then(setAnswer);
  }, [number]);
  if (!answer) return <p className="note">Looking …</p>;
  if (!answer.ok) return <p role="alert">{answer.title}</p>;
  const { revision, policy, previous } = answer.value;
  const side = (one: Policy) => ({ policy: one, vocabulary: { ...data.names, audiences: one.audiences } });
  const inDraft = same(policy, draft.policy);
  const bringBack = () => {
    draft.edit(policy);
    setSide('difference');
    setBench({ kind: 'put live' });
    toast(`The draft is as revision ${number} was. Nothing is live yet.`, {
      action: { label: 'Undo', onClick: draft.undo },
    });
  };
  const { effect } = revision;
  const guests = effect && describeForGuests(guestsIn(effect), outline);
  const titles = (ids: readonly string[]) =>
    [...new Set(ids.map((id) => outline.items.get(asId(id))?.title ?? 'something that is gone'))].slice(
      0,
      12,
    );
  return (
    <article className="max-w-3xl">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h2 className="text-2xl">Revision {number}</h2>
          <p className="note mt-0.5">
            {revision.author}, <When at={revision.at} />
            {revision.live && '; this is live'}
          </p>
        </div>
        {permits(data.desk, 'gates') && (
          <Button weight={revision.live ? 'plain' : 'main'} disabled={inDraft} onClick={bringBack}>
            {inDraft ? 'The draft is like this' : 'Bring back into the draft'}
          </Button>
        )}
      </div>
      {revision.note && <p className="mt-4 font-head text-lg">“{revision.note}”</p>}
      {effect?.despite && (
        <section aria-label="Live all the same" className="mt-4 border-alarm border-l-3 pl-3">
          <p>It went live although this was broken: “{effect.despite.reason}”</p>
          <ul className="mt-1 list-disc pl-5">
            {effect.despite.broken.map(({ expected, instead }) => (
              <li key={expected}>
                {capital(expected)}. <span className="text-quiet">{instead}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {effect && (
        <section className="mt-5">
          <h3 className="mb-1">Who noticed</h3>
          {effect.items.length === 0 ? (
            <p>Nobody.</p>
          ) : (
            <>
              {guests && <p className="font-semibold">Guests {guests}.</p>}
              <p className="flex flex-wrap gap-x-6">
                <Side sign="+" colour="text-open" people={effect.gains} word="gained" />
                <Side sign="−" colour="text-alarm" people={effect.loses} word="lost" />
              </p>
              <p>
                <span className="text-quiet">At</span> {listed(titles(effect.items))}.
              </p>
            </>
          )}
        </section>
      )}
      <h3 className="mt-6 mb-2">{previous ? `Against revision ${number - 1}` : 'The first one'}</h3>
      {previous ? (
        same(previous, policy) ? (
          <p>The gates are the same.</p>
        ) : (
          <ChangeList before={side(previous)} after={side(policy)} />
        )
      ) : (
        <p>The site began with {counted(policy.gates.length, 'gate')}.</p>
      )}
      {!inDraft && (
        <details className="mt-6">
          <summary className="cursor-pointer font-head">Against the draft as it is now</summary>
          <div className="mt-2">
            <ChangeList before={side(draft.policy)} after={side(policy)} />
          </div>
        </details>
      )}
    </article>
  );
}

function Side({
  sign,
  colour,
  people,
  word,
}: {
  readonly sign: string;
  readonly colour: string;
  readonly people: { readonly count: number; readonly names: readonly string[] };
  readonly word: string;
}) {
  if (people.count === 0) return null;
  const more = people.count - people.names.length;
  return (
    <span>
      <strong className={colour}>
        {sign}
        {people.count}
      </strong>{' '}
      {word}: {people.names.join(', ')}
      {more > 0 && ` and ${more} more`}
    </span>
  );
}
