'use client';
/** New areas: names and people, typed or from a file, what they begin with, and what all of that comes to. */
import { Plus, X } from 'lucide-react';
import { type ChangeEvent, useRef, useState } from 'react';
import { areasIn, counted, describeWho, type Item, isAddressed, type Outline } from '@/core';
import type { AreaInList, AreasReport } from '@/services';
import { Button, Choice, Input, Pick, Tick } from '@/ui';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { Field } from '../people';
import type { Answer } from '../service';
import { useAnswer } from '../use-answer';
import { MakingReport, problemsOf } from './making-report';
import { PeopleInput } from './people-input';
import { useStep } from './use-areas';

interface Typed {
  readonly key: number;
  readonly name: string;
  readonly people: string;
}

interface Wishes {
  readonly source: string;
  readonly below: string;
  readonly menu: string;
  readonly also: string;
  readonly lands: boolean;
  readonly renames: boolean;
  readonly invite: boolean;
}

// No id has such characters.
const NONE = '–';

interface NewProps {
  readonly areas: readonly AreaInList[];
  readonly onClose: () => void;
}

export function NewAreas({ areas, onClose }: NewProps) {
  const { data, outline, setScreen } = useDesk();
  const [from, setFrom] = useState<'typed' | 'file'>('typed');
  const [typed, setTyped] = useState<readonly Typed[]>([{ key: 0, name: '', people: '' }]);
  const [file, setFile] = useState<{ readonly name: string; readonly base64: string } | null>(null);
  const [wishes, setWishes] = useState<Wishes>(() => firstWishes(areas, outline));
  const [refused, setRefused] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const step = useStep();
  const put = (change: Partial<Wishes>) => setWishes({ ...wishes, ...change });
  const named = typed.filter(({ name, people }) => name.trim() !== '' || people.trim() !== '');
  const empty = from === 'typed' ? named.length === 0 : file === null;
  const asked = {
    areas:
      from === 'typed' ? named.map(({ name, people }) => ({ name, people })) : { file: file?.base64 ?? '' },
    source: wishes.source === NONE ? null : wishes.source,
    below: wishes.below,
    menu: wishes.menu === NONE ? null : wishes.menu,
    also: alsoOf(wishes.also),
    lands: wishes.lands,
    renames: wishes.renames,
    invite: wishes.invite,
  };
  const looked = useAnswer<{ readonly report: AreasReport }>('areas', { ...asked, basis: null }, data);
  const answer = empty ? null : looked;
  const report = answer?.ok ? answer.value.report : null;
  const problems = problemsOf(answer);
  const make = async () => {
    if (!report) return;
    setGoing(true);
    const made = await step('areas', { ...asked, basis: report.basis });
    setGoing(false);
    setRefused(made.ok ? null : made.title);
    if (made.ok) setScreen({ kind: 'areas', area: null });
  };
  return (
    <Panel
      title="New areas"
      note="Nothing is made until you say so below."
      onClose={onClose}
      closes="Back to the areas"
    >
      <div className="grid gap-4">
        <div>
          <Choice
            label="Where they come from"
            value={from}
            options={[
              { value: 'typed', label: 'Typed' },
              { value: 'file', label: 'From a file' },
            ]}
            onChoose={setFrom}
          />
        </div>
        {from === 'typed' ? (
          <TypedAreas typed={typed} shown={named} problems={problems} onChange={setTyped} />
        ) : (
          <FromFile file={file} onFile={setFile} />
        )}
        <Beginning wishes={wishes} areas={areas} named={report?.named ?? 0} put={put} />
        {!empty && (
          <MakingReport
            answer={answer as Answer<{ readonly report: AreasReport }> | null}
            inFile={from === 'file'}
          />
        )}
        {refused && (
          <p role="alert" className="text-alarm">
            {refused}
          </p>
        )}
        <p className="flex gap-2">
          <Button
            weight="main"
            disabled={going || !report || report.broken.length > 0}
            onClick={() => void make()}
          >
            {going ? 'Making …' : report ? `Make ${counted(report.areas.length, 'area')}` : 'Make them'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
      </div>
    </Panel>
  );
}

/** Like the first area there is; a page of its own in the first menu where there is none. */
function firstWishes([first]: readonly AreaInList[], outline: Outline): Wishes {
  const menu = [...outline.items.values()].find((item) => item.kind === 'menu' && item.place === 'top');
  return {
    source: NONE,
    below: outline.root,
    menu: menu?.id ?? NONE,
    also: NONE,
    lands: true,
    renames: true,
    invite: true,
    ...(first && besideOf(first.page, outline)),
  };
}

/** Like a page, beside it, and in the menu in which it is. */
function besideOf(source: string, outline: Outline): Pick<Wishes, 'source' | 'below' | 'menu'> {
  const link = [...outline.items.values()].find(
    (item) => item.kind === 'link' && item.target.kind === 'item' && item.target.item === source,
  );
  const parent = outline.items.get(source as Item['id'])?.parent;
  return { source, below: parent ?? outline.root, menu: link?.parent ?? NONE };
}

function alsoOf(chosen: string) {
  const [kind, ...id] = chosen.split(' ');
  return kind === 'role' || kind === 'group' ? { kind, id: id.join(' ') } : { kind: 'nobody' as const };
}

interface TypedProps {
  readonly typed: readonly Typed[];
  /** Those that are asked about, in the order in which problems count them. */
  readonly shown: readonly Typed[];
  readonly problems: ReturnType<typeof problemsOf>;
  readonly onChange: (typed: readonly Typed[]) => void;
}

function TypedAreas({ typed, shown, problems, onChange }: TypedProps) {
  return (
    <div className="grid gap-3">
      {typed.map((one, at) => {
        const mine = problems.filter(({ area }) => area !== null && shown[area]?.key === one.key);
        const put = (change: Partial<Typed>) =>
          onChange(typed.map((other) => (other.key === one.key ? { ...other, ...change } : other)));
        const number = typed.length > 1 ? ` ${at + 1}` : '';
        const told = (list: typeof mine) =>
          list.map(({ line, message }) => (line === null ? message : `Line ${line}: ${message}`)).join(' ') ||
          undefined;
        return (
          <fieldset key={one.key} className="grid gap-2 border-iron border-l-3 pl-3">
            <div className="flex items-start gap-2">
              <div className="flex-1">
                <Field label={`Name${number}`} problem={told(mine.filter(({ line }) => line === null))}>
                  <Input
                    label={`Name${number}`}
                    className="w-full"
                    maxLength={100}
                    value={one.name}
                    onChange={({ target }) => put({ name: target.value })}
                  />
                </Field>
              </div>
              {typed.length > 1 && (
                <Button
                  weight="quiet"
                  size="small"
                  aria-label={`Without ${one.name || `area ${at + 1}`}`}
                  onClick={() => onChange(typed.filter((other) => other.key !== one.key))}
                >
                  <X size={14} aria-hidden="true" />
                </Button>
              )}
            </div>
            <PeopleInput
              label={`Its people${number}`}
              value={one.people}
              rows={Math.min(8, Math.max(2, one.people.split('\n').length))}
              problem={told(mine.filter(({ line }) => line !== null))}
              onChange={(people) => put({ people })}
            />
          </fieldset>
        );
      })}
      <p>
        <Button
          onClick={() =>
            onChange([...typed, { key: Math.max(...typed.map(({ key }) => key)) + 1, name: '', people: '' }])
          }
        >
          <Plus size={14} aria-hidden="true" /> Another area
        </Button>
      </p>
    </div>
  );
}

interface FileProps {
  readonly file: { readonly name: string } | null;
  readonly onFile: (file: { readonly name: string; readonly base64: string }) => void;
}

/** What a file holds, as it is. */
const base64Of = (file: File): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).split(',')[1] ?? '');
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(file);
  });

