'use client';
/** Kinds of visitor: those whom the site treats alike at every item, in words, with who is of them now. */
import { clsx } from 'clsx';
import { useMemo, useState } from 'react';
import {
  type Condition,
  capital,
  counted,
  describeTestOfOne,
  describeWho,
  describeWitness,
  type ItemId,
  isOpenable,
  nameInContext,
  outcomeName,
  type StandIn,
  signedIn,
  type Test,
} from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { startOf } from '../screens';
import { CertainHead } from './certain-head';
import { type ShownKind, useKinds, useRepresentatives } from './use-kinds';

export function KindsScreen({ person }: { readonly person: string | null }) {
  const { setScreen, standIns, setStandIns } = useDesk();
  const { answer, kinds, count } = useKinds(person);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<string | null>(null);
  const words = useWords();
  const report = answer?.ok ? answer.value : null;
  const shown = kinds ?? report?.kinds.map((one): ShownKind => waiting(one)) ?? [];
  const toggle = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  const onBoard = () => {
    const made = shown.flatMap((kind): readonly StandIn[] => {
      if (!chosen.has(kind.key)) return [];
      const [first] = kind.peopled?.people.first ?? [];
      if (kind.witness === null) return first ? [{ kind: 'member', member: first }] : [];
      const name = words(kind).head.slice(0, 60);
      return [
        {
          kind: 'made up',
          madeUp: { id: crypto.randomUUID(), name, facts: { ...kind.witness.visitor, id: null } },
        },
      ];
    });
    setStandIns([...standIns, ...made]);
    setScreen(startOf('board'));
  };
  const peopled = report?.kinds.filter(({ people }) => people.count > 0).length ?? 0;
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-6 py-5">
      <CertainHead
        note={
          <>
            Whoever is of one kind gets the same at every item, now and in the draft.{' '}
            {report && (
              <>
                The {report.of} members are of {counted(peopled, 'kind')};{' '}
                {kinds === null
                  ? 'who they are is being worked out.'
                  : count === null
                    ? 'there could be more than 1,000.'
                    : `there can be ${count} in all.`}
              </>
            )}
          </>
        }
      >
        <Button weight="main" disabled={chosen.size === 0} onClick={onBoard}>
          {chosen.size === 0 ? 'Put on the board' : `Put ${counted(chosen.size, 'kind')} on the board`}
        </Button>
      </CertainHead>
      {answer && !answer.ok && (
        <p role="alert" className="mt-3 text-alarm">
          {answer.title}
        </p>
      )}
      {report?.cut && <p className="note mt-2">The 1,000 with the most members are listed.</p>}
      <ul className="mt-4 grid">
        {shown.map((kind) => (
          <KindRow
            key={kind.key}
            kind={kind}
            text={words(kind)}
            others={shown}
            chosen={chosen.has(kind.key)}
            open={open === kind.key}
            onChoose={() => toggle(kind.key)}
            onOpen={() => setOpen(open === kind.key ? null : kind.key)}
            words={words}
          />
        ))}
      </ul>
    </main>
  );
}

const waiting = (peopled: NonNullable<ShownKind['peopled']>): ShownKind => ({
  key: peopled.gets.join(),
  gets: peopled.gets,
  who: null,
  witness: null,
  peopled,
});

/** Who is of a kind, in words. */
interface Words {
  /** What they are, or like whom somebody is of it. */
  readonly head: string;
  /** What they are not, each by itself. */
  readonly not: readonly string[];
  /** All of it, where it can be said. */
  readonly whole: string | null;
}

// What is longer is read when one asks for it.
const LONGEST = 200;

/** The test that a part denies. That somebody is not signed in tells what they are. */
const deniedBy = (part: Condition): Test | null =>
  part.kind === 'not' && part.of.kind === 'test' && part.of.fact !== 'signed in' ? part.of : null;

function useWords(): (kind: ShownKind) => Words {
  const { compiled, request } = useDesk();
  const { vocabulary } = compiled.draft;
  return ({ who, witness, peopled }) => {
    const shown = witness?.visitor ?? peopled?.people.first[0]?.facts;
    const like = shown && describeWitness(shown, null, vocabulary, request.today);
    if (who === null) return { head: like ? `Such as ${like}` : 'Guests', not: [], whole: null };
    const whole = capital(describeWho(who, vocabulary));
    const parts = who.kind === 'all' ? who.of : [who];
    const denied = parts.flatMap((part) => deniedBy(part) ?? []);
    const rest = parts.filter((part) => deniedBy(part) === null);
    if (denied.length < 2 && whole.length > LONGEST && like)
      return { head: `Such as ${like}`, not: [], whole };
    if (denied.length < 2) return { head: whole, not: [], whole };
    const said = rest.length === 0 ? signedIn : { kind: 'all' as const, of: rest };
    return {
      head: capital(describeWho(said, vocabulary)),
      not: denied.map((test) => describeTestOfOne(test, vocabulary)),
      whole,
    };
  };
}

