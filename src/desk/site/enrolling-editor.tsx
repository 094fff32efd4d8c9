'use client';
/** How one comes into a course: by oneself, by hand, through a group; and for how long. */
import { permits } from '@/core';
import type { Document } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { NumberInput } from '../number-input';

type Enrolling = NonNullable<Document['enrolling']>;

interface EnrollingProps {
  readonly enrolling: Enrolling;
  readonly problem: string | undefined;
  readonly onChange: (enrolling: Enrolling) => void;
}

export function EnrollingEditor({ enrolling, problem, onChange }: EnrollingProps) {
  const { data } = useDesk();
  const { groups } = data.names;
  // A draft of before there was more than open courses lacks the rest.
  const { open, days = null, groups: enrolled = [] } = enrolling;
  const put = (over: Partial<Enrolling>) => onChange({ open, days, groups: enrolled, ...over });
  const others = groups.filter(({ id }) => !enrolled.some(({ group }) => group === id));
  const set = (at: number, over: Partial<Enrolling['groups'][number]>) =>
    put({ groups: enrolled.map((one, place) => (place === at ? { ...one, ...over } : one)) });
  return (
    <fieldset className="grid justify-items-start gap-2" disabled={!permits(data.desk, 'people')}>
      <legend className="mb-1 text-quiet">Who comes into it</legend>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={open} onChange={(event) => put({ open: event.target.checked })} />
        Open course: members who may open its page enrol with one click
      </label>
      <ul className="grid gap-1.5">
        {enrolled.map(({ group, since }, at) => {
          const name = groups.find(({ id }) => id === group)?.name ?? 'a group that is gone';
          return (
            <li key={group} className="flex flex-wrap items-center gap-2">
              Everybody in {name}, for as long as they are in it, from
              <Input
                label={`From when ${name} is enrolled`}
                type="date"
                value={since}
                onChange={(event) => set(at, { since: event.target.value })}
              />
              <Button
                weight="quiet"
                size="small"
                aria-label={`No longer through ${name}`}
                onClick={() => put({ groups: enrolled.filter((_, place) => place !== at) })}
              >
                Take off
              </Button>
            </li>
          );
        })}
      </ul>
      {others.length > 0 && (
        <Pick
          label="Enrol a group"
          value=""
          options={[
            { value: '', label: 'Enrol everybody in …' },
            ...others.map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          onPick={(group) =>
            group !== '' && put({ groups: [...enrolled, { group, since: data.request.today }] })
          }
        />
      )}
      <span className="flex flex-wrap items-center gap-2">
        An enrolment lasts
        <NumberInput
          label="For how many days an enrolment lasts"
          value={days}
          placeholder="–"
          onChange={(next) => put({ days: next })}
        />
        {days === 1 ? 'day' : 'days'}
        <span className="text-quiet">
          {days === null ? 'Left empty, it does not end by itself.' : 'where no other end is set'}
        </span>
      </span>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
    </fieldset>
  );
}
