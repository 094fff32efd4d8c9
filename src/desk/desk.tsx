'use client';
/** The desk: the board and the workbench beside it, over one draft. */
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Toaster, toast } from 'sonner';
import {
  compile,
  type Gate,
  type GateId,
  type Item,
  keyOfStandIn,
  nameOf,
  outlineOf,
  redirectToSignIn,
  type StandIn,
  signedIn,
} from '@/core';
import type { DeskData } from '@/services';
import { Board } from './board';
import { Composer } from './composer';
import { Conflict } from './conflict';
import { type Bench, DeskContext, type DeskState, type Side } from './context';
import { DeskPalette } from './desk-palette';
import { GatesPanel } from './gates-panel';
import { LivePanel } from './live';
import { addressOfPlace, type Place } from './place';
import { ask } from './service';
import { referenceOf } from './stand-in-reference';
import { TopLine } from './top-line';
import { useDraft } from './use-draft';
import { WhyPanel } from './why';

interface DeskProps {
  readonly data: DeskData;
  /** Where to begin. */
  readonly place: Place;
}

export function Desk({ data, place }: DeskProps) {
  const state = useDeskState(data, place);
  const [palette, setPalette] = useState(false);
  const { draft } = state;

  // From here on the desk answers; `npm run bench` reads how long that took.
  useEffect(() => void performance.mark('desk answers'), []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.getModifierState('Meta'))) return;
      if (event.key === 'k') {
        event.preventDefault();
        setPalette((open) => !open);
      }
      const typing = /^(input|textarea)$/i.test((event.target as HTMLElement).tagName);
      if (event.key === 'z' && !typing) {
        event.preventDefault();
        draft.undo();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [draft.undo]);

  return (
    <DeskContext.Provider value={state}>
      <div className="flex h-dvh min-w-[1120px] flex-col">
        <noscript>
          <p className="bg-wash px-4 py-2">The desk needs scripts. The site itself does not.</p>
        </noscript>
        <TopLine onPalette={() => setPalette(true)} />
        <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_29rem]">
          <Board />
          <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
            <Workbench bench={state.bench} />
          </aside>
        </main>
      </div>
      <Conflict />
      <DeskPalette open={palette} onOpenChange={setPalette} />
      <Toaster
        position="bottom-left"
        toastOptions={{
          style: { background: 'var(--ink)', color: 'var(--paper)', border: '0', borderRadius: '4px' },
        }}
      />
    </DeskContext.Provider>
  );
}

function Workbench({ bench }: { readonly bench: Bench }) {
  switch (bench.kind) {
    case 'gates':
      return <GatesPanel />;
    case 'why':
      return <WhyPanel item={bench.item} standIn={bench.standIn} />;
    case 'gate':
      return <Composer key={bench.gate} gate={bench.gate} />;
    case 'put live':
      return <LivePanel />;
    default:
      return bench satisfies never;
  }
}

function useDeskState(data: DeskData, place: Place): DeskState {
  const router = useRouter();
  const { vocabulary } = data;
  const draft = useDraft(data);
  const outline = useMemo(() => {
    const made = outlineOf(data.items);
    if ('problems' in made) throw new Error('The site’s outline can’t be read.');
    return made;
  }, [data.items]);
  const compiledDraft = useMemo(
    () => compile(draft.policy, outline, vocabulary),
    [draft.policy, outline, vocabulary],
  );
  const compiledLive = useMemo(
    () => compile(draft.live.policy, outline, vocabulary),
    [draft.live.policy, outline, vocabulary],
  );
  const compiled = useMemo(
    () => ({ draft: compiledDraft, live: compiledLive }),
    [compiledDraft, compiledLive],
  );
  const [standIns, setShown] = useState(data.standIns);
  const [side, setSide] = useState<Side>(place.side);
  const [bench, show] = useState<Bench>(place.bench);

  const setStandIns = useCallback((next: readonly StandIn[]) => {
    setShown(next);
    ask('PUT', 'board', next.map(referenceOf)).then((answer) => {
      if (!answer.ok) toast.error(`The board’s visitors were not kept: ${answer.title}`);
    });
  }, []);

  // A gate is changed in the draft, so the draft is what has to be in view.
  const setBench = useCallback((next: Bench) => {
    if (next.kind === 'gate') setSide((now) => (now === 'live' ? 'draft' : now));
    show(next);
  }, []);

  useEffect(() => {
    const address = addressOfPlace({ side, bench });
    if (address !== window.location.pathname + window.location.search)
      window.history.replaceState(null, '', address);
  }, [side, bench]);

  const { policy, edit, undo } = draft;
  const changeGate = useCallback(
    (gate: Gate) => edit({ gates: policy.gates.map((one) => (one.id === gate.id ? gate : one)) }),
    [policy, edit],
  );
  const addGate = useCallback(
    (item: Item | null) => {
      const gate = newGate(item, outline.children);
      edit({ gates: [...policy.gates, gate] });
      setBench({ kind: 'gate', gate: gate.id });
    },
    [policy, edit, setBench, outline],
  );
  const removeGate = useCallback(
    (id: GateId) => {
      edit({ gates: policy.gates.filter((gate) => gate.id !== id) });
      show({ kind: 'gates' });
      toast('The gate is out of the draft.', { action: { label: 'Undo', onClick: undo } });
    },
    [policy, edit, undo],
  );
  const walk = useCallback(
    async (standIn: StandIn, item: Item | null) => {
      const request = { standIn: referenceOf(standIn), side: side === 'live' ? 'live' : 'draft' };
      const answer = await ask<{ token: string }>('POST', 'walks', request);
      if (!answer.ok) {
        toast.error(`The walk as ${nameOf(standIn)} can’t begin: ${answer.title}`);
        return;
      }
      const page = pageOf(item, outline.items);
      router.push(`/desk/walk/${answer.value.token}?at=${encodeURIComponent(page)}`);
    },
    [side, outline, router],
  );

  // A gate or a visitor that is gone (undone, taken away) can't stay on the workbench.
  const gone =
    (bench.kind === 'gate' && !policy.gates.some((gate) => gate.id === bench.gate)) ||
    (bench.kind === 'why' && !standIns.some((one) => keyOfStandIn(one) === bench.standIn));
  return {
    data,
    outline,
    vocabulary,
    draft,
    compiled,
    standIns,
    setStandIns,
    side,
    setSide,
    bench: gone ? { kind: 'gates' } : bench,
    setBench,
    changeGate,
    addGate,
    removeGate,
    walk,
  };
}

/** A new gate that is whole from the start: for members, and guests are sent to sign in. */
function newGate(item: Item | null, children: ReadonlyMap<Item['id'], readonly Item[]>): Gate {
  const branch = item !== null && (children.get(item.id) ?? []).length > 0;
  return {
    id: crypto.randomUUID() as GateId,
    what: { targets: item ? [{ kind: branch ? 'branch' : 'item', item: item.id }] : [], except: [] },
    who: signedIn,
    otherwise: {
      cases: [],
      last: item?.kind === 'link' || item?.kind === 'menu' ? { kind: 'leave out' } : redirectToSignIn,
    },
    stance: 'also',
  };
}

/** The address of an item's page: its own, or for a link the one it leads to. */
function pageOf(item: Item | null, items: ReadonlyMap<Item['id'], Item>): string {
  const page = item?.kind === 'link' && item.target.kind === 'item' ? items.get(item.target.item) : item;
  return page?.kind === 'page' ? page.address : '/';
}
