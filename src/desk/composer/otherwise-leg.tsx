'use client';
import { ChevronUp, X } from 'lucide-react';
import {
  type Case,
  type Condition,
  capital,
  coverage,
  describeWho,
  fits,
  fitTo,
  type Gate,
  guests,
  type Item,
  redirectToSignIn,
  same,
  signedIn,
  type TurnAway,
} from '@/core';
import { Button, Pick } from '@/ui';
import { ConditionEditor, newTest } from '../condition';
import { useDesk } from '../context';
import { TurnAwayEditor } from './turn-away-editor';
import { TurnAwayPreview } from './turn-away-preview';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

/** The third leg: what everyone else gets, case by case; the first that fits is used. */
export function OtherwiseLeg({ gate, onChange }: LegProps) {
  const { outline, vocabulary } = useDesk();
  const { cases, last } = gate.otherwise;
  const change = (otherwise: Partial<Gate['otherwise']>) =>
    onChange({ ...gate, otherwise: { ...gate.otherwise, ...otherwise } });
  const put = (index: number, entry: Case) =>
    change({ cases: cases.map((one, at) => (at === index ? entry : one)) });
  const covered = [...coverage(gate.what, outline)]
    .map((id) => outline.items.get(id))
    .filter((item) => item !== undefined);
  const sample = covered.find((item) => item.kind === 'page') ?? covered[0] ?? null;
  const guestCase = cases.some(({ when }) => same(when, guests));
  return (
    <div className="grid gap-4">
      {cases.map((entry, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: cases have no identity but their place
        <section key={index} className="grid gap-2" aria-label={`Case ${index + 1}`}>
          <div className="flex items-center gap-1.5">
            <WhoInCase when={entry.when} onChange={(when) => put(index, { ...entry, when })} />
            <span className="ml-auto flex">
              {index > 0 && (
                <Button
                  weight="quiet"
                  size="small"
                  aria-label="Move this case up"
                  title="Move up"
                  onClick={() => change({ cases: moved(cases, index) })}
                >
                  <ChevronUp size={15} aria-hidden="true" />
                </Button>
              )}
              <Button
                weight="quiet"
                size="small"
                aria-label="Take this case out"
                title="Take out"
                onClick={() => change({ cases: cases.filter((_, at) => at !== index) })}
              >
                <X size={14} aria-hidden="true" />
              </Button>
            </span>
          </div>
          {!isShort(entry.when) && (
            <ConditionEditor condition={entry.when} onChange={(when) => put(index, { ...entry, when })} />
          )}
          <Given
            gate={gate}
            sample={sample}
            turnAway={entry.give}
            onChange={(give) => put(index, { ...entry, give })}
          />
        </section>
      ))}
      <section className="grid gap-2" aria-label="Everyone else">
        <p className="font-semibold">{cases.length === 0 ? 'Everyone who does not pass' : 'Everyone else'}</p>
        <Given
          gate={gate}
          sample={sample}
          turnAway={last}
          onChange={(turnAway) => change({ last: turnAway })}
        />
      </section>
      <div>
        <Button
          weight="quiet"
          onClick={() =>
            change({
              cases: guestCase
                ? [...cases, { when: newTest('level', vocabulary), give: last }]
                : [{ when: guests, give: redirectToSignIn }, ...cases],
            })
          }
        >
          {guestCase ? '+ another case' : '+ something else for guests'}
        </Button>
      </div>
    </div>
  );
}

const moved = (cases: readonly Case[], index: number): readonly Case[] => {
  const next = [...cases];
  next.splice(index - 1, 0, ...next.splice(index, 1));
  return next;
};

/** Conditions that a case names in a word. */
const isShort = (when: Condition): boolean => same(when, guests) || same(when, signedIn);

function WhoInCase({
  when,
  onChange,
}: {
  readonly when: Condition;
  readonly onChange: (when: Condition) => void;
}) {
  const { vocabulary } = useDesk();
  const value = same(when, guests) ? 'guests' : same(when, signedIn) ? 'members' : 'others';
  return (
    <Pick
      label="Who gets this"
      className="font-semibold"
      value={value}
      options={[
        { value: 'guests', label: 'Guests' },
        { value: 'members', label: 'Members' },
        {
          value: 'others',
          label: value === 'others' ? capital(describeWho(when, vocabulary)) : 'Certain people …',
        },
      ]}
      onPick={(next) =>
        onChange(
          next === 'guests'
            ? guests
            : next === 'members'
              ? signedIn
              : value === 'others'
                ? when
                : newTest('level', vocabulary),
        )
      }
    />
  );
}

interface GivenProps {
  readonly gate: Gate;
  readonly sample: Item | null;
  readonly turnAway: TurnAway;
  readonly onChange: (turnAway: TurnAway) => void;
}

function Given({ gate, sample, turnAway, onChange }: GivenProps) {
  const { outline } = useDesk();
  const kinds = new Set([...coverage(gate.what, outline)].map((id) => outline.items.get(id)?.kind));
  const elsewhere = [...kinds].filter(
    (kind) => kind !== undefined && kind !== sample?.kind && !fits(kind, turnAway),
  );
  const shown = sample ? fitTo(sample.kind, turnAway) : turnAway;
  return (
    <>
      <TurnAwayEditor turnAway={turnAway} onChange={onChange} />
      <TurnAwayPreview turnAway={shown} item={sample} who={gate.who} />
      {shown !== turnAway && (
        <p className="note">That does not fit a {sample?.kind}; this is the nearest that does.</p>
      )}
      {elsewhere.length > 0 && <p className="note">Links and menus it covers are left out.</p>}
    </>
  );
}
