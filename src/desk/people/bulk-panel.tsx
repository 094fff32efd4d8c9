'use client';
/** Something done to many people: chosen, shown before it is done, done, and taken back if need be. */
import { useState } from 'react';
import { choicesFor, counted, type SiteNames } from '@/core';
import type { PeopleEdit, PeoplePreview } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { Panel } from '../panel';
import { useAnswer } from '../use-answer';
import { InviteChosen } from './invite';
import { useChange } from './use-change';

interface BulkProps {
  readonly who: { readonly ids: readonly string[] } | { readonly text: string; readonly condition: string };
  readonly count: number;
  readonly onClose: () => void;
}

type Kind = PeopleEdit['kind'];

export function BulkPanel({ who, count, onClose }: BulkProps) {
  const { data } = useDesk();
  const { names } = data;
  const [edit, setEdit] = useState<PeopleEdit>(() =>
    firstEdit(names.groups.length > 0 ? 'join' : 'level', names),
  );
  const [problem, setProblem] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const [why, setWhy] = useState('');
  const change = useChange();
  const answer = useAnswer<PeoplePreview>('people/change?preview', { who, edit }, data);
  const preview = answer?.ok ? answer.value : null;
  const kinds: readonly { readonly value: Kind; readonly label: string }[] = [
    ...(names.groups.length > 0
      ? ([
          { value: 'join', label: 'Put into a group' },
          { value: 'leave', label: 'Take out of a group' },
        ] as const)
      : []),
    { value: 'level', label: 'Set the level' },
    ...(names.roles.length > 0
      ? ([
          { value: 'give', label: 'Give a role' },
          { value: 'take', label: 'Take a role away' },
        ] as const)
      : []),
    ...(names.fields.length > 0 ? ([{ value: 'field', label: 'Fill in a field' }] as const) : []),
    ...(names.courses.length > 0
      ? ([
          { value: 'enrol', label: 'Enrol in a course' },
          { value: 'end enrolment', label: 'End an enrolment' },
        ] as const)
      : []),
    { value: 'remove', label: 'Take these people away' },
  ];
  const go = async () => {
    setGoing(true);
    const done = await change('POST', 'people/change', { who, edit, why });
    setGoing(false);
    setProblem(done.ok ? null : done.title);
    if (done.ok) onClose();
  };
  return (
    <Panel
      title={counted(count, 'person chosen', 'people chosen')}
      note="What is done here is shown first, and can be taken back."
      onClose={onClose}
      closes="Choose nobody"
    >
      <div className="grid gap-4">
        <div className="flex flex-wrap items-center gap-1.5">
          <Pick
            label="What to do"
            value={edit.kind}
            options={kinds}
            onPick={(kind) => setEdit(firstEdit(kind, names))}
          />
          <EditValue edit={edit} onChange={setEdit} />
        </div>
        {!answer && <p className="note">Working it out …</p>}
        {answer && !answer.ok && (
          <p role="alert" className="text-alarm">
            {answer.title}
          </p>
        )}
        {preview && <Preview preview={preview} />}
        {problem && (
          <p role="alert" className="text-alarm">
            {problem}
          </p>
        )}
        <Input
          label="Why, for the record"
          placeholder="Why, for the record"
          value={why}
          maxLength={500}
          onChange={(event) => setWhy(event.target.value)}
          className="w-full"
        />
        <div>
          <Button
            weight="main"
            disabled={going || !preview || preview.changes.count === 0}
            onClick={() => void go()}
          >
            {edit.kind === 'remove' ? 'Take away' : 'Change'}{' '}
            {counted(preview?.changes.count ?? 0, 'person', 'people')}
          </Button>
        </div>
        <InviteChosen who={who} />
      </div>
    </Panel>
  );
}

function Preview({ preview }: { readonly preview: PeoplePreview }) {
  const { changes, unchanged, reach } = preview;
  return (
    <div className="grid gap-2" data-testid="people-preview">
      <p>
        <strong>{counted(changes.count, 'person changes', 'people change')}</strong>
        {changes.count > 0 && (
          <>
            : <CrowdNames crowd={changes} />
          </>
        )}
      </p>
      {unchanged > 0 && (
        <p className="note">{unchanged === 1 ? 'One is' : `${unchanged} are`} like that already.</p>
      )}
      {reach && reach.more.count > 0 && (
        <p>
          <strong className="text-open">+{reach.more.count}</strong> reach more of the live site:{' '}
          <CrowdNames crowd={reach.more} />
        </p>
      )}
      {reach && reach.less.count > 0 && (
        <p>
          <strong className="text-alarm">−{reach.less.count}</strong> reach less of it:{' '}
          <CrowdNames crowd={reach.less} />
        </p>
      )}
      {reach && reach.more.count + reach.less.count === 0 && changes.count > 0 && (
        <p className="note">None of them reaches more or less of the live site by it.</p>
      )}
    </div>
  );
}