interface RowProps {
  readonly kind: ShownKind;
  readonly text: Words;
  readonly others: readonly ShownKind[];
  readonly chosen: boolean;
  readonly open: boolean;
  readonly onChoose: () => void;
  readonly onOpen: () => void;
  readonly words: (kind: ShownKind) => Words;
}

function KindRow({ kind, text, others, chosen, open, onChoose, onOpen, words }: RowProps) {
  const { outline } = useDesk();
  const representatives = useRepresentatives();
  const { peopled, gets } = kind;
  const isCounted = (id: ItemId) => {
    const item = outline.items.get(id);
    return item !== undefined && isOpenable(item);
  };
  const differing = representatives.flatMap(({ items }) => items.filter(isCounted)).length;
  const all = useMemo(() => [...outline.items.values()].filter(isOpenable).length, [outline]);
  const shut = representatives
    .filter((_, at) => gets[at] !== 'open')
    .flatMap(({ items }) => items.filter(isCounted)).length;
  const opens = differing - shut;
  return (
    <li className={clsx('border-thin border-b', peopled?.asked && 'bg-wash')}>
      <div className="grid grid-cols-[1.75rem_minmax(0,1fr)_17rem_9rem] items-baseline gap-3 px-2 py-2.5">
        <input
          type="checkbox"
          aria-label={`Choose: ${text.head}`}
          checked={chosen}
          onChange={onChoose}
          className="self-center"
        />
        <button
          type="button"
          aria-expanded={open}
          onClick={onOpen}
          className="min-w-0 text-left hover:text-copper"
        >
          {text.head}
          {text.not.length > 0 && (
            <span className={clsx('block text-[0.8125rem] text-quiet', !open && 'truncate')}>
              but nobody who {text.not.join(' · ')}
            </span>
          )}
        </button>
        <span>
          {peopled === null || peopled.people.count === 0 ? (
            <span className="text-quiet">{peopled?.guests ? 'not signed in' : 'nobody now'}</span>
          ) : (
            <>
              <strong className="tabular-nums">{peopled.people.count}</strong>{' '}
              <span className="text-[0.8125rem]">
                <CrowdNames crowd={peopled.people} most={2} />
              </span>
            </>
          )}
        </span>
        <span
          className="flex items-center gap-2"
          title={`Opens ${opens} of the ${differing} that not everybody opens`}
        >
          <span aria-hidden="true" className="h-1.5 flex-1 rounded-full bg-sunk">
            <span
              className="block h-full rounded-full bg-open"
              style={{ width: `${differing === 0 ? 100 : (100 * opens) / differing}%` }}
            />
          </span>
          <span className="text-quiet text-xs tabular-nums">
            {all - shut} of {all}
          </span>
        </span>
      </div>
      {open && text.whole !== null && text.whole !== text.head && <p className="px-10 pb-2">{text.whole}.</p>}
      {open && <Nearest kind={kind} others={others} words={words} />}
    </li>
  );
}

const FEW = 10;

/** What sets a kind apart from the one that gets most nearly the same. */
function Nearest({
  kind,
  others,
  words,
}: {
  readonly kind: ShownKind;
  readonly others: readonly ShownKind[];
  readonly words: (kind: ShownKind) => Words;
}) {
  const { outline } = useDesk();
  const representatives = useRepresentatives();
  const apart = (other: ShownKind) =>
    representatives.reduce(
      (sum, { items }, at) => sum + (kind.gets[at] === other.gets[at] ? 0 : items.length),
      0,
    );
  const [near] = others
    .filter((other) => other.key !== kind.key)
    .map((other) => ({ other, by: apart(other) }))
    .toSorted((a, b) => a.by - b.by);
  if (!near) return <p className="note px-10 pb-3">There is no other kind.</p>;
  const places = representatives.flatMap(({ items }, at) =>
    kind.gets[at] === near.other.gets[at] ? [] : items.map((item) => ({ item, at })),
  );
  return (
    <div className="px-10 pb-3">
      <p>
        <span className="text-quiet">Nearest to it:</span> {words(near.other).head}
      </p>
      <ul className="mt-1 grid gap-0.5">
        {places.slice(0, FEW).map(({ item: id, at }) => {
          const item = outline.items.get(id);
          return (
            <li key={id}>
              {item ? nameInContext(item, outline) : id}:{' '}
              <strong>{outcomeName(kind.gets[at] ?? 'missing')}</strong>
              <span className="text-quiet"> rather than {outcomeName(near.other.gets[at] ?? 'missing')}</span>
            </li>
          );
        })}
      </ul>
      {places.length > FEW && <p className="note">and {places.length - FEW} more</p>}
    </div>
  );
}
