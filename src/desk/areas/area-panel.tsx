'use client';
/** One area: what it is called, who has it, what is wrong, and the way to its pages, its board and its gate. */
import { useState } from 'react';
import { areasIn, counted, type ExpectationId, type GateId, type ItemId, onlyTheirs, permits } from '@/core';
import type { AreaInList } from '@/services';
import { Button, Input } from '@/ui';
import { everyRow } from '../board-filter';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { Field } from '../people';
import { useAnswer } from '../use-answer';
import { TakeAway } from './chosen-areas';
import { PeopleInput } from './people-input';
import { useStep } from './use-areas';

interface AreaProps {
  readonly area: AreaInList;
  readonly onClose: () => void;
}

export function AreaPanel({ area, onClose }: AreaProps) {
  const { data, setScreen, setFilter, setBench } = useDesk();
  const may = permits(data.desk, 'everything');
  return (
    <Panel title={area.name} note={area.address} onClose={onClose} closes="Back to the areas">
      <p className="flex flex-wrap gap-2">
        <Button onClick={() => setScreen({ kind: 'site', item: area.page as ItemId })}>Its pages</Button>
        <Button
          onClick={() => {
            setScreen({ kind: 'board' });
            setFilter({ ...everyRow, gate: area.gate });
          }}
        >
          On the board
        </Button>
        <Button onClick={() => setBench({ kind: 'gate', gate: area.gate as GateId })}>Its gate</Button>
        <Button
          onClick={() =>
            setScreen({
              kind: 'people',
              text: '',
              condition: `in group "${area.group.replace(/[\\"]/g, '\\$&')}"`,
            })
          }
        >
          {counted(area.people, 'person', 'people')}
        </Button>
      </p>
      {area.wrong.length > 0 && (
        <ul aria-label="What is wrong" className="mt-4 grid gap-1 border-teaser border-l-3 pl-3">
          {area.wrong.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      {!area.expected && may && <Expect area={area} />}
      {may && (
        <>
          <Rename area={area} />
          {area.list === null ? (
            <p className="note mt-5">More people have it than can be typed here. Change them under People.</p>
          ) : (
            <HandOver key={area.list} page={area.page} list={area.list} />
          )}
          <TakeAway areas={[area]} onGone={onClose} />
        </>
      )}
    </Panel>
  );
}

/** Has the draft expect that nobody else ever opens it; whether that holds is proved at once, and again whenever something goes live. */
function Expect({ area }: { readonly area: AreaInList }) {
  const { draft } = useDesk();
  const { policy, edit } = draft;
  const there = areasIn(policy).find(({ page }) => page === area.page);
  if (!there) return null;
  if (there.expectation)
    return (
      <p className="mt-3">The draft expects that nobody else ever opens it. Put it live, and it is so.</p>
    );
  return (
    <p className="mt-3">
      <Button
        onClick={() => {
          const id = crypto.randomUUID() as ExpectationId;
          edit({
            ...policy,
            expectations: [...policy.expectations, onlyTheirs(there.gate, there.page, id)],
          });
        }}
      >
        Expect that nobody else ever opens it
      </Button>
    </p>
  );
}

function Rename({ area }: { readonly area: AreaInList }) {
  const [name, setName] = useState(area.name);
  const [problem, setProblem] = useState<string>();
  const step = useStep();
  const save = async () => {
    const answer = await step('areas/name', { page: area.page, name });
    setProblem(answer.ok ? undefined : answer.title);
  };
  return (
    <form
      className="mt-5"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Field label="Called" note="its page, its group and its menu link; the address stays" problem={problem}>
        <span className="flex w-full gap-2">
          <Input
            label="Called"
            className="flex-1"
            maxLength={100}
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
          <Button type="submit" disabled={name.trim() === '' || name.trim() === area.name}>
            Rename
          </Button>
        </span>
      </Field>
    </form>
  );
}

function HandOver({ page, list }: { readonly page: string; readonly list: string }) {
  const { data } = useDesk();
  const [people, setPeople] = useState(list);
  const [invite, setInvite] = useState(true);
  const step = useStep();
  const asked = { page, people, invite };
  const looked = useAnswer<{ readonly told: string }>('areas/people', { ...asked, look: true }, data);
  const changed = people.trim() !== list.trim();
  const problem =
    changed && looked && !looked.ok
      ? `${typeof looked.body.line === 'number' ? `Line ${looked.body.line}: ` : ''}${looked.title}`
      : undefined;
  return (
    <div className="mt-5 grid gap-2">
      <PeopleInput
        label="Who has it"
        value={people}
        rows={Math.min(12, Math.max(3, people.split('\n').length + 1))}
        problem={problem}
        onChange={setPeople}
      />
      {changed && looked?.ok && <p data-testid="comes-and-goes">{looked.value.told}</p>}
      {changed && (
        <>
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={invite} onChange={({ target }) => setInvite(target.checked)} />
            Invite those by mail who can’t sign in yet
          </label>
          <p className="flex gap-2">
            <Button
              weight="main"
              disabled={!looked?.ok}
              onClick={() => void step('areas/people', { ...asked, look: false })}
            >
              Hand it over
            </Button>
            <Button onClick={() => setPeople(list)}>Leave it</Button>
          </p>
        </>
      )}
    </div>
  );
}
