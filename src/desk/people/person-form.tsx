'use client';
/** Everything known of one person, as a form. Mistakes stand next to where they are, and nothing typed is lost. */
import { type FormEvent, useEffect, useState } from 'react';
import {
  type DeskGrant,
  type DeskRight,
  type Field as FieldOfSite,
  type FieldValue,
  fieldValueText,
  type ItemId,
  nothingHeld,
  permits,
  readFieldValue,
  same,
} from '@/core';
import type { FormProblems, PersonReport } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { startOf } from '../screens';
import { FieldTextInput } from './bulk-panel';
import { PastRecords } from './past-records';
import { Field, Toggles } from './person-parts';
import { ThroughGroups } from './through-groups';
import { useChange } from './use-change';

type Known = PersonReport['person'];

const textsOf = (person: Known, fields: readonly FieldOfSite[]): Readonly<Record<string, string>> =>
  Object.fromEntries(fields.map((field) => [field.id, fieldValueText(person.profile[field.id])]));

const withoutProfile = ({ profile: _, ...rest }: Known) => rest;

export const emptyPerson: Known = {
  id: '' as Known['id'],
  email: '',
  name: '',
  desk: null,
  ...nothingHeld,
  groupsSince: {},
};

/** Since when somebody is in their groups: since today in those that were just given to them. */
const sinceIn = ({ groups, groupsSince }: Known, before: Known, today: string) => ({
  ...Object.fromEntries(
    groups.filter((group) => !before.groups.includes(group)).map((group) => [group, today]),
  ),
  ...groupsSince,
});

const NO_LEVEL = ' ';

export function PersonForm({ id, person }: { readonly id: string | null; readonly person: Known }) {
  const { data, setScreen } = useDesk();
  const { names } = data;
  const change = useChange();
  // What the form began with; what is typed is measured against it.
  const [base, setBase] = useState(person);
  const [form, setForm] = useState(person);
  // Fields as they are typed; what can't be read yet is kept as it is.
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => textsOf(person, names.fields));
  const [problems, setProblems] = useState<FormProblems>({});
  const [going, setGoing] = useState(false);
  const [why, setWhy] = useState('');
  const set = (over: Partial<Known>) => setForm((now) => ({ ...now, ...over }));
  const changed =
    !same(withoutProfile(form), withoutProfile(base)) || !same(texts, textsOf(base, names.fields));
  /** Goes on from what is kept; what was typed since this was drawn stays. */
  const begin = (known: Known) => {
    setBase(known);
    setForm((now) => (now === form ? known : now));
    setTexts((now) => (now === texts ? textsOf(known, names.fields) : now));
  };
  // Changed from elsewhere, or saved: taken over unless something is typed that would be lost.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the person's change that matters
  useEffect(() => {
    const saved =
      same(withoutProfile(form), withoutProfile(person)) && same(texts, textsOf(person, names.fields));
    if (!changed || saved) begin(person);
  }, [person]);
  const theirs = changed && !same(base, person);

  useEffect(() => {
    if (!changed) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [changed]);

  const save = async (event: FormEvent) => {
    event.preventDefault();
    const wrong: Record<string, string> = {};
    const profile: Record<string, FieldValue> = {};
    for (const field of names.fields) {
      const read = readFieldValue(field, texts[field.id] ?? '');
      if ('problem' in read) wrong[`profile.${field.id}`] = read.problem;
      else if (read.value !== null) profile[field.id] = read.value;
    }
    setProblems(wrong);
    if (Object.keys(wrong).length > 0) return;
    setGoing(true);
    const { id: _, ...rest } = form;
    const answer = await change<{ person: string; change: string; known: Known }>(
      'PUT',
      `people/${encodeURIComponent(id ?? '+')}`,
      { based: id === null ? null : base, person: { ...rest, profile }, why },
      () => (id === null ? `${form.name} is added` : `${form.name} is saved`),
    );
    setGoing(false);
    if (!answer.ok) {
      const told = answer.body.problems as FormProblems | undefined;
      setProblems(told ?? { form: answer.title });
    } else if (id !== null) {
      setWhy('');
      begin(answer.value.known);
    } else setScreen({ kind: 'person', person: answer.value.person });
  };

  const remove = async () => {
    const answer = await change('POST', 'people/change', { who: { ids: [id] }, edit: { kind: 'remove' } });
    if (answer.ok) setScreen(startOf('people'));
    else setProblems({ form: answer.title });
  };

  return (
    <form onSubmit={(event) => void save(event)} className="mt-4 grid max-w-3xl gap-5">
      <div className="grid grid-cols-2 gap-x-6 gap-y-3">
        <Field label="Name" problem={problems.name}>
          <Input
            label="Name"
            value={form.name}
            maxLength={200}
            aria-invalid={problems.name ? true : undefined}
            onChange={(event) => set({ name: event.target.value })}
            className="w-full"
          />
        </Field>
        <Field label="Mail address" problem={problems.email}>
          <Input
            label="Mail address"
            value={form.email}
            maxLength={254}
            aria-invalid={problems.email ? true : undefined}
            onChange={(event) => set({ email: event.target.value })}
            className="w-full"
          />
        </Field>
        <Field label="Level" problem={problems.level}>
          <Pick
            label="Level"
            value={form.level ?? NO_LEVEL}
            options={[
              { value: NO_LEVEL, label: 'no level' },
              ...names.levels.map((one) => ({ value: one.id as string, label: one.name })),
            ]}
            onPick={(level) => set({ level: level === NO_LEVEL ? null : (level as Known['level']) })}
          />
        </Field>
        <Field label="Joined" problem={problems.joined}>
          <Input
            label="Joined"
            type="date"
            value={form.joined ?? ''}
            onChange={(event) => set({ joined: event.target.value || null })}
          />
        </Field>
      </div>
      <Field label="Groups" problem={problems.groups}>
        <Toggles
          label="Groups"
          all={names.groups}
          held={form.groups}
          onChange={(groups) => set({ groups })}
        />
      </Field>
      <Field label="Roles" problem={problems.roles}>
        <Toggles label="Roles" all={names.roles} held={form.roles} onChange={(roles) => set({ roles })} />
      </Field>
      {names.fields.length > 0 && (
        <section>
          <h3 className="mb-2">Profile</h3>
          <div className="grid grid-cols-2 gap-x-6 gap-y-3">
            {names.fields.map((field) => (
              <Field
                key={field.id}
                label={field.name}
                note={[field.private && 'private', field.editable && 'members fill it in']
                  .filter(Boolean)
                  .join(', ')}
                problem={problems[`profile.${field.id}`]}
              >
                <FieldTextInput
                  label={field.name}
                  type={field.type}
                  choices={field.choices}
                  value={texts[field.id] ?? ''}
                  onChange={(value) => setTexts((now) => ({ ...now, [field.id]: value }))}
                />
              </Field>
            ))}
          </div>
        </section>
      )}
      <PastRecords held={form} problems={problems} onChange={(change) => set(change as Partial<Known>)} />
      <ThroughGroups groups={form.groups} since={sinceIn(form, base, data.request.today)} />
      <Field label="The desk" problem={problems.desk}>
        <DeskField desk={form.desk} onChange={(desk) => set({ desk })} />
      </Field>
      {theirs && (
        <p role="alert" className="flex items-center gap-3 rounded-[3px] bg-wash px-3 py-2">
          {person.name} was changed meanwhile. What you typed is kept here.
          <Button onClick={() => begin(person)}>Take theirs</Button>
        </p>
      )}
      {problems.form && (
        <p role="alert" className="text-alarm">
          {problems.form}
        </p>
      )}
      <div className="sticky -bottom-5 flex gap-2 border-thin border-t bg-paper py-3">
        <Button weight="main" type="submit" disabled={going || !changed}>
          {id === null ? 'Add this person' : 'Save'}
        </Button>
        <Input
          label="Why, for the record"
          placeholder="Why, for the record"
          value={why}
          maxLength={500}
          onChange={(event) => setWhy(event.target.value)}
          className="w-64"
        />
        {id !== null && (
          <Button weight="quiet" onClick={() => void remove()} className="ml-auto">
            Take away
          </Button>
        )}
      </div>
    </form>
  );
}

