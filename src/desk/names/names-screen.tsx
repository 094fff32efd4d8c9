'use client';
/** The names that describe people, with how many have each, where each is used, and what a change of it would do. */
import { useEffect, useState } from 'react';
import { FIELD_TYPES, type Named, type NameKind } from '@/core';
import type { NameReport, NamesEdit } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { useChange } from '../people/use-change';
import { ask } from '../service';
import { Consequences } from './consequences';
import { FieldPanel } from './field-panel';
import { NameRow } from './name-row';

export type EditableKind = Exclude<NameKind, 'audience' | 'course' | 'unit' | 'activity'>;

interface Kind {
  readonly kind: EditableKind;
  readonly title: string;
  readonly note: string;
  /** What people who have one of these answer to, as a condition. */
  readonly condition: (name: string) => string;
}

const quoted = (name: string) => `"${name.replace(/[\\"]/g, '\\$&')}"`;

const KINDS: readonly Kind[] = [
  {
    kind: 'level',
    title: 'Levels',
    note: 'In rank order, the lowest first.',
    condition: (name) => `level exactly ${quoted(name)}`,
  },
  {
    kind: 'group',
    title: 'Groups',
    note: 'A private one is never named to visitors.',
    condition: (name) => `in group ${quoted(name)}`,
  },
  {
    kind: 'role',
    title: 'Roles',
    note: 'What people are, as against where they belong.',
    condition: (name) => `role ${quoted(name)}`,
  },
  {
    kind: 'field',
    title: 'Profile fields',
    note: 'In the order in which they are shown.',
    condition: (name) => `profile ${quoted(name)} is set`,
  },
  {
    kind: 'product',
    title: 'Products',
    note: 'What they cost and give is said in the shop.',
    condition: (name) => `purchase of ${quoted(name)} is set`,
  },
  {
    kind: 'passphrase',
    title: 'Passphrases',
    note: 'For people without an account. What is typed is kept as a hash alone.',
    condition: () => '',
  },
];

/** What the workbench shows: what a change would do, before it is made, or a field's details. */
export type NamesBench =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'before'; readonly edit: NamesEdit; readonly title: string; readonly does: string }
  | { readonly kind: 'field'; readonly id: string };

export function NamesScreen() {
  const { data } = useDesk();
  const { names } = data;
  const [report, setReport] = useState<NameReport | null>(null);
  const [problem, setProblem] = useState<{ readonly of: string; readonly text: string } | null>(null);
  const [bench, setBench] = useState<NamesBench>({ kind: 'nothing' });
  const change = useChange();
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when names or people were changed
  useEffect(() => {
    ask<NameReport>('GET', 'names').then((answer) => answer.ok && setReport(answer.value));
  }, [data]);

  /** Makes a change at once, and says next to where it was asked for when it can't be made. */
  const make = async (edit: NamesEdit, of: string): Promise<boolean> => {
    const answer = await change('POST', 'names', edit);
    setProblem(answer.ok ? null : { of, text: answer.title });
    return answer.ok;
  };
  const done = () => setBench({ kind: 'nothing' });
  const listOf = (kind: EditableKind): readonly Named[] =>
    ({
      level: names.levels,
      role: names.roles,
      group: names.groups,
      product: names.products,
      field: names.fields,
      passphrase: names.passphrases,
    })[kind];
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_26rem]">
      <div className="min-h-0 columns-2 gap-10 overflow-y-auto px-6 py-5">
        {KINDS.map(({ kind, title, note, condition }) => (
          <section key={kind} aria-label={title} className="mb-7 break-inside-avoid">
            <h2 className="text-lg">{title}</h2>
            <p className="note mb-1">{note}</p>
            <ul>
              {listOf(kind).map((one, at, all) => (
                <NameRow
                  key={one.id}
                  kind={kind}
                  one={one}
                  people={report?.people[`${kind} ${one.id}`] ?? 0}
                  uses={report?.uses[`${kind} ${one.id}`] ?? []}
                  condition={condition(one.name)}
                  canMove={
                    kind === 'level' || kind === 'field' ? { up: at > 0, down: at < all.length - 1 } : null
                  }
                  problem={problem?.of === `${kind} ${one.id}` ? problem.text : null}
                  onMake={(edit) => make(edit, `${kind} ${one.id}`)}
                  onBench={setBench}
                />
              ))}
            </ul>
            <AddName
              kind={kind}
              problem={problem?.of === kind ? problem.text : null}
              onAdd={(name) => make({ kind: 'add', of: kind, name }, kind)}
            />
          </section>
        ))}
      </div>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {bench.kind === 'before' && (
          <Consequences key={JSON.stringify(bench.edit)} {...bench} onDone={done} />
        )}
        {bench.kind === 'field' && <FieldPanel key={bench.id} id={bench.id} onDone={done} />}
        {bench.kind === 'nothing' && (
          <Panel
            title="Names"
            note="Renaming anything changes no gate: conditions go by what it is, not by its name."
          >
            <div className="kept">
              <p>
                The number behind a name says how many people have it; choose it to see them. “Used” says how
                many gates and audiences of the draft ask for it.
              </p>
              <p>
                What would be lost or closed by taking something away is shown here first, and can be taken
                back afterwards.
              </p>
              <p className="note">A field can hold: {FIELD_TYPES.join(', ')}.</p>
            </div>
          </Panel>
        )}
      </aside>
    </main>
  );
}

function AddName({
  kind,
  problem,
  onAdd,
}: {
  readonly kind: string;
  readonly problem: string | null;
  readonly onAdd: (name: string) => Promise<boolean>;
}) {
  const [name, setName] = useState('');
  return (
    <form
      className="mt-1.5 grid gap-1"
      onSubmit={async (event) => {
        event.preventDefault();
        if (name.trim() !== '' && (await onAdd(name))) setName('');
      }}
    >
      <span className="flex gap-1.5">
        <input
          aria-label={`Name of a new ${kind}`}
          placeholder={`New ${kind}`}
          value={name}
          maxLength={100}
          onChange={(event) => setName(event.target.value)}
          className="min-w-0 flex-1 rounded-[3px] border border-thin bg-transparent px-2 py-1 leading-5 hover:border-iron focus:bg-raised"
        />
        <Button type="submit" weight="quiet" disabled={name.trim() === ''} aria-label={`Add the ${kind}`}>
          Add
        </Button>
      </span>
      {problem && (
        <span role="alert" className="text-alarm">
          {problem}
        </span>
      )}
    </form>
  );
}
