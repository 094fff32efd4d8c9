'use client';
import { useId } from 'react';
import type { ItemId, NextStep, Reason, TurnAway } from '@/core';
import { leaveOut, missing, redirectToSignIn } from '@/core';
import { Choice, Pick } from '@/ui';
import { useDesk } from '../context';
import { OutcomeMark } from '../marks';

interface EditorProps {
  readonly turnAway: TurnAway;
  readonly onChange: (turnAway: TurnAway) => void;
}

const WORDS: Record<TurnAway['kind'], string> = {
  teaser: 'a teaser',
  redirect: 'a redirect',
  message: 'a message',
  missing: 'nothing there',
  'leave out': 'left out',
};

/** A turn-away of each kind to begin with, keeping what two kinds have in common. */
function begin(kind: TurnAway['kind'], before: TurnAway): TurnAway {
  const reason: Reason = 'reason' in before ? before.reason : { kind: 'written' };
  const next: NextStep = 'next' in before ? before.next : { kind: 'none' };
  switch (kind) {
    case 'teaser':
      return { kind, text: null, reason, next };
    case 'message':
      return { kind, reason, next };
    case 'redirect':
      return redirectToSignIn;
    case 'missing':
      return missing;
    case 'leave out':
      return leaveOut;
    default:
      return kind satisfies never;
  }
}

/** What a visitor gets in place of the item, in all its details. */
export function TurnAwayEditor({ turnAway, onChange }: EditorProps) {
  const kinds: readonly TurnAway['kind'][] = ['teaser', 'redirect', 'message', 'missing', 'leave out'];
  return (
    <>
      <Choice
        apart
        label="What they get"
        value={turnAway.kind}
        options={kinds.map((kind) => ({
          value: kind,
          label: (
            <>
              <OutcomeMark outcome={kind} size={14} /> {WORDS[kind]}
            </>
          ),
        }))}
        onChoose={(kind) => onChange(begin(kind, turnAway))}
      />
      {turnAway.kind === 'redirect' && <RedirectEditor turnAway={turnAway} onChange={onChange} />}
      {turnAway.kind === 'teaser' && (
        <Line name="Text">
          <Pick
            label="Text of the teaser"
            value={turnAway.text === null ? 'summary' : 'own'}
            options={[
              { value: 'summary', label: 'the item’s own summary' },
              { value: 'own', label: 'a text of its own' },
            ]}
            onPick={(choice) =>
              onChange({ ...turnAway, text: choice === 'summary' ? null : 'Something worth joining for.' })
            }
          />
          {turnAway.text !== null && (
            <Words
              label="Teaser text"
              text={turnAway.text}
              onChange={(text) => onChange({ ...turnAway, text })}
            />
          )}
        </Line>
      )}
      {(turnAway.kind === 'teaser' || turnAway.kind === 'message') && (
        <>
          <Line name="Reason">
            <Pick
              label="Reason"
              value={turnAway.reason.kind}
              options={[
                { value: 'written', label: 'written from the condition' },
                { value: 'own', label: 'in my own words' },
                { value: 'kept back', label: 'kept back' },
              ]}
              onPick={(kind) =>
                onChange({
                  ...turnAway,
                  reason: kind === 'own' ? { kind, text: 'This is for members of the society.' } : { kind },
                })
              }
            />
            {turnAway.reason.kind === 'own' && (
              <Words
                label="Reason in your own words"
                text={turnAway.reason.text}
                onChange={(text) => onChange({ ...turnAway, reason: { kind: 'own', text } })}
              />
            )}
          </Line>
          <Line name="Next step">
            <PagePick
              label="Next step"
              value={turnAway.next.kind === 'item' ? turnAway.next.item : turnAway.next.kind}
              others={[
                { value: 'none', label: 'none' },
                { value: 'sign in', label: 'sign in' },
                { value: 'passphrase', label: 'type a passphrase' },
              ]}
              onPick={(value) =>
                onChange({
                  ...turnAway,
                  next:
                    value === 'none' || value === 'sign in' || value === 'passphrase'
                      ? { kind: value }
                      : { kind: 'item', item: value as ItemId },
                })
              }
            />
          </Line>
        </>
      )}
    </>
  );
}

function RedirectEditor({
  turnAway,
  onChange,
}: EditorProps & { readonly turnAway: Extract<TurnAway, { kind: 'redirect' }> }) {
  return (
    <Line name="To">
      <PagePick
        label="Where to"
        value={turnAway.to.kind === 'item' ? turnAway.to.item : turnAway.to.kind}
        others={[
          { value: 'sign in', label: 'sign in, and back' },
          { value: 'passphrase', label: 'type a passphrase, and back' },
        ]}
        onPick={(value) =>
          onChange(
            value === 'sign in' || value === 'passphrase'
              ? { kind: 'redirect', to: { kind: value } }
              : { kind: 'redirect', to: { kind: 'item', item: value as ItemId } },
          )
        }
      />
    </Line>
  );
}

interface PagePickProps {
  readonly label: string;
  readonly value: string;
  readonly others: readonly { readonly value: string; readonly label: string }[];
  readonly onPick: (value: string) => void;
}

function PagePick({ label, value, others, onPick }: PagePickProps) {
  const { outline } = useDesk();
  const pages = [...outline.pages.values()].map(({ id, title, address }) => ({
    value: id as string,
    label: `${title}  ${address}`,
  }));
  return <Pick label={label} value={value} options={[...others, ...pages]} onPick={onPick} />;
}

const Line = ({ name, children }: { readonly name: string; readonly children: React.ReactNode }) => (
  <div className="grid grid-cols-[4.5rem_1fr] items-start gap-2">
    <span className="pt-1 text-quiet">{name}</span>
    <div className="grid justify-items-start gap-1.5">{children}</div>
  </div>
);

function Words({
  label,
  text,
  onChange,
}: {
  readonly label: string;
  readonly text: string;
  readonly onChange: (text: string) => void;
}) {
  const id = useId();
  const empty = text.trim() === '';
  return (
    <>
      <textarea
        aria-label={label}
        aria-describedby={empty ? id : undefined}
        aria-invalid={empty || undefined}
        rows={2}
        maxLength={2000}
        value={text}
        onChange={(event) => onChange(event.target.value)}
        className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1 aria-invalid:border-alarm"
      />
      {empty && (
        <p id={id} className="text-alarm">
          Write something here, or choose another above. It is saved once there is a text.
        </p>
      )}
    </>
  );
}