const RIGHTS: readonly { readonly value: DeskRight | 'none'; readonly label: string }[] = [
  { value: 'none', label: 'may not use it' },
  { value: 'reader', label: 'reader: looks at everything, changes nothing' },
  { value: 'writer', label: 'writer: pages, posts, menus, files' },
  { value: 'gatekeeper', label: 'gatekeeper: gates and people' },
  { value: 'owner', label: 'owner: everything' },
];

/** What a person may do at the desk, and where. Owners alone may say. */
function DeskField({
  desk,
  onChange,
}: {
  readonly desk: DeskGrant | null;
  readonly onChange: (desk: DeskGrant | null) => void;
}) {
  const { data } = useDesk();
  const owner = permits(data.desk, 'everything');
  if (!owner) return <p>{RIGHTS.find(({ value }) => value === (desk?.right ?? 'none'))?.label}</p>;
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Pick
        label="Right at the desk"
        value={desk?.right ?? 'none'}
        options={RIGHTS}
        onPick={(right) =>
          onChange(
            right === 'none' ? null : { right, branch: right === 'owner' ? null : (desk?.branch ?? null) },
          )
        }
      />
      {(desk?.right === 'gatekeeper' || desk?.right === 'writer') && (
        <>
          <span className="text-quiet">for</span>
          <BranchPick branch={desk.branch} onPick={(branch) => onChange({ ...desk, branch })} />
        </>
      )}
    </span>
  );
}

function BranchPick({
  branch,
  onPick,
}: {
  readonly branch: DeskGrant['branch'];
  readonly onPick: (branch: DeskGrant['branch']) => void;
}) {
  const { outline } = useDesk();
  const pages = [...outline.items.values()].filter((item) => item.kind === 'page');
  return (
    <Pick
      label="Limited to"
      value={branch ?? ''}
      options={[
        { value: '', label: 'the whole site' },
        ...pages.map((page) => ({ value: page.id as string, label: `${page.title} and beneath` })),
      ]}
      onPick={(id) => onPick(id === '' ? null : (id as ItemId))}
    />
  );
}
