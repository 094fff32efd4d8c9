'use client';
import { useState } from 'react';
import { toast } from 'sonner';
import { type File, type Member, type PersonId, pathOf } from '@/core';
import type { RemovalPreview } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { ask } from '../service';
import { useChangeItem } from '../use-change-item';
import { useMemberSearch } from '../use-member-search';
import { Removal } from './take-away';

/** A file: what it is called, whose it is, and what gates can ask of it. */
export function FileEditor({ file }: { readonly file: File }) {
  const { data, vocabulary, outline, setScreen } = useDesk();
  const { change } = useChangeItem();
  const { facts } = file;
  const [title, setTitle] = useState(file.title);
  const [alt, setAlt] = useState(data.pictures[file.id] ?? '');
  const [category, setCategory] = useState(facts?.category ?? '');
  const [owner, setOwner] = useState<string>(facts?.owner ?? '');
  const [group, setGroup] = useState<string>(facts?.group ?? '');
  const [removal, setRemoval] = useState<RemovalPreview | null>(null);
  const [found, setFound] = useState<readonly Member[]>([]);
  const search = useMemberSearch(setFound);
  const picture = file.mediaType.startsWith('image/');
  const parent = file.parent === null ? undefined : outline.items.get(file.parent);
  const look = async () => {
    const answer = await ask<RemovalPreview>('GET', `items/${encodeURIComponent(file.id)}/removal`);
    if (answer.ok) setRemoval(answer.value);
    else toast.error(answer.title);
  };
  return (
    <section aria-label={file.title} className="min-h-0 overflow-y-auto px-8 py-6">
      <h2 className="text-xl">{file.title}</h2>
      <p className="note">
        {file.mediaType}, {Math.max(1, Math.round(file.size / 1000))} kB · {pathOf(file)}
        {parent && parent.kind !== 'site' && ` · in ${parent.title}, and closed when that is`}
      </p>
      <form
        className="mt-4 grid max-w-xl gap-3"
        onSubmit={async (event) => {
          event.preventDefault();
          const done = await change({
            kind: 'file',
            item: file.id,
            title,
            alt,
            category: category || null,
            owner: owner || null,
            group: group || null,
          });
          if (done !== null) toast('Kept.');
        }}
      >
        <Row name="Title">
          <Input
            label="Title"
            value={title}
            maxLength={200}
            className="w-full"
            onChange={(event) => setTitle(event.target.value)}
          />
        </Row>
        {picture && (
          <Row name="Shows">
            <Input
              label="What it shows, for those who can’t see it"
              value={alt}
              maxLength={500}
              className="w-full"
              onChange={(event) => setAlt(event.target.value)}
            />
          </Row>
        )}
        <Row name="Category">
          <Input
            label="Category"
            value={category}
            maxLength={200}
            onChange={(event) => setCategory(event.target.value)}
          />
        </Row>
        <Row name="Owner">
          <Input
            label="Find its owner by name"
            placeholder="type a name"
            onChange={(event) => search(event.target.value)}
          />
          <Pick
            label="Owner"
            value={owner}
            options={[
              { value: '', label: 'nobody' },
              ...(owner && !found.some(({ id }) => id === owner)
                ? [{ value: owner, label: data.owners[owner as PersonId] ?? 'somebody who is gone' }]
                : []),
              ...found.map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onPick={setOwner}
          />
        </Row>
        <Row name="Group">
          <Pick
            label="Group"
            value={group}
            options={[
              { value: '', label: 'none' },
              ...(group && !vocabulary.groups.some(({ id }) => id === group)
                ? [{ value: group, label: 'a group that is gone' }]
                : []),
              ...vocabulary.groups.map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onPick={setGroup}
          />
        </Row>
        <p className="flex gap-2">
          <Button weight="main" type="submit">
            Keep these
          </Button>
          <Button weight="quiet" onClick={() => void look()}>
            Take it away …
          </Button>
        </p>
      </form>
      {removal && (
        <Removal
          removal={removal}
          onLeave={() => setRemoval(null)}
          onRemove={async () => {
            await change({ kind: 'remove', item: file.id });
            setScreen({ kind: 'site', item: null });
          }}
        />
      )}
    </section>
  );
}

const Row = ({ name, children }: { readonly name: string; readonly children: React.ReactNode }) => (
  <div className="grid grid-cols-[5rem_minmax(0,1fr)] items-center gap-2">
    <span className="text-quiet">{name}</span>
    <div className="flex flex-wrap items-center gap-2">{children}</div>
  </div>
);
