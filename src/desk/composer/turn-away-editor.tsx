'use client';
import {
  type GroupId,
  type ItemId,
  leaveOut,
  type NextStep,
  pathOf,
  type Reason,
  type Teaser,
  TURN_AWAY_KINDS,
  TURN_AWAYS,
  type TurnAway,
  type TurnAwayKind,
} from '@/core';
import { Choice, Pick } from '@/ui';
import { useDesk } from '../context';
import { OutcomeMark } from '../marks';
import { SwapText, Words } from './turn-away-texts';

interface EditorProps {
  readonly turnAway: TurnAway;
  readonly onChange: (turnAway: TurnAway) => void;
}

/** A turn-away of a kind to begin with, keeping what two kinds have in common. */
const begin = (kind: TurnAwayKind, before: TurnAway): TurnAway =>
  TURN_AWAYS[kind].begin(
    'reason' in before ? before.reason : { kind: 'written' },
    'next' in before ? before.next : { kind: 'none' },
  );

/** What a visitor gets in place of the item, in all its details. */
export function TurnAwayEditor({ turnAway, onChange }: EditorProps) {
  return (
    <>
      <Choice
        apart
        label="What they get"
        value={turnAway.kind}
        options={TURN_AWAY_KINDS.map((kind) => ({
          value: kind,
          label: (
            <>
              <OutcomeMark outcome={kind} size={14} /> {TURN_AWAYS[kind].offer}
            </>
          ),
        }))}
        onChoose={(kind) => onChange(begin(kind, turnAway))}
      />
      {turnAway.kind === 'redirect' && <RedirectEditor turnAway={turnAway} onChange={onChange} />}
      {turnAway.kind === 'teaser' && <TeaserEditor turnAway={turnAway} onChange={onChange} />}
      {turnAway.kind === 'swap' && (
        <Line name="Text">
          <SwapText text={turnAway.text} onChange={(text) => onChange({ ...turnAway, text })} />
        </Line>
      )}
      {turnAway.kind === 'leave out' && (
        <Line name="Space">
          <Pick
            label="The space of a section that is left out"
            value={turnAway.keepSpace ? 'kept' : 'closed'}
            options={[
              { value: 'closed', label: 'closes up' },
              { value: 'kept', label: 'stays empty, for sections' },
            ]}
            onPick={(space) => onChange(space === 'kept' ? { ...leaveOut, keepSpace: true } : leaveOut)}
          />
        </Line>
      )}
      {'reason' in turnAway && (
        <>
          <ReasonEditor reason={turnAway.reason} onChange={(reason) => onChange({ ...turnAway, reason })} />
          <NextEditor next={turnAway.next} onChange={(next) => onChange({ ...turnAway, next })} />
        </>
      )}
    </>
  );
}

const SOME_WORDS = 40;

function TeaserEditor({
  turnAway,
  onChange,
}: {
  readonly turnAway: Teaser;
  readonly onChange: (turnAway: Teaser) => void;
}) {
  const { show, preview } = turnAway;
  return (
    <>
      <Line name="Text">
        <Pick
          label="Text of the teaser"
          value={show.kind}
          options={[
            { value: 'summary', label: 'the item’s own summary' },
            { value: 'words', label: 'its first words' },
            { value: 'text', label: 'a text of its own' },
          ]}
          onPick={(kind) =>
            onChange({
              ...turnAway,
              show:
                kind === 'summary'
                  ? { kind }
                  : kind === 'words'
                    ? { kind, count: SOME_WORDS }
                    : { kind: 'text', text: 'Something worth joining for.' },
            })
          }
        />
        {show.kind === 'words' && (
          <label className="flex items-center gap-2">
            <input
              type="number"
              aria-label="How many words"
              min={1}
              max={400}
              value={show.count}
              onChange={(event) => {
                const count = Math.round(Number(event.target.value));
                if (count >= 1 && count <= 400) onChange({ ...turnAway, show: { kind: 'words', count } });
              }}
              className="w-20 rounded-[3px] border border-iron bg-raised px-2 py-1"
            />
            <span className="note">words, never of a part that has a gate or a region of its own</span>
          </label>
        )}
        {show.kind === 'text' && (
          <Words
            label="Teaser text"
            text={show.text}
            onChange={(text) => onChange({ ...turnAway, show: { kind: 'text', text } })}
          />
        )}
      </Line>
      <Line name="Picture">
        <Pick
          label="Picture of the teaser"
          value={preview ? 'coarse' : 'none'}
          options={[
            { value: 'none', label: 'not shown' },
            { value: 'coarse', label: 'blurred, made on the server' },
          ]}
          onPick={(choice) => onChange({ ...turnAway, preview: choice === 'coarse' })}
        />
      </Line>
    </>
  );
}

