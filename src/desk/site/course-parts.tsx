'use client';
/** What a course is made of: its units and their activities, to be made, moved, opened and gated where they stand. */
import { clsx } from 'clsx';
import { useState } from 'react';
import {
  ACTIVITIES,
  ACTIVITY_TYPES,
  type Activity,
  type ActivityType,
  activitiesOf,
  counted,
  type GateId,
  gateAfterWeeks,
  gateInOrder,
  type ItemId,
  inOrderAmong,
  permits,
  type Unit,
  unitsOf,
  weeklyAmong,
} from '@/core';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { GateMark, KindMark } from '../marks';
import { type ChangeItem, useChangeItem } from '../use-change-item';
import { Gap, Moving, useMovable } from './moving';
import { TakeAway } from './take-away';

const newId = () => crypto.randomUUID() as GateId;

export function CourseParts({ course }: { readonly course: ItemId }) {
  const { data, draft, outline } = useDesk();
  const { change } = useChangeItem();
  const units = unitsOf(outline, course);
  const canGate = permits(data.desk, 'gates');
  const weekly = weeklyAmong(draft.policy.gates, course, units);
  /** Ordinary gates of the draft: what is made here can be changed there, and goes live with it. */
  const isWeekly = weekly.every(({ gate }) => gate !== null);
  const setWeekly = () => {
    const { gates } = draft.policy;
    const made = weekly.flatMap(({ unit, weeks, gate }) =>
      gate ? [] : [gateAfterWeeks(newId(), unit, course, weeks)],
    );
    const kept = isWeekly ? gates.filter((one) => !weekly.some(({ gate }) => gate === one)) : gates;
    draft.edit({ ...draft.policy, gates: [...kept, ...made] });
  };
  return (
    <section aria-label="Units and activities" className="mt-8 max-w-3xl">
      <h3 className="text-lg">Units and activities</h3>
      <p className="note mb-3">
        Drag them to move them. Whoever is turned away from the course is turned away from all that is in it,
        and from what is in a unit with the unit.
      </p>
      {canGate && units.length > 1 && (
        <label className="mb-3 flex items-center gap-2">
          <input type="checkbox" checked={isWeekly} onChange={setWeekly} />
          One unit a week after enrolling: a gate over each but the first, in the draft
        </label>
      )}
      <Moving change={change}>
        <ul>
          {units.map((unit) => (
            <li key={unit.id}>
              <Gap parent={course} before={unit.id} />
              <UnitPart unit={unit} change={change} />
            </li>
          ))}
          {units.length > 0 && (
            <li>
              <Gap parent={course} before={null} />
            </li>
          )}
        </ul>
      </Moving>
      <NewPart
        label="Title of the new unit"
        offer="New unit"
        onMake={(title) => change({ kind: 'new unit', parent: course, title })}
      />
    </section>
  );
}

/** A unit on its own: what it is called, whether it is there, and its activities. */
export function UnitEditor({ unit }: { readonly unit: Unit }) {
  const { outline, setScreen } = useDesk();
  const { change } = useChangeItem();
  const course = unit.within && outline.items.get(unit.within.course);
  return (
    <section aria-label={unit.title} className="min-h-0 overflow-y-auto px-8 py-6">
      <header className="max-w-3xl">
        {course && (
          <Button weight="quiet" size="small" onClick={() => setScreen({ kind: 'site', item: course.id })}>
            {course.title}
          </Button>
        )}
        <h2 className="text-xl">{unit.title}</h2>
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <Input
            label="Title of the unit"
            defaultValue={unit.title}
            maxLength={200}
            onBlur={(event) => {
              const title = event.target.value.trim();
              if (title !== '' && title !== unit.title) void change({ kind: 'rename', item: unit.id, title });
            }}
          />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={unit.published}
              onChange={(event) =>
                void change({ kind: 'publish', items: [unit.id], published: event.target.checked })
              }
            />
            Published: without this it is missing for everyone, with all that is in it
          </label>
        </div>
      </header>
      <Moving change={change}>
        <div className="mt-6 max-w-3xl">
          <UnitPart unit={unit} change={change} />
        </div>
      </Moving>
      <footer className="mt-8 max-w-3xl border-thin border-t pt-4">
        <TakeAway item={unit.id} />
      </footer>
    </section>
  );
}

interface UnitProps {
  readonly unit: Unit;
  readonly change: ChangeItem;
}

