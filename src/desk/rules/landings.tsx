'use client';
import { ChevronUp, X } from 'lucide-react';
import { useState } from 'react';
import {
  capital,
  describeWho,
  everyone,
  type ItemId,
  isAddressed,
  type Landing,
  type LandingId,
  signedIn,
} from '@/core';
import { Button, Choice } from '@/ui';
import { WhoEditor } from '../condition';
import { useDesk } from '../context';
import { PagePick } from './page-pick';

/** Where people arrive after signing in and out: the first rule that holds of them. */
export function Landings() {
  const { draft, outline } = useDesk();
  const { policy, edit } = draft;
  const home =
    [...outline.addressed.values()].find(({ address }) => address === '/') ??
    [...outline.addressed.values()][0];
  const put = (landings: readonly Landing[]) => edit({ ...policy, landings });
  const add = (after: Landing['after']) => {
    if (!home) return;
    put([
      ...policy.landings,
      {
        id: crypto.randomUUID() as LandingId,
        after,
        when: after === 'sign in' ? signedIn : everyone,
        to: home.id,
        always: false,
      },
    ]);
  };
  return (
    <>
      <p className="note">
        Back to where they were comes first, unless a rule says always. A rule whose page they can’t open is
        passed over.
      </p>
      <ol className="grid gap-3">
        {policy.landings.map((landing, index) => (
          <LandingRow
            key={landing.id}
            landing={landing}
            first={index === 0}
            onChange={(next) => put(policy.landings.map((one) => (one.id === landing.id ? next : one)))}
            onUp={() => {
              const next = [...policy.landings];
              next.splice(index - 1, 0, ...next.splice(index, 1));
              put(next);
            }}
            onRemove={() => put(policy.landings.filter(({ id }) => id !== landing.id))}
          />
        ))}
      </ol>
      <div className="flex gap-2">
        <Button onClick={() => add('sign in')}>After signing in …</Button>
        <Button onClick={() => add('sign out')}>After signing out …</Button>
      </div>
    </>
  );
}

interface LandingRowProps {
  readonly landing: Landing;
  readonly first: boolean;
  readonly onChange: (landing: Landing) => void;
  readonly onUp: () => void;
  readonly onRemove: () => void;
}

function LandingRow({ landing, first, onChange, onUp, onRemove }: LandingRowProps) {
  const { vocabulary, outline } = useDesk();
  const [open, setOpen] = useState(false);
  const target = outline.items.get(landing.to);
  const title = isAddressed(target) ? target.title : 'a page that no longer exists';
  const summary = `${landing.after === 'sign in' ? 'Signing in' : 'Signing out'}: ${describeWho(landing.when, vocabulary)} arrive at ${title}`;
  return (
    <li className="grid gap-2 border-thin border-b pb-2">
      <div className="flex items-start gap-1">
        <span className="flex-1">
          <span className="font-semibold">
            {landing.after === 'sign in' ? 'Signing in: ' : 'Signing out: '}
          </span>
          {capital(describeWho(landing.when, vocabulary))} arrive at <strong>{title}</strong>
          {landing.always && ', always'}
        </span>
        {!first && (
          <Button weight="quiet" size="small" aria-label={`Move up: ${summary}`} onClick={onUp}>
            <ChevronUp size={15} aria-hidden="true" />
          </Button>
        )}
        <Button weight="quiet" size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Done' : 'Change'}
        </Button>
        <Button weight="quiet" size="small" aria-label={`Remove: ${summary}`} onClick={onRemove}>
          <X size={14} aria-hidden="true" />
        </Button>
      </div>
      {open && (
        <div className="grid gap-3">
          {landing.after === 'sign in' && (
            <WhoEditor who={landing.when} onChange={(when) => onChange({ ...landing, when })} />
          )}
          <PagePick
            label="Where they arrive"
            value={landing.to}
            onPick={(to: ItemId) => onChange({ ...landing, to })}
          />
          {landing.after === 'sign in' && (
            <Choice
              label="When it holds"
              value={landing.always ? 'always' : 'otherwise'}
              options={[
                { value: 'otherwise', label: 'if they were going nowhere' },
                { value: 'always', label: 'always' },
              ]}
              onChoose={(when) => onChange({ ...landing, always: when === 'always' })}
            />
          )}
        </div>
      )}
    </li>
  );
}
