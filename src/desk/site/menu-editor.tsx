'use client';
/** A menu: its links, nested, moved by dragging: between two links, or onto one to stand below it. */
import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { clsx } from 'clsx';
import { GripVertical } from 'lucide-react';
import { useId, useState } from 'react';
import { toast } from 'sonner';
import { type ItemId, type Link, type LinkTarget, type Menu, pathOf } from '@/core';
import type { RemovalPreview } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { GateMark } from '../marks';
import { ask } from '../service';
import { TargetPick } from './section-editor';
import { useItems } from './use-items';
import { Removal } from './writer';

export function MenuEditor({ menu }: { readonly menu: Menu }) {
  const { setScreen } = useDesk();
  const { change } = useItems();
  const [removal, setRemoval] = useState<RemovalPreview | null>(null);
  const [dragging, setDragging] = useState(false);
  const id = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    setDragging(false);
    const place = over?.data.current as
      | { readonly parent: ItemId; readonly before: ItemId | null }
      | undefined;
    if (!place || place.parent === active.id || place.before === active.id) return;
    void change({ kind: 'move', item: String(active.id), ...place });
  };
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
      <DndContext
        id={id}
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragStart={() => setDragging(true)}
        onDragCancel={() => setDragging(false)}
        onDragEnd={drop}
      >
        <div className="mt-4 max-w-3xl">
          <Links above={menu.id} dragging={dragging} change={change} />
        </div>
      </DndContext>
      <NewLink parent={menu.id} change={change} />
    </section>
  );
}

type Change = ReturnType<typeof useItems>['change'];

interface LinksProps {
  readonly above: ItemId;
  readonly dragging: boolean;
  readonly change: Change;
}

function Links({ above, dragging, change }: LinksProps) {
  const { outline } = useDesk();
  const links = (outline.children.get(above) ?? []).filter((item): item is Link => item.kind === 'link');
  return (
    <ul>
      {links.map((link) => (
        <li key={link.id}>
          <Gap parent={above} before={link.id} shown={dragging} />
          <LinkRow link={link} change={change} />
          <div className="pl-7">
            <Links above={link.id} dragging={dragging} change={change} />
          </div>
        </li>
      ))}
      {links.length > 0 && (
        <li>
          <Gap parent={above} before={null} shown={dragging} />
        </li>
      )}
    </ul>
  );
}

function Gap({
  parent,
  before,
  shown,
}: {
  readonly parent: ItemId;
  readonly before: ItemId | null;
  readonly shown: boolean;
}) {
  const { setNodeRef, isOver } = useDroppable({
    id: `gap ${parent} ${before ?? 'last'}`,
    data: { parent, before },
  });
  return (
    <div
      ref={setNodeRef}
      aria-hidden="true"
      className={clsx('h-2 rounded-full', shown && 'my-0.5 bg-sunk', isOver && 'bg-copper')}
    />
  );
}

function LinkRow({ link, change }: { readonly link: Link; readonly change: Change }) {
  const { outline, compiled, setScreen, setBench, addGate } = useDesk();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState(link.title);
  const [target, setTarget] = useState<LinkTarget>(link.target);
  const { attributes, listeners, setNodeRef: setHandle, isDragging } = useDraggable({ id: link.id });
  const { setNodeRef, isOver } = useDroppable({
    id: `on ${link.id}`,
    data: { parent: link.id, before: null },
  });
  const gate = (compiled.draft.covering.get(link.id) ?? []).find(({ setAside }) => !setAside)?.gate;
  const leads =
    link.target.kind === 'item'
      ? (pathOf(outline.items.get(link.target.item)) ?? 'nowhere')
      : link.target.kind === 'outside'
        ? link.target.url
        : link.target.kind;
  return (
    <div
      ref={setNodeRef}
      className={clsx(
        'border border-thin bg-raised px-3 py-1.5',
        isOver && 'border-copper',
        isDragging && 'opacity-50',
      )}
    >
      <div className="flex items-center gap-2">
        <button
          ref={setHandle}
          type="button"
          {...attributes}
          {...listeners}
          aria-label={`Move ${link.title}`}
          className="cursor-grab touch-none text-faint hover:text-copper"
        >
          <GripVertical size={16} aria-hidden="true" />
        </button>
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

function NewLink({ parent, change }: { readonly parent: ItemId; readonly change: Change }) {
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