function UnitPart({ unit, change }: UnitProps) {
  const { data, draft, outline, setScreen } = useDesk();
  const inOrder = inOrderAmong(draft.policy.gates, unit.id);
  const setInOrder = () => {
    const kept = draft.policy.gates.filter((gate) => gate !== inOrder);
    draft.edit({ ...draft.policy, gates: inOrder ? kept : [...kept, gateInOrder(newId(), unit.id)] });
  };
  const { rowRef, handle, isOver, isDragging } = useMovable(unit);
  const [type, setType] = useState<ActivityType>('reading');
  const activities = activitiesOf(outline, unit.id);
  return (
    <div className={clsx('mb-4 border border-thin bg-raised px-3 py-2', isDragging && 'opacity-50')}>
      <div ref={rowRef} className={clsx('flex items-center gap-2', isOver && 'outline outline-copper')}>
        {handle()}
        <KindMark kind="unit" />
        <button
          type="button"
          className="min-w-0 flex-1 truncate text-left font-semibold hover:text-copper"
          onClick={() => setScreen({ kind: 'site', item: unit.id })}
        >
          {unit.title}
        </button>
        {!unit.published && <span className="note italic">unpublished</span>}
        {permits(data.desk, 'gates') && activities.length > 1 && (
          <label className="flex items-center gap-1.5 text-sm" title="A gate over the unit, in the draft">
            <input
              type="checkbox"
              aria-label={`${unit.title}: one after the other`}
              checked={inOrder !== null}
              onChange={setInOrder}
            />
            one after the other
          </label>
        )}
        <Gates item={unit} />
      </div>
      <ul className="mt-1 ml-6">
        {activities.map((activity) => (
          <li key={activity.id}>
            <Gap parent={unit.id} before={activity.id} />
            <ActivityRow activity={activity} />
          </li>
        ))}
        <li>
          <Gap parent={unit.id} before={null} />
        </li>
      </ul>
      <NewPart
        label={`Title of the new activity in ${unit.title}`}
        offer="New activity"
        onMake={(title) => change({ kind: 'new activity', parent: unit.id, title, activity: type })}
      >
        <Pick
          label="Type of the new activity"
          value={type}
          options={ACTIVITY_TYPES.map((one) => ({ value: one, label: ACTIVITIES[one].one }))}
          onPick={setType}
        />
      </NewPart>
    </div>
  );
}

function ActivityRow({ activity }: { readonly activity: Activity }) {
  const { setScreen } = useDesk();
  const { rowRef, handle, isOver, isDragging } = useMovable(activity);
  return (
    <div
      ref={rowRef}
      className={clsx(
        'flex items-center gap-2 py-1',
        isOver && 'outline outline-copper',
        isDragging && 'opacity-50',
      )}
    >
      {handle()}
      <button
        type="button"
        className="min-w-0 flex-1 truncate text-left hover:text-copper"
        onClick={() => setScreen({ kind: 'site', item: activity.id })}
      >
        {activity.title} <span className="note">{activity.activity}</span>
      </button>
      {!activity.published && <span className="note italic">unpublished</span>}
      <Gates item={activity} />
    </div>
  );
}

/** The gates over a unit or an activity: its own and those from above; one more click puts one on. */
function Gates({ item }: { readonly item: Unit | Activity }) {
  const { compiled, setScreen, setBench, addGate } = useDesk();
  const own = (compiled.draft.covering.get(item.id) ?? []).filter(({ setAside }) => !setAside);
  const all = (compiled.draft.hurdles(item.id) ?? []).filter(({ gate }) => gate !== null);
  const above = all.length - own.length;
  const [first] = own;
  return (
    <>
      {above > 0 && (
        <span className="flex items-center gap-1 text-faint" title={`${counted(above, 'gate')} from above`}>
          <GateMark standing="inherited" /> <span className="text-xs">{above}</span>
        </span>
      )}
      <Button
        weight="quiet"
        size="small"
        aria-label={first ? `The gate over ${item.title}` : `Put a gate on ${item.title}`}
        onClick={() => {
          setScreen({ kind: 'board' });
          if (first) setBench({ kind: 'gate', gate: first.gate.id });
          else addGate(item);
        }}
      >
        {first ? <GateMark standing="own" /> : '+ gate'}
      </Button>
    </>
  );
}

interface NewPartProps {
  readonly label: string;
  readonly offer: string;
  readonly children?: React.ReactNode;
  readonly onMake: (title: string) => Promise<ItemId | null>;
}

/** What is made by its title, and another one after it: a course is written from its parts down. */
function NewPart({ label, offer, children, onMake }: NewPartProps) {
  const [title, setTitle] = useState('');
  return (
    <form
      className="mt-2 flex flex-wrap items-center gap-2"
      onSubmit={async (event) => {
        event.preventDefault();
        if (title.trim() !== '' && (await onMake(title.trim())) !== null) setTitle('');
      }}
    >
      <Input
        label={label}
        placeholder="Title"
        value={title}
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      {children}
      <Button type="submit">{offer}</Button>
    </form>
  );
}
