'use client';
/** The members: found by name and by condition, changed many at once, in and out as a file. */
import { clsx } from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import {
  completionsAt,
  fieldValueText,
  nameOfId,
  parseCondition,
  printCondition,
  type SiteNames,
} from '@/core';
import type { PeoplePage } from '@/services';
import { Button, Input } from '@/ui';
import { exampleOf, TextForm } from '../condition';
import { useDesk } from '../context';
import { startOf } from '../screens';
import { useAnswer } from '../use-answer';
import { BulkPanel } from './bulk-panel';
import { FilePanel } from './file-panel';

type Row = PeoplePage['people'][number];

interface PeopleProps {
  readonly text: string;
  readonly condition: string;
}

const AT_ONCE = 100;

/** Who is chosen: some by a mark each, or everybody that was found. */
export type Chosen =
  | { readonly kind: 'some'; readonly ids: readonly string[] }
  | { readonly kind: 'all found' };

export function PeopleScreen({ text, condition }: PeopleProps) {
  const { setScreen, vocabulary, data } = useDesk();
  const [most, setMost] = useState(AT_ONCE);
  const [chosen, setChosen] = useState<Chosen>({ kind: 'some', ids: [] });
  const [file, setFile] = useState(false);
  const parsed = useMemo(
    () => (condition.trim() === '' ? null : parseCondition(condition, vocabulary)),
    [condition, vocabulary],
  );
  // While the condition can't be read, the people it last found stay.
  const readable = useRef('');
  if (parsed === null || parsed.ok) readable.current = condition;
  const question = { text, condition: readable.current, most };
  const answer = useAnswer<PeoplePage>('people', question, data);
  const page = answer?.ok ? answer.value : null;
  const look = (change: Partial<PeopleProps>) => setScreen({ kind: 'people', text, condition, ...change });

  // Another question is about other people: whoever was chosen may not be among them.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the question's change that matters
  useEffect(() => setChosen({ kind: 'some', ids: [] }), [text, readable.current]);

  const someIds = chosen.kind === 'some' ? chosen.ids : [];
  const count = chosen.kind === 'some' ? someIds.length : (page?.count ?? 0);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_26rem]">
      <section aria-label="People" className="flex min-h-0 min-w-0 flex-col">
        <div className="grid grid-cols-[13rem_minmax(0,1fr)_auto] items-start gap-3 border-thin border-b px-5 py-3">
          <Input
            label="Name or mail address"
            type="search"
            placeholder="Name or mail address"
            value={text}
            maxLength={200}
            onChange={(event) => look({ text: event.target.value })}
            className="py-2"
          />
          <TextForm
            text={condition}
            error={parsed && !parsed.ok ? parsed.error : null}
            completionsAt={(at, cursor) => completionsAt(at, cursor, vocabulary)}
            label="Who, as a condition"
            placeholder={`Who: ${printCondition(exampleOf(data.names), vocabulary)}`}
            rows={1}
            onType={(next) => look({ condition: next })}
          />
          <span className="flex items-center gap-2 pt-1">
            {(text || condition) && (
              <Button weight="quiet" onClick={() => setScreen(startOf('people'))}>
                Everybody
              </Button>
            )}
            <Button weight="main" onClick={() => setScreen({ kind: 'person', person: null })}>
              New person
            </Button>
          </span>
        </div>
        {answer && !answer.ok && (parsed === null || parsed.ok) && (
          <p role="alert" className="px-5 py-3 text-alarm">
            {answer.title}
          </p>
        )}
        <div className="min-h-0 flex-1 overflow-auto">
          <table className="w-full border-separate border-spacing-0">
            <thead>
              <tr className="text-left text-quiet">
                <th className="sticky top-0 z-10 w-10 border-iron border-b bg-paper py-2 pl-5">
                  <input
                    type="checkbox"
                    aria-label="Choose everybody found"
                    checked={chosen.kind === 'all found'}
                    disabled={!page || page.count === 0}
                    onChange={(event) =>
                      setChosen(event.target.checked ? { kind: 'all found' } : { kind: 'some', ids: [] })
                    }
                  />
                </th>
                {['Name', 'Level', 'Groups and roles', 'Profile'].map((head) => (
                  <th
                    key={head}
                    scope="col"
                    className="sticky top-0 z-10 border-iron border-b bg-paper px-2 py-2 font-normal"
                  >
                    {head}
                    {head === 'Name' && page && (
                      <span data-testid="people-count" className="ml-2 font-semibold text-ink">
                        {page.count} of {page.of}
                      </span>
                    )}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {page?.people.map((person) => {
                const on = chosen.kind === 'all found' || someIds.includes(person.id);
                return (
                  <PersonRow
                    key={person.id}
                    person={person}
                    names={data.names}
                    chosen={on}
                    onChoose={(add) =>
                      setChosen({
                        kind: 'some',
                        ids: add
                          ? [...someIds, person.id]
                          : (chosen.kind === 'all found' ? page.people.map(({ id }) => id) : someIds).filter(
                              (id) => id !== person.id,
                            ),
                      })
                    }
                    onOpen={() => setScreen({ kind: 'person', person: person.id })}
                  />
                );
              })}
            </tbody>
          </table>
          {page?.count === 0 && (
            <p className="px-5 py-6 text-quiet">
              Nobody like that. Change the question, or choose “Everybody”.
            </p>
          )}
          {page && page.count > page.people.length && (
            <p className="px-5 py-3">
              <Button onClick={() => setMost(Math.min(500, most + AT_ONCE))} disabled={most >= 500}>
                {most >= 500 ? 'More than 500: ask for fewer' : `Show more of ${page.count}`}
              </Button>
            </p>
          )}
        </div>
      </section>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {count > 0 ? (
          <BulkPanel
            who={chosen.kind === 'some' ? { ids: chosen.ids } : { text, condition: readable.current }}
            count={count}
            onClose={() => setChosen({ kind: 'some', ids: [] })}
          />
        ) : (
          <FilePanel text={text} condition={readable.current} open={file} onOpen={setFile} />
        )}
      </aside>
    </main>
  );
}

interface RowProps {
  readonly person: Row;
  readonly names: SiteNames;
  readonly chosen: boolean;
  readonly onChoose: (on: boolean) => void;
  readonly onOpen: () => void;
}

function PersonRow({ person, names, chosen, onChoose, onOpen }: RowProps) {
  const vocabulary = { ...names, audiences: [] };
  const named = (kind: 'group' | 'role', ids: readonly string[]) =>
    ids.map((id) => nameOfId(vocabulary, kind, id)).filter((name) => name !== null);
  const cell = 'border-thin border-b px-2 py-1.5 align-top';
  const profile = names.fields
    .filter(({ id }) => person.profile[id] !== undefined)
    .map(({ id, name }) => `${name} ${fieldValueText(person.profile[id])}`);
  return (
    <tr className={clsx('group', chosen ? 'bg-wash/60' : 'hover:bg-sunk')}>
      <td className={clsx(cell, 'pl-5')}>
        <input
          type="checkbox"
          aria-label={`Choose ${person.name}`}
          checked={chosen}
          onChange={(event) => onChoose(event.target.checked)}
          className="mt-1"
        />
      </td>
      <td className={cell}>
        <button
          type="button"
          onClick={onOpen}
          className="text-left font-semibold underline decoration-transparent underline-offset-3 hover:text-copper group-hover:decoration-thin"
        >
          {person.name}
        </button>
        {person.desk && <span className="ml-2 text-copper text-xs">desk</span>}
        <span className="block text-quiet text-xs">{person.email}</span>
      </td>
      <td className={cell}>
        {person.has.level === null ? (
          <span className="text-quiet">none</span>
        ) : (
          nameOfId(vocabulary, 'level', person.has.level)
        )}
      </td>
      <td className={cell}>
        {named('group', person.has.groups).join(', ')}
        {person.has.roles.length > 0 && (
          <span className="text-quiet">
            {person.has.groups.length > 0 && ' · '}
            {named('role', person.has.roles).join(', ')}
          </span>
        )}
      </td>
      <td className={clsx(cell, 'max-w-72 text-quiet text-xs leading-5')}>{profile.join(' · ')}</td>
    </tr>
  );
}
