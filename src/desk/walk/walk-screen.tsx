'use client';
/** The site as a stand-in sees it, in a frame, with a strip that says who and through which policy. */
import { ArrowLeft } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import {
  type Addressed,
  compile,
  decide,
  describeBecause,
  describeDecision,
  describeFacts,
  explain,
  factsOf,
  keyOfStandIn,
  nameOf,
  normaliseAddress,
  type Outline,
  outcomeOf,
  outlineOf,
  type StandIn,
  vocabularyOf,
} from '@/core';
import type { DeskData } from '@/services';
import { Choice, Pick } from '@/ui';
import { OutcomeMark } from '../marks';
import { addressOfPlace } from '../place';
import { ask } from '../service';
import { referenceOf } from '../stand-in-reference';

interface WalkScreenProps {
  readonly data: DeskData;
  readonly token: string;
  readonly standIn: StandIn;
  readonly side: 'draft' | 'live';
  /** The address to begin at. */
  readonly at: string;
}

export function WalkScreen({ data, token, standIn, side, at }: WalkScreenProps) {
  const router = useRouter();
  const [place, setPlace] = useState(at);
  const [problem, setProblem] = useState<string | null>(null);
  const base = `/walk/${token}`;
  const others = data.standIns.some((one) => keyOfStandIn(one) === keyOfStandIn(standIn))
    ? data.standIns
    : [standIn, ...data.standIns];

  const outline = useMemo(() => {
    const made = outlineOf(data.items);
    return 'problems' in made ? null : made;
  }, [data.items]);
  const item = outline ? pageAt(outline, place.split('?')[0] ?? '') : undefined;
  // Back on the board, one wants to know why of what one has just seen.
  const board = addressOfPlace({
    screen: { kind: 'board' },
    side,
    bench: item ? { kind: 'why', item: item.id, standIn: keyOfStandIn(standIn) } : { kind: 'gates' },
  });

  const go = async (next: StandIn, through: 'draft' | 'live') => {
    const answer = await ask<{ token: string }>('POST', 'walks', {
      standIn: referenceOf(next),
      side: through,
    });
    if (answer.ok) router.replace(`/desk/walk/${answer.value.token}?at=${encodeURIComponent(place)}`);
    else setProblem(answer.title);
  };

  return (
    <div className="flex h-dvh min-w-[1120px] flex-col">
      <header className="flex h-12 items-center gap-4 border-iron border-b px-4">
        <a href={board} className="flex items-center gap-1.5 text-quiet hover:text-copper">
          <ArrowLeft size={16} aria-hidden="true" /> Board
        </a>
        <h1 className="text-base">Walking as</h1>
        <Pick
          label="Who walks"
          value={keyOfStandIn(standIn)}
          options={others.map((one) => ({ value: keyOfStandIn(one), label: nameOf(one) }))}
          onPick={(key) => {
            const next = others.find((one) => keyOfStandIn(one) === key);
            if (next) void go(next, side);
          }}
          className="font-semibold"
        />
        <span className="note">
          {describeFacts(standIn, factsOf(standIn), vocabularyOf(data.names, data[side].policy))}
        </span>
        <span className="ml-auto">
          <Choice
            label="Policy walked through"
            value={side}
            options={[
              { value: 'live', label: 'Live' },
              { value: 'draft', label: 'Draft' },
            ]}
            onChoose={(through) => void go(standIn, through)}
          />
        </span>
      </header>
      {problem && (
        <p role="alert" className="bg-wash px-4 py-2 text-alarm">
          {problem}
        </p>
      )}
      <iframe
        key={token}
        title={`The site as ${nameOf(standIn)} sees it`}
        src={base + at}
        // Nothing that runs and nothing that sends: a walk only looks.
        sandbox="allow-same-origin"
        className="min-h-0 flex-1 bg-white"
        onLoad={(event) => {
          const { pathname = '', search = '' } = event.currentTarget.contentWindow?.location ?? {};
          if (pathname.startsWith(base)) setPlace((pathname.slice(base.length) || '/') + search);
        }}
      />
      {outline && (
        <Strip data={data} outline={outline} standIn={standIn} side={side} place={place} item={item} />
      )}
    </div>
  );
}

interface StripProps {
  readonly data: DeskData;
  readonly outline: Outline;
  readonly standIn: StandIn;
  readonly side: 'draft' | 'live';
  readonly place: string;
  readonly item: Addressed | undefined;
}

/** The pages on the way to others. */
const THRESHOLDS = ['/sign-in', '/passphrase'];

/** What the page in the frame is, said as a decision. */
function Strip({ data, outline, standIn, side, place, item }: StripProps) {
  const compiled = useMemo(() => compile(data[side].policy, outline, data.names), [data, side, outline]);
  const facts = factsOf(standIn);
  const url = new URL(place, 'http://this.site.example');
  // Whoever was sent to sign in stands at the sign-in page; the question is still about the page they asked for.
  const asked = THRESHOLDS.includes(url.pathname)
    ? pageAt(outline, url.searchParams.get('next') ?? '')
    : item;
  const decision = asked && decide(compiled, asked.id, facts, data.request);
  const told = asked && decision && (item || decision.kind !== 'open');
  const why =
    told && describeBecause(explain(compiled, asked.id, facts, data.request), asked, compiled.vocabulary);
  return (
    <p
      data-testid="walk-line"
      className="flex min-h-11 items-center gap-2.5 border-iron border-t bg-sunk px-4 py-1.5 text-[0.8125rem]"
    >
      <code className="rounded-[3px] border border-thin bg-raised px-1.5 py-0.5 font-text">
        {url.pathname}
      </code>
      {told ? (
        <>
          <OutcomeMark outcome={outcomeOf(decision)} />
          {describeDecision(decision, nameOf(standIn), asked, outline)}
          {why && `: ${why}`}.
        </>
      ) : THRESHOLDS.includes(url.pathname) ? (
        `The ${url.pathname === '/sign-in' ? 'sign-in' : 'passphrase'} page: open to everyone, always.`
      ) : (
        'No page has this address.'
      )}
    </p>
  );
}

/** The page at a path as it stands in an address, if there is one. */
function pageAt(outline: Outline, path: string): Addressed | undefined {
  const address = normaliseAddress(path);
  return address === null ? undefined : outline.addressed.get(address);
}
