'use client';
/** A menu: its links, nested, moved by dragging: between two links, or onto one to stand below it. */
import { clsx } from 'clsx';
import { useState } from 'react';
import { toast } from 'sonner';
import { type ItemId, type Link, type LinkTarget, type Menu, pathOf } from '@/core';
import type { RemovalPreview } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { GateMark } from '../marks';
import { ask } from '../service';
import { type ChangeItem, useChangeItem } from '../use-change-item';
import { Gap, Moving, useMovable } from './moving';
import { Removal } from './take-away';
import { TargetPick } from './target-pick';

export function MenuEditor({ menu }: { readonly menu: Menu }) {
  const { setScreen } = useDesk();
  const { change } = useChangeItem();
  const [removal, setRemoval] = useState<RemovalPreview | null>(null);
  const look = async () => {
    const answer = await ask<RemovalPreview>('GET', `items/${encodeURIComponent(menu.id)}/removal`);
    if (answer.ok) setRemoval(answer.value);
    else toast.error(answer.title);
  };
  return (
    <section aria-label={menu.title} className="min-h-0 overflow-y-auto px-8 py-6">
      <header className="flex max-w-3xl items-start gap-3">
        <div className="mr-auto">
          <h2 className="text-xl">{menu.title}</h2>
          <p className="note">
            At the {menu.place}. {menu.place === 'side' && 'It stands beside the pages that it leads to. '}A
            link to an item is shown to those who can open the item. Drag links to move them; onto another to
            put them below it.
          </p>
        </div>
        <Input
          label="Title of the menu"
          defaultValue={menu.title}
          maxLength={200}
          onBlur={(event) => {
            const title = event.target.value.trim();
            if (title !== '' && title !== menu.title) void change({ kind: 'rename', item: menu.id, title });
          }}
        />
        <Button weight="quiet" onClick={() => void look()}>
          Take it away …
        </Button>
      </header>
      {removal && (
        <Removal
          removal={removal}
          onLeave={() => setRemoval(null)}
          onRemove={async () => {
            await change({ kind: 'remove', item: menu.id });
            setScreen({ kind: 'site', item: null });
          }}
        />
      )}
      <Moving change={change}>
        <div className="mt-4 max-w-3xl">
          <Links above={menu.id} change={change} />
        </div>
      </Moving>
      <NewLink parent={menu.id} change={change} />
    </section>
  );
}

interface LinksProps {
  readonly above: ItemId;
  readonly change: ChangeItem;
}

function Links({ above, change }: LinksProps) {
  const { outline } = useDesk();
  const links = (outline.children.get(above) ?? []).filter((item): item is Link => item.kind === 'link');
  return (
    <ul>
      {links.map((link) => (
        <li key={link.id}>
          <Gap parent={above} before={link.id} />
          <LinkRow link={link} change={change} />
          <div className="pl-7">
            <Links above={link.id} change={change} />
          </div>
        </li>
      ))}
      {links.length > 0 && (
        <li>
          <Gap parent={above} before={null} />
        </li>
      )}
    </ul>
  );
}

function LinkRow({ link, change }: { readonly link: Link; readonly change: ChangeItem }) {
  const { outline, compiled, setScreen, setBench, addGate } = useDesk();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState(link.title);
  const [target, setTarget] = useState<LinkTarget>(link.target);
  const { rowRef, handle, isOver, isDragging } = useMovable(link);
  const gate = (compiled.draft.covering.get(link.id) ?? []).find(({ setAside }) => !setAside)?.gate;
  const leads =
    link.target.kind === 'item'
      ? (pathOf(outline.items.get(link.target.item)) ?? 'nowhere')
      : link.target.kind === 'outside'
        ? link.target.url
        : link.target.kind;
  return (
    <div
      ref={rowRef}
      className={clsx(
        'mb-2 border border-thin bg-raised px-3 py-1.5',
        isOver && 'border-copper',
        isDragging && 'opacity-50',
      )}
    >
      <div className="flex items-center gap-2">
        {handle()}
        <span className="font-semibold">{link.title}</span>
        <span className="min-w-0 flex-1 truncate text-quiet text-xs">{leads}</span>
        <Button
          weight="quiet"
          size="small"
          aria-label={gate ? `The gate over ${link.title}` : `Put a gate on ${link.title}`}
          onClick={() => {
            setScreen({ kind: 'board' });
            if (gate) setBench({ kind: 'gate', gate: gate.id });
            else addGate(link);
          }}
        >
          {gate ? <GateMark standing="own" /> : '+ gate'}
        </Button>
        <Button
          weight="quiet"
          size="small"
          aria-expanded={open}
          aria-label={`Change ${link.title}`}
          onClick={() => setOpen(!open)}
        >
          Change
        </Button>
        <Button
          weight="quiet"
          size="small"
          aria-label={`Take out ${link.title}`}
          onClick={() => void change({ kind: 'remove', item: link.id })}
        >
          Take out
        </Button>
      </div>
      {open && (
        <form
          className="mt-2 flex flex-wrap items-center gap-2"
          onSubmit={async (event) => {
            event.preventDefault();
            if ((await change({ kind: 'link', item: link.id, title, target })) !== null) setOpen(false);
          }}
        >
          <Input
            label="What the link says"
            value={title}
            maxLength={200}
            onChange={(event) => setTitle(event.target.value)}
          />
          <TargetPick label="Where it leads" target={target} onChange={setTarget} />
          <Button type="submit">Keep</Button>
        </form>
      )}
    </div>
  );
}

function NewLink({ parent, change }: { readonly parent: ItemId; readonly change: ChangeItem }) {
  const { outline } = useDesk();
  const home = [...outline.addressed.values()][0];
  const [title, setTitle] = useState('');
  const [target, setTarget] = useState<LinkTarget>(
    home ? { kind: 'item', item: home.id } : { kind: 'sign in' },
  );
  return (
    <form
      aria-label="A new link"
      className="mt-5 flex max-w-3xl flex-wrap items-center gap-2 border-copper border-l-3 pl-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const named =
          title.trim() || (target.kind === 'item' ? (outline.items.get(target.item)?.title ?? '') : '');
        if ((await change({ kind: 'new link', parent, title: named, target })) !== null) setTitle('');
      }}
    >
      <TargetPick label="Where the new link leads" target={target} onChange={setTarget} />
      <Input
        label="What the new link says"
        placeholder="its title"
        value={title}
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      <Button type="submit">Add the link</Button>
    </form>
  );
}