function firstEdit(kind: Kind, names: SiteNames): PeopleEdit {
  switch (kind) {
    case 'join':
    case 'leave':
      return { kind, group: names.groups[0]?.id ?? '' };
    case 'give':
    case 'take':
      return { kind, role: names.roles[0]?.id ?? '' };
    case 'level':
      return { kind, level: names.levels[0]?.id ?? null };
    case 'field': {
      const [field] = names.fields;
      return { kind, field: field?.id ?? '', value: field?.choices[0] ?? '' };
    }
    case 'enrol':
      return { kind, course: names.courses[0]?.id ?? '', until: null };
    case 'end enrolment':
      return { kind, course: names.courses[0]?.id ?? '' };
    case 'remove':
      return { kind };
    default:
      return kind satisfies never;
  }
}

interface EditValueProps {
  readonly edit: PeopleEdit;
  readonly onChange: (edit: PeopleEdit) => void;
}

const NO_LEVEL = ' ';

function EditValue({ edit, onChange }: EditValueProps) {
  const { data, vocabulary } = useDesk();
  const { names } = data;
  const options = (list: readonly { readonly id: string; readonly name: string }[]) =>
    list.map(({ id, name }) => ({ value: id, label: name }));
  switch (edit.kind) {
    case 'join':
    case 'leave':
      return (
        <Pick
          label="Group"
          value={edit.group}
          options={options(names.groups)}
          onPick={(group) => onChange({ ...edit, group })}
        />
      );
    case 'give':
    case 'take':
      return (
        <Pick
          label="Role"
          value={edit.role}
          options={options(names.roles)}
          onPick={(role) => onChange({ ...edit, role })}
        />
      );
    case 'level':
      return (
        <Pick
          label="Level"
          value={edit.level ?? NO_LEVEL}
          options={[{ value: NO_LEVEL, label: 'no level' }, ...options(names.levels)]}
          onPick={(level) => onChange({ ...edit, level: level === NO_LEVEL ? null : level })}
        />
      );
    case 'field': {
      const choices = choicesFor({ fact: 'profile', subject: edit.field }, vocabulary);
      const type = names.fields.find(({ id }) => id === edit.field)?.type;
      return (
        <>
          <Pick
            label="Field"
            value={edit.field}
            options={options(names.fields)}
            onPick={(field) =>
              onChange({
                ...edit,
                field,
                value: choicesFor({ fact: 'profile', subject: field }, vocabulary)[0] ?? '',
              })
            }
          />
          <FieldTextInput
            type={type ?? 'text'}
            choices={choices}
            value={edit.value}
            onChange={(value) => onChange({ ...edit, value })}
          />
        </>
      );
    }
    case 'enrol':
    case 'end enrolment':
      return (
        <>
          <Pick
            label="Course"
            value={edit.course}
            options={options(names.courses)}
            onPick={(course) => onChange({ ...edit, course })}
          />
          {edit.kind === 'enrol' && (
            <span className="flex items-center gap-2">
              <span className="text-quiet">until</span>
              <Input
                label="The last day of it; left empty, it does not end"
                type="date"
                value={edit.until ?? ''}
                onChange={(event) => onChange({ ...edit, until: event.target.value || null })}
              />
            </span>
          )}
        </>
      );
    case 'remove':
      return null;
    default:
      return edit satisfies never;
  }
}

const CLEARED = ' ';

/** The value of a field as text, with the input that fits its type. Empty clears the field. */
export function FieldTextInput({
  type,
  choices,
  value,
  onChange,
  label = 'Value',
}: {
  readonly type: string;
  readonly choices: readonly string[];
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly label?: string;
}) {
  const listed = type === 'yes/no' ? ['yes', 'no'] : choices;
  if (type === 'yes/no' || type === 'choice') {
    return (
      <Pick
        label={label}
        value={value || CLEARED}
        options={[
          { value: CLEARED, label: 'not filled in' },
          ...listed.map((one) => ({ value: one, label: one })),
        ]}
        onPick={(next) => onChange(next.trim())}
      />
    );
  }
  return (
    <Input
      label={label}
      type={type === 'number' ? 'number' : type === 'date' ? 'date' : 'text'}
      {...(type === 'number' && { step: 'any' })}
      maxLength={500}
      value={value}
      placeholder="not filled in"
      onChange={(event) => onChange(event.target.value)}
      className={type === 'number' ? 'w-28' : 'w-44'}
    />
  );
}
