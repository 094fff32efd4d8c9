'use client';
/** The site as stand-ins see it: one walk in a frame, or two side by side that go and scroll together. */
import { ArrowLeft } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { type FormEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { keyOfStandIn, nameOf } from '@/core';
import type { DeskData, WalkReport } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { everyRow } from '../board-filter';
import { type Answer, ask } from '../service';
import { referenceOf } from '../stand-in-reference';
import { addressOfView } from '../view';
import { type Comparison, compared, mark, scrollAlong } from './compare';
import { SceneEditor } from './scene-editor';
import { baseOf } from './walk-frame';
import { type PaneWalk, WalkPane } from './walk-pane';
import { WithheldList } from './withheld-list';

interface WalkScreenProps {
  readonly data: DeskData;
  /** One, or two side by side. */
  readonly walks: readonly PaneWalk[];
  /** The address to begin at. */
  readonly at: string;
}

const NOBODY = ' ';

export function WalkScreen({ data, walks, at }: WalkScreenProps) {
  const router = useRouter();
  const [place, setPlace] = useState(at);
  const [typed, setTyped] = useState(at);
  const [problem, setProblem] = useState<string | null>(null);
  const [reports, setReports] = useState<Readonly<Record<string, Answer<WalkReport>>>>({});
  const [pages, setPages] = useState<Readonly<Record<string, Window | null>>>({});
  const [first, second] = walks;

  // From here on the walk answers; tests wait for it.
  useEffect(() => void performance.mark('desk answers'), []);

  const addressOf = useCallback((tokens: readonly string[], where: string) => {
    const query = new URLSearchParams({ at: where });
    if (tokens[1]) query.set('beside', tokens[1]);
    return `/desk/walk/${tokens[0]}?${query}`;
  }, []);
  const tokens = useMemo(() => walks.map(({ token }) => token), [walks]);

  const go = useCallback(
    (address: string) => {
      setPlace(address);
      setTyped(address);
      setReports({});
      window.history.pushState(null, '', addressOf(tokens, address));
    },
    [addressOf, tokens],
  );
  useEffect(() => {
    const back = () => {
      const where = new URLSearchParams(window.location.search).get('at') ?? '/';
      setPlace(where);
      setTyped(where);
      setReports({});
    };
    window.addEventListener('popstate', back);
    return () => window.removeEventListener('popstate', back);
  }, []);

  // Other visitors, another policy or another scene are walks of their own.
  const restart = useCallback(
    async (next: readonly Omit<PaneWalk, 'token'>[]): Promise<string | null> => {
      const started: string[] = [];
      for (const { standIn, side, scene } of next) {
        const answer = await ask<{ token: string }>('POST', 'walks', {
          standIn: referenceOf(standIn),
          side,
          scene,
        });
        if (!answer.ok) {
          setProblem(answer.title);
          return answer.title;
        }
        started.push(answer.value.token);
      }
      setProblem(null);
      setReports({});
      setPages({});
      router.replace(addressOf(started, place));
      return null;
    },
    [router, addressOf, place],
  );

  useEffect(() => {
    let dropped = false;
    for (const token of tokens) {
      const path = `walks/${token}?at=${encodeURIComponent(place)}`;
      ask<WalkReport>('GET', path).then((answer) => {
        if (!dropped) setReports((now) => ({ ...now, [token]: answer }));
      });
    }
    return () => {
      dropped = true;
    };
  }, [tokens, place]);

  const comparison = useComparison(walks, pages);
  const onPage = useCallback(
    (token: string) => (page: Window | null) => setPages((now) => ({ ...now, [token]: page })),
    [],
  );
  const onPageOf = useMemo(
    () => Object.fromEntries(tokens.map((token) => [token, onPage(token)])),
    [tokens, onPage],
  );

  if (!first) return null;
  const report = reports[first.token];
  const shown = report?.ok ? report.value.page : null;
  // Back on the board, one wants to know why of what one has just seen.
  const board = addressOfView({
    screen: { kind: 'board' },
    side: first.side,
    filter: everyRow,
    bench: shown
      ? { kind: 'why', item: shown.item, standIn: keyOfStandIn(first.standIn) }
      : { kind: 'gates' },
  });
  const free = data.standIns.filter((one) => keyOfStandIn(one) !== keyOfStandIn(first.standIn));
  const visit = (event: FormEvent) => {
    event.preventDefault();
    go(typed.startsWith('/') ? typed : `/${typed}`);
  };

  return (
    <div className="flex h-dvh min-w-[1120px] flex-col">
      <header className="flex h-12 items-center gap-3 border-iron border-b px-4">
        <a href={board} className="flex items-center gap-1.5 text-quiet hover:text-copper">
          <ArrowLeft size={16} aria-hidden="true" /> Board
        </a>
        <h1 className="text-base">Walk</h1>
        <form onSubmit={visit} className="flex flex-1 items-center">
          <Input
            label="Address on the site, with parameters"
            value={typed}
            maxLength={2000}
            spellCheck={false}
            onChange={(event) => setTyped(event.target.value)}
            className="w-full max-w-md"
          />
        </form>
        <SceneEditor
          scene={first.scene}
          now={data.request}
          onSet={(scene) => restart(walks.map((walk) => ({ ...walk, scene })))}
        />
        {!second && (
          <Pick
            label="Side by side with"
            value={NOBODY}
            options={[
              { value: NOBODY, label: 'Side by side with …' },
              ...free.map((one) => ({ value: keyOfStandIn(one), label: nameOf(one) })),
            ]}
            onPick={(key) => {
              const next = free.find((one) => keyOfStandIn(one) === key);
              if (next) void restart([first, { ...first, standIn: next }]);
            }}
          />
        )}
      </header>
      {problem && (
        <p role="alert" className="bg-wash px-4 py-2 text-alarm">
          {problem}
        </p>
      )}
      <main className="flex min-h-0 flex-1">
        {walks.map((walk, index) => (
          <WalkPane
            key={walk.token}
            data={data}
            walk={walk}
            at={place}
            report={reports[walk.token] ?? null}
            apart={comparison ? comparison.apart[index === 0 ? 0 : 1].length : null}
            onWalk={(change) =>
              void restart(walks.map((one) => (one === walk ? { ...one, ...change } : one)))
            }
            onGo={go}
            onPage={onPageOf[walk.token] ?? (() => undefined)}
            onClose={walks.length > 1 ? () => void restart(walks.filter((one) => one !== walk)) : null}
          />
        ))}
        <aside
          aria-label="What was withheld"
          className="w-80 shrink-0 overflow-y-auto border-iron border-l bg-raised px-5 py-4"
        >
          <WithheldList
            walks={walks}
            reports={walks.map(({ token }) => {
              const answer = reports[token];
              return answer?.ok ? answer.value : null;
            })}
          />
          {Object.values(reports).some((answer) => !answer.ok && answer.status === 404) && (
            <Button weight="main" onClick={() => void restart(walks)} className="mt-4">
              Walk on
            </Button>
          )}
        </aside>
      </main>
    </div>
  );
}

/** Compares two pages once both are there: marks what differs, and lets them scroll together. */
function useComparison(
  walks: readonly PaneWalk[],
  pages: Readonly<Record<string, Window | null>>,
): Comparison | null {
  const [comparison, setComparison] = useState<Comparison | null>(null);
  const scrolling = useRef<Window | null>(null);
  const [a, b] = walks.map(({ token }) => pages[token] ?? null);
  const bases = walks.map(({ token }) => baseOf(token)).join(' ');
  useEffect(() => {
    const [baseA = '', baseB = ''] = bases.split(' ');
    if (!a || !b || !a.document.body || !b.document.body) {
      setComparison(null);
      return;
    }
    const made = compared({ page: a.document, base: baseA }, { page: b.document, base: baseB });
    mark(a.document, made.apart[0]);
    mark(b.document, made.apart[1]);
    setComparison(made);
    // The one that is scrolled along answers with a scroll of its own, which leads no further.
    const along = (from: Window, to: Window) => () => {
      if (scrolling.current === from) {
        scrolling.current = null;
        return;
      }
      scrolling.current = to;
      scrollAlong(from, to, made);
    };
    const [fromA, fromB] = [along(a, b), along(b, a)];
    a.addEventListener('scroll', fromA);
    b.addEventListener('scroll', fromB);
    return () => {
      a.removeEventListener('scroll', fromA);
      b.removeEventListener('scroll', fromB);
    };
  }, [a, b, bases]);
  return comparison;
}