function FromFile({ file, onFile }: FileProps) {
  const input = useRef<HTMLInputElement>(null);
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const [taken] = event.target.files ?? [];
    event.target.value = '';
    if (taken) onFile({ name: taken.name, base64: await base64Of(taken) });
  };
  return (
    <div className="grid justify-items-start gap-2">
      <p>
        A CSV file with one line for each person: <code>area</code>, <code>name</code>,{' '}
        <code>mail address</code>. A line with an area alone makes one with nobody in it.
      </p>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        aria-label="A file of areas"
        onChange={(event) => void take(event)}
        className="sr-only"
      />
      <Button onClick={() => input.current?.click()}>{file ? 'Another file …' : 'Choose a file …'}</Button>
      {file && <p className="note">{file.name}</p>}
    </div>
  );
}

interface BeginningProps {
  readonly wishes: Wishes;
  readonly areas: readonly AreaInList[];
  readonly named: number;
  readonly put: (change: Partial<Wishes>) => void;
}

/** What they begin with, where they stand, and who else gets in. */
function Beginning({ wishes, areas, named, put }: BeginningProps) {
  const { outline, vocabulary, draft } = useDesk();
  const items = [...outline.items.values()];
  const pages = items.filter((item) => item.kind === 'page' && item.address !== '/');
  const isArea = new Set<string>(areas.map(({ page }) => page));
  const option = (item: Item) => ({
    value: item.id as string,
    label: `${item.title}  ${isAddressed(item) ? item.address : ''}`,
  });
  const copied = areasIn(draft.live.policy).find(({ page }) => page === wishes.source);
  const title = outline.items.get(wishes.source as Item['id'])?.title;
  return (
    <div className="grid gap-3 border-thin border-t pt-4">
      <Field label="Each begins as" problem={undefined}>
        <Pick
          label="Each begins as"
          value={wishes.source}
          options={[
            { value: NONE, label: 'an empty page' },
            {
              heading: 'a copy of the area',
              options: pages.filter(({ id }) => isArea.has(id)).map(option),
            },
            {
              heading: 'a copy of the page with all beneath it',
              options: pages.filter(({ id }) => !isArea.has(id)).map(option),
            },
          ]}
          onPick={(source) => put(source === NONE ? { source } : besideOf(source, outline))}
        />
      </Field>
      {named > 0 && (
        <Tick checked={wishes.renames} onChange={(renames) => put({ renames })}>
          Write the new name where it says “{title}” ({counted(named, 'place')})
        </Tick>
      )}
      <div className="flex flex-wrap gap-4">
        <Field label="Stands below" problem={undefined}>
          <Pick
            label="Stands below"
            value={wishes.below}
            options={[
              { value: outline.root, label: 'the site itself' },
              ...items.filter(({ kind }) => kind === 'page').map(option),
            ]}
            onPick={(below) => put({ below })}
          />
        </Field>
        <Field label="A link in" problem={undefined}>
          <Pick
            label="A link in"
            value={wishes.menu}
            options={[
              { value: NONE, label: 'no menu' },
              ...items
                .filter(({ kind }) => kind === 'menu' || kind === 'link')
                .map(({ id, kind, title: called }) => ({
                  value: id as string,
                  label: kind === 'menu' ? called : `below ${called}`,
                })),
            ]}
            onPick={(menu) => put({ menu })}
          />
        </Field>
        <Field label="Who else gets in" problem={undefined}>
          <Pick
            label="Who else gets in"
            value={wishes.also}
            options={[
              { value: NONE, label: copied ? `as at ${title}` : 'nobody' },
              {
                heading: 'everybody with the role',
                options: vocabulary.roles.map(({ id, name }) => ({ value: `role ${id}`, label: name })),
              },
              {
                heading: 'everybody in the group',
                options: vocabulary.groups.map(({ id, name }) => ({ value: `group ${id}`, label: name })),
              },
            ]}
            onPick={(also) => put({ also })}
          />
        </Field>
      </div>
      {copied && wishes.also === NONE && (
        <p className="note">
          {title} opens to {describeWho(copied.gate.who, vocabulary)}. A new one asks for its own people
          instead.
        </p>
      )}
      <Tick checked={wishes.lands} onChange={(lands) => put({ lands })}>
        Its people arrive there after signing in
      </Tick>
      <Tick checked={wishes.invite} onChange={(invite) => put({ invite })}>
        Invite those by mail who can’t sign in yet
      </Tick>
    </div>
  );
}
