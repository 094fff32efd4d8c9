'use client';
/** Sets of visitors with names: put on the board, kept, dropped. */
import { X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import { toast } from 'sonner';
import { counted, nameOf } from '@/core';
import type { NamedStandIns } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { ask } from '../service';
import { referenceOf } from '../stand-in-reference';

export function BoardSets() {
  const { standIns, setStandIns } = useDesk();
  const [open, setOpen] = useState(false);
  const [sets, setSets] = useState<readonly NamedStandIns[] | null>(null);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const read = async () => {
    const answer = await ask<readonly NamedStandIns[]>('GET', 'board-sets');
    if (answer.ok) setSets(answer.value);
    else setProblem(answer.title);
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await ask('POST', 'board-sets', { name, standIns: standIns.map(referenceOf) });
    setProblem(answer.ok ? null : answer.title);
    if (!answer.ok) return;
    setName('');
    await read();
  };
  const drop = async ({ id, name: dropped, standIns: those }: NamedStandIns) => {
    const answer = await ask('DELETE', `board-sets/${encodeURIComponent(id)}`);
    if (!answer.ok) return setProblem(answer.title);
    await read();
    toast(`The set ${dropped} is dropped.`, {
      action: {
        label: 'Undo',
        onClick: () =>
          void ask('POST', 'board-sets', { name: dropped, standIns: those.map(referenceOf) }).then(read),
      },
    });
  };
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        if (next) void read();
      }}
    >
      <Popover.Trigger asChild>
        <Button weight="quiet" size="small">
          Sets of visitors
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className="z-30 grid w-80 gap-3 rounded-[4px] border border-iron bg-raised p-4 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
        >
          {sets?.length === 0 && (
            <p className="note">None yet. Keep the visitors on the board as the first.</p>
          )}
          {sets && sets.length > 0 && (
            <ul className="-mx-2 grid">
              {sets.map((set) => (
                <li key={set.id} className="flex items-start">
                  <button
                    type="button"
                    onClick={() => {
                      setStandIns(set.standIns);
                      setOpen(false);
                    }}
                    className="min-w-0 flex-1 rounded-[3px] px-2 py-1.5 text-left hover:bg-sunk"
                  >
                    <span className="block font-semibold">{set.name}</span>
                    <span className="note block truncate">
                      {counted(set.standIns.length, 'visitor')}: {set.standIns.map(nameOf).join(', ')}
                    </span>
                  </button>
                  <Button
                    weight="quiet"
                    size="small"
                    aria-label={`Drop the set ${set.name}`}
                    title="Drop this set"
                    onClick={() => void drop(set)}
                  >
                    <X size={14} aria-hidden="true" />
                  </Button>
                </li>
              ))}
            </ul>
          )}
          <form
            onSubmit={(event) => void keep(event)}
            className="flex items-end gap-2 border-thin border-t pt-3"
          >
            <div className="grid flex-1 gap-1">
              <span className="note">Keep those on the board as</span>
              <Input
                label="Name of the set"
                value={name}
                maxLength={60}
                onChange={(event) => setName(event.target.value)}
                className="w-full"
              />
            </div>
            <Button type="submit" disabled={name.trim() === ''}>
              Keep
            </Button>
          </form>
          {problem && (
            <p role="alert" className="text-alarm">
              {problem}
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
