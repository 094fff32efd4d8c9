'use client';
/** A made-up visitor: any facts, and the board answers as they are changed. */
import { useState } from 'react';
import {
  byHand,
  DESK_RIGHTS,
  type DeskRight,
  type FieldValue,
  factsOf,
  fieldValueText,
  guest,
  keyOfStandIn,
  member,
  nameOf,
  readFieldValue,
  standInFacts,
  type VisitorFacts,
} from '@/core';
import { Button, Choice, Input, Pick } from '@/ui';
import { followingIn, useDesk } from '../context';
import { Panel } from '../panel';
import { Field, FieldTextInput, PastRecords, ThroughGroups, Toggles } from '../people';

const NO_LEVEL = ' ';
const NO_RIGHT = ' ';

export function StandInPanel({ standIn: key }: { readonly standIn: string }) {
  const { standIns, setStandIns, setBench, walk } = useDesk();
  const standIn = standIns.find((one) => keyOfStandIn(one) === key);
  if (standIn?.kind !== 'made up') return null;
  const { madeUp } = standIn;
  const put = (change: Partial<typeof madeUp>) =>
    setStandIns(
      standIns.map((one) => (one === standIn ? { kind: 'made up', madeUp: { ...madeUp, ...change } } : one)),
    );
  return (
    <Panel
      title={nameOf(standIn)}
      note="Made up for trying; the board answers as you change it. Nobody of the site is changed."
      onClose={() => setBench({ kind: 'gates' })}
      actions={<Button onClick={() => walk(standIn, null)}>Walk as them</Button>}
    >
      <div className="grid gap-4">
        <div className="grid gap-1">
          <span className="text-quiet">Name</span>
          <Input
            label="Name of the stand-in"
            value={madeUp.name}
            maxLength={60}
            onChange={(event) => event.target.value.trim() !== '' && put({ name: event.target.value })}
            className="w-full"
          />
        </div>
        <div>
          <Choice
            label="Signed in or not"
            value={standInFacts(standIn).signedIn ? 'member' : 'guest'}
            options={[
              { value: 'member', label: 'Signed in' },
              { value: 'guest', label: 'Not signed in' },
            ]}
            onChoose={(kind) =>
              put({
                facts:
                  kind === 'guest'
                    ? { ...guest, passphrases: madeUp.facts.passphrases }
                    : member({ passphrases: madeUp.facts.passphrases }),
              })
            }
          />
        </div>
        <FactsForm key={key} facts={madeUp.facts} onChange={(facts) => put({ facts })} />
      </div>
    </Panel>
  );
}

function FactsForm({
  facts,
  onChange,
}: {
  readonly facts: VisitorFacts;
  readonly onChange: (facts: VisitorFacts) => void;
}) {
  const { data } = useDesk();
  const { names } = data;
  // What follows from a group is there with the group, and gone with it.
  const given = { ...facts, enrolments: byHand(facts.enrolments) };
  const set = (change: Partial<VisitorFacts>) =>
    onChange(
      facts.signedIn
        ? factsOf({ ...given, ...change, groupsSince: {} }, followingIn(data))
        : { ...facts, ...change },
    );
  return (
    <>
      {facts.signedIn && (
        <>
          <Field label="Level" problem={undefined}>
            <Pick
              label="Level"
              value={facts.level ?? NO_LEVEL}
              options={[
                { value: NO_LEVEL, label: 'no level' },
                ...names.levels.map((one) => ({ value: one.id as string, label: one.name })),
              ]}
              onPick={(level) => set({ level: level === NO_LEVEL ? null : (level as VisitorFacts['level']) })}
            />
          </Field>
          <Field label="Right at the desk" problem={undefined}>
            <Pick
              label="Right at the desk"
              value={facts.desk ?? NO_RIGHT}
              options={[
                { value: NO_RIGHT, label: 'none' },
                ...DESK_RIGHTS.map((right) => ({ value: right, label: right })),
              ]}
              onPick={(right) => set({ desk: right === NO_RIGHT ? null : (right as DeskRight) })}
            />
          </Field>
          <Field label="Groups" problem={undefined}>
            <Toggles
              label="Groups"
              all={names.groups}
              held={facts.groups ?? []}
              onChange={(groups) => set({ groups })}
            />
          </Field>
          <Field label="Roles" problem={undefined}>
            <Toggles
              label="Roles"
              all={names.roles}
              held={facts.roles ?? []}
              onChange={(roles) => set({ roles })}
            />
          </Field>
          {names.fields.length > 0 && <ProfileForm facts={facts} onChange={set} />}
          <PastRecords held={given} problems={{}} atTill onChange={set} />
          <ThroughGroups groups={facts.groups} since={{}} />
          <div className="flex flex-wrap gap-4">
            <Field label="Joined" problem={undefined}>
              <Input
                label="Joined"
                type="date"
                value={facts.joined ?? ''}
                onChange={(event) => set({ joined: event.target.value || null })}
              />
            </Field>
            <Field label="Mail address" problem={undefined}>
              <Input
                label="Mail address"
                value={facts.email ?? ''}
                maxLength={254}
                onChange={(event) => set({ email: event.target.value.trim().toLowerCase() || null })}
                className="w-56"
              />
            </Field>
          </div>
        </>
      )}
      {names.passphrases.length > 0 && (
        <Field label="Passphrases they have typed" problem={undefined}>
          <Toggles
            label="Passphrases"
            all={names.passphrases}
            held={facts.passphrases}
            onChange={(passphrases) => set({ passphrases })}
          />
        </Field>
      )}
    </>
  );
}

function ProfileForm({
  facts,
  onChange,
}: {
  readonly facts: VisitorFacts;
  readonly onChange: (change: Partial<VisitorFacts>) => void;
}) {
  const { fields } = useDesk().data.names;
  // What can't be read yet stays as it is typed.
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(fields.map((field) => [field.id, fieldValueText(facts.profile?.[field.id])])),
  );
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  return (
    <section>
      <h3 className="mb-2">Profile</h3>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        {fields.map((field) => (
          <Field key={field.id} label={field.name} problem={problems[field.id]}>
            <FieldTextInput
              label={field.name}
              type={field.type}
              choices={field.choices}
              value={texts[field.id] ?? ''}
              onChange={(text) => {
                setTexts((now) => ({ ...now, [field.id]: text }));
                const read = readFieldValue(field, text);
                const { [field.id]: _, ...others } = problems;
                if ('problem' in read) return setProblems({ ...others, [field.id]: read.problem });
                setProblems(others);
                onChange({ profile: withValue(facts.profile ?? {}, field.id, read.value) });
              }}
            />
          </Field>
        ))}
      </div>
    </section>
  );
}

function withValue(
  profile: NonNullable<VisitorFacts['profile']>,
  field: string,
  value: FieldValue | null,
): VisitorFacts['profile'] {
  const { [field]: _, ...others } = profile;
  return value === null ? others : { ...others, [field]: value };
}