function ReasonEditor({
  reason,
  onChange,
}: {
  readonly reason: Reason;
  readonly onChange: (reason: Reason) => void;
}) {
  return (
    <Line name="Reason">
      <Pick
        label="Reason"
        value={reason.kind}
        options={[
          { value: 'written', label: 'written from the condition' },
          { value: 'own', label: 'in my own words' },
          { value: 'kept back', label: 'kept back' },
        ]}
        onPick={(kind) => onChange(kind === 'own' ? { kind, text: 'This is for members.' } : { kind })}
      />
      {reason.kind === 'own' && (
        <Words
          label="Reason in your own words"
          text={reason.text}
          onChange={(text) => onChange({ kind: 'own', text })}
        />
      )}
    </Line>
  );
}

const PLAIN_STEPS = ['none', 'sign in', 'sign up', 'passphrase'] as const;
type PlainStep = (typeof PLAIN_STEPS)[number];

function keyOfStep(next: NextStep): string {
  if (next.kind === 'item') return next.item;
  if (next.kind === 'follow') return `group ${next.group}`;
  return next.kind === 'buy' ? `buy ${next.product}` : next.kind;
}

function NextEditor({
  next,
  onChange,
}: {
  readonly next: NextStep;
  readonly onChange: (next: NextStep) => void;
}) {
  const { vocabulary } = useDesk();
  const open = vocabulary.groups.filter((group) => group.open);
  const pick = (value: string): NextStep => {
    if (PLAIN_STEPS.includes(value as PlainStep)) return { kind: value as PlainStep };
    if (value === 'outside') return { kind: 'outside', url: 'https://place.example/', label: 'Read more' };
    const product = vocabulary.products.find(({ id }) => `buy ${id}` === value);
    if (product) return { kind: 'buy', product: product.id };
    const group = open.find(({ id }) => `group ${id}` === value);
    return group ? { kind: 'follow', group: group.id } : { kind: 'item', item: value as ItemId };
  };
  return (
    <Line name="Next step">
      <ItemPick
        label="Next step"
        value={keyOfStep(next)}
        others={[
          { value: 'none', label: 'none' },
          { value: 'sign in', label: 'sign in' },
          { value: 'sign up', label: 'sign up' },
          { value: 'passphrase', label: 'type a passphrase' },
          ...open.map(({ id, name }: { id: GroupId; name: string }) => ({
            value: `group ${id}`,
            label: `follow ${name}`,
          })),
          ...vocabulary.products.map(({ id, name }) => ({ value: `buy ${id}`, label: `buy ${name}` })),
          { value: 'outside', label: 'an address elsewhere …' },
        ]}
        onPick={(value) => onChange(pick(value))}
      />
      {next.kind === 'outside' && (
        <>
          <OneLine
            label="Address elsewhere"
            value={next.url}
            onChange={(url) => onChange({ ...next, url })}
          />
          <OneLine
            label="What stands on the button"
            value={next.label}
            onChange={(label) => onChange({ ...next, label })}
          />
        </>
      )}
    </Line>
  );
}

function RedirectEditor({
  turnAway,
  onChange,
}: EditorProps & { readonly turnAway: Extract<TurnAway, { kind: 'redirect' }> }) {
  const { to } = turnAway;
  return (
    <Line name="To">
      <ItemPick
        label="Where to"
        value={to.kind === 'item' ? to.item : to.kind}
        others={[
          { value: 'sign in', label: 'sign in, and back' },
          { value: 'passphrase', label: 'type a passphrase, and back' },
          { value: 'outside', label: 'an address elsewhere …' },
        ]}
        onPick={(value) =>
          onChange({
            kind: 'redirect',
            to:
              value === 'sign in' || value === 'passphrase'
                ? { kind: value }
                : value === 'outside'
                  ? { kind: 'outside', url: 'https://place.example/' }
                  : { kind: 'item', item: value as ItemId },
          })
        }
      />
      {to.kind === 'outside' && (
        <OneLine
          label="Address elsewhere"
          value={to.url}
          onChange={(url) => onChange({ kind: 'redirect', to: { kind: 'outside', url } })}
        />
      )}
    </Line>
  );
}

interface ItemPickProps {
  readonly label: string;
  readonly value: string;
  readonly others: readonly { readonly value: string; readonly label: string }[];
  readonly onPick: (value: string) => void;
}

/** Everything that can be led to. */
function ItemPick({ label, value, others, onPick }: ItemPickProps) {
  const { outline } = useDesk();
  const items = [...outline.items.values()].flatMap((item) => {
    const path = pathOf(item);
    return path === null || item.kind === 'file'
      ? []
      : [{ value: item.id as string, label: `${item.title}  ${path}` }];
  });
  return <Pick label={label} value={value} options={[...others, ...items]} onPick={onPick} />;
}

const Line = ({ name, children }: { readonly name: string; readonly children: React.ReactNode }) => (
  <div className="grid grid-cols-[4.5rem_minmax(0,1fr)] items-start gap-2">
    <span className="pt-1 text-quiet">{name}</span>
    <div className="grid grid-cols-[minmax(0,1fr)] justify-items-start gap-1.5">{children}</div>
  </div>
);

interface OneLineProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

const OneLine = ({ label, value, onChange }: OneLineProps) => (
  <input
    aria-label={label}
    value={value}
    maxLength={2000}
    onChange={(event) => onChange(event.target.value)}
    className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1"
  />
);
