'use client';
/** What will change by itself: subscriptions and enrolments that end, days that come, what opens after so long. */
import { useEffect, useState } from 'react';
import { asId, counted, type Day, dayInWords, type ItemId, nameInContext } from '@/core';
import type { ChangeAhead, SiteAhead } from '@/services';
import { Button, Choice } from '@/ui';
import { useDesk } from '../context';
import { MemberInput } from '../member-input';
import { startOf } from '../screens';
import { type Answer, ask } from '../service';
import { AheadChart } from './ahead-chart';
import { CertainHead } from './certain-head';

const SPANS = ['30', '60', '180'] as const;
const ORDERS = ['by day', 'by item', 'by person'] as const;

export function AheadScreen({ person }: { readonly person: string | null }) {
  const { data, setScreen } = useDesk();
  const [span, setSpan] = useState<(typeof SPANS)[number]>('60');
  const [order, setOrder] = useState<(typeof ORDERS)[number]>('by day');
  const [day, setDay] = useState<Day | null>(null);
  const [answer, setAnswer] = useState<Answer<SiteAhead> | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again when anybody was changed
  useEffect(() => {
    const calledOff = new AbortController();
    const query = new URLSearchParams({ days: span, ...(person && { person }) });
    ask<SiteAhead>('GET', `ahead?${query}`, undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, [span, person, data]);
  const ahead = answer?.ok ? answer.value : null;
  const name = person && ahead?.changes.find((one) => one.person)?.person?.name;
  const shown = ahead?.changes.filter(({ on }) => day === null || on === day) ?? [];
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-6 py-5">
      <CertainHead
        note={
          <>
            What opens and closes by itself on the live site, if nobody does anything
            {person ? `, for ${name ?? 'one person'}` : ', for members and guests'}. Days of the week, which
            come back, are left out.
          </>
        }
      >
        <Choice
          label="How far ahead"
          value={span}
          options={SPANS.map((value) => ({ value, label: `${value} days` }))}
          onChoose={(next) => {
            setSpan(next);
            setDay(null);
          }}
        />
        {person ? (
          <Button onClick={() => setScreen(startOf('ahead'))}>Everybody</Button>
        ) : (
          <MemberInput
            trigger="One person …"
            onChoose={({ id }) => setScreen({ kind: 'ahead', person: id })}
          />
        )}
      </CertainHead>
      {answer && !answer.ok && (
        <p role="alert" className="mt-3 text-alarm">
          {answer.title}
        </p>
      )}
      {answer === null && <p className="note mt-4">Looking ahead …</p>}
      {ahead && ahead.days.length === 0 && (
        <p className="mt-6">Nothing changes by itself until {dayInWords(ahead.until)}.</p>
      )}
      {ahead && ahead.days.length > 0 && (
        <>
          <div className="mt-5">
            <AheadChart ahead={ahead} chosen={day} onChoose={setDay} />
          </div>
          <div className="mt-4 flex items-center gap-3">
            <Choice
              label="Order"
              value={order}
              options={ORDERS.map((value) => ({ value, label: value }))}
              onChoose={setOrder}
            />
            {day !== null && (
              <Button weight="quiet" onClick={() => setDay(null)}>
                Only {dayInWords(day)} · show all days
              </Button>
            )}
            {ahead.cut && <span className="note">The first 2,000 changes are listed.</span>}
          </div>
          <Changes changes={shown} order={order} />
        </>
      )}
    </main>
  );
}

interface ChangesProps {
  readonly changes: readonly ChangeAhead[];
  readonly order: (typeof ORDERS)[number];
}

function Changes({ changes, order }: ChangesProps) {
  const { outline } = useDesk();
  const title = (id: ItemId) => {
    const item = outline.items.get(id);
    return item ? nameInContext(item, outline) : 'something that is gone';
  };
  const groups = new Map<string, ChangeAhead[]>();
  const put = (key: string, one: ChangeAhead) => groups.set(key, [...(groups.get(key) ?? []), one]);
  for (const one of changes) {
    if (order === 'by day') put(one.on, one);
    else if (order === 'by person') put(one.person?.id ?? '', one);
    else for (const id of new Set([...one.opens, ...one.closes])) put(id, narrowed(one, id));
  }
  const heads = [...groups].map(([key, list]) => ({
    key,
    list,
    head:
      order === 'by day'
        ? dayInWords(key)
        : order === 'by person'
          ? (list[0]?.person?.name ?? 'Guests')
          : title(asId<ItemId>(key)),
  }));
  const sorted = order === 'by day' ? heads : heads.toSorted((a, b) => b.list.length - a.list.length);
  return (
    <ul className="mt-3 grid max-w-5xl gap-4">
      {sorted.map(({ key, head, list }) => (
        <li key={key}>
          <h3 className="mb-1">
            {head} <span className="font-text text-quiet text-xs">{counted(list.length, 'change')}</span>
          </h3>
          <ul className="grid gap-1">
            {list.map((one) => (
              <ChangeLine key={`${one.on} ${one.person?.id}`} change={one} order={order} title={title} />
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}

const narrowed = (one: ChangeAhead, id: ItemId): ChangeAhead => ({
  ...one,
  opens: one.opens.filter((each) => each === id),
  closes: one.closes.filter((each) => each === id),
});

interface LineProps {
  readonly change: ChangeAhead;
  readonly order: ChangesProps['order'];
  readonly title: (id: ItemId) => string;
}

function ChangeLine({ change: { on, person, opens, closes }, order, title }: LineProps) {
  const { setScreen } = useDesk();
  return (
    <li className="grid grid-cols-[11rem_minmax(0,1fr)] gap-3 border-thin border-l-3 pl-3">
      {order === 'by person' ? (
        <span className="text-quiet">{dayInWords(on)}</span>
      ) : person ? (
        <button
          type="button"
          className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
          onClick={() => setScreen({ kind: 'person', person: person.id })}
        >
          {person.name}
        </button>
      ) : (
        <span>Guests</span>
      )}
      <span>
        {order === 'by item' ? (
          <>
            <span className={opens.length > 0 ? 'text-open' : 'text-alarm'}>
              {opens.length > 0 ? 'opens' : 'closes'}
            </span>{' '}
            on {dayInWords(on)}
          </>
        ) : (
          <>
            {closes.length > 0 && (
              <span className="block">
                <span className="text-alarm">Loses</span> {closes.map(title).join(', ')}
              </span>
            )}
            {opens.length > 0 && (
              <span className="block">
                <span className="text-open">Gains</span> {opens.map(title).join(', ')}
              </span>
            )}
          </>
        )}
      </span>
    </li>
  );
}
