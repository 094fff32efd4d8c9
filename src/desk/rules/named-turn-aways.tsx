'use client';
import { useState } from 'react';
import { toast } from 'sonner';
import {
  capital,
  counted,
  describeTurnAway,
  describeWhat,
  gatesGiving,
  listed,
  type NamedTurnAway,
  type TurnAwayId,
} from '@/core';
import { Button, Input } from '@/ui';
import { TurnAwayEditor, TurnAwayPreview } from '../composer';
import { useDesk } from '../context';

/** Turn-aways that many gates can give, changed in one place. */
export function NamedTurnAways() {
  const { draft, outline, vocabulary } = useDesk();
  const { policy, edit } = draft;
  const [opened, setOpened] = useState<TurnAwayId | null>(null);
  const put = (next: NamedTurnAway) =>
    edit({ ...policy, turnAways: policy.turnAways.map((one) => (one.id === next.id ? next : one)) });
  const add = () => {
    const id = crypto.randomUUID() as TurnAwayId;
    const taken = new Set(policy.turnAways.map(({ name }) => name.toLowerCase()));
    const name = ['For members', ...Array.from({ length: 200 }, (_, at) => `For members ${at + 2}`)].find(
      (one) => !taken.has(one.toLowerCase()),
    );
    const made: NamedTurnAway = {
      id,
      name: name ?? id,
      give: {
        kind: 'teaser',
        show: { kind: 'summary' },
        preview: false,
        reason: { kind: 'written' },
        next: { kind: 'sign in' },
      },
    };
    edit({ ...policy, turnAways: [...policy.turnAways, made] });
    setOpened(id);
  };
  const remove = (one: NamedTurnAway) => {
    const uses = gatesGiving(policy, one.id);
    if (uses.length > 0) {
      toast.error(
        `“${one.name}” is given by the gate over ${listed(uses.map(({ what }) => describeWhat(what, outline, vocabulary)))}. Give something else there first.`,
      );
      return;
    }
    edit({ ...policy, turnAways: policy.turnAways.filter(({ id }) => id !== one.id) });
    toast('The turn-away is out of the draft.', { action: { label: 'Undo', onClick: draft.undo } });
  };
  return (
    <>
      {policy.turnAways.length === 0 && (
        <p className="note">
          Give a turn-away a name to use it in many gates; a change here changes all of them.
        </p>
      )}
      <ul className="grid gap-2">
        {policy.turnAways.map((one) => {
          const open = opened === one.id;
          return (
            <li key={one.id} className="grid gap-2 border-thin border-b pb-2">
              <div className="flex items-center gap-2">
                {open ? (
                  <Input
                    label="Name of the turn-away"
                    value={one.name}
                    maxLength={100}
                    className="flex-1"
                    onChange={(event) => put({ ...one, name: event.target.value })}
                  />
                ) : (
                  <span className="flex-1">
                    <span className="block font-semibold">{one.name}</span>
                    <span className="note block">
                      {capital(describeTurnAway(one.give, outline, 'one', vocabulary))} · given by{' '}
                      {counted(gatesGiving(policy, one.id).length, 'gate')}
                    </span>
                  </span>
                )}
                <Button weight="quiet" aria-expanded={open} onClick={() => setOpened(open ? null : one.id)}>
                  {open ? 'Done' : 'Change'}
                </Button>
                <Button weight="quiet" aria-label={`Remove ${one.name}`} onClick={() => remove(one)}>
                  Remove
                </Button>
              </div>
              {open && (
                <>
                  <TurnAwayEditor turnAway={one.give} onChange={(give) => put({ ...one, give })} />
                  <TurnAwayPreview turnAway={one.give} item={null} who={null} />
                </>
              )}
            </li>
          );
        })}
      </ul>
      <div>
        <Button onClick={add}>New turn-away</Button>
      </div>
    </>
  );
}
