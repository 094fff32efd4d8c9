'use client';
/** The desk: the board and the workbench beside it, over one draft. */
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { Toaster, toast } from 'sonner';
import {
  type Audience,
  type AudienceId,
  compile,
  type Gate,
  type GateId,
  type Item,
  isShared,
  keyOfStandIn,
  nameOf,
  newGate,
  outlineOf,
  pathOf,
  placeOf,
  type StandIn,
  same,
  type VisitorFacts,
} from '@/core';
import type { DeskData } from '@/services';
import { Conflict } from './conflict';
import { DeskContext, type DeskState } from './context';
import { DeskPalette } from './desk-palette';
import { useAnalysis } from './findings/use-analysis';
import { readTheRest } from './later';
import { TrivetSign } from './marks';
import { usePanelWidth } from './panel-edge';
import { ScreenView } from './screen-views';
import { screenNamed } from './screens';
import { ask, askToStay } from './service';
import { referenceOf } from './stand-in-reference';
import { TopLine } from './top-line';
import { useDraft } from './use-draft';
import { useView } from './use-view';
import type { View } from './view';

interface DeskProps {
  readonly data: DeskData;
  /** Where to begin. */
  readonly view: View;
  readonly panelWidth: number;
}

/**
 * The desk is drawn in the browser alone: drawing it on the server as well made it answer twice as late. So nothing is there
 * to be clicked before it answers.
 */
export function Desk(props: DeskProps) {
  const inBrowser = useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );
  return inBrowser ? <DeskInBrowser {...props} /> : <Beginning siteTitle={props.data.siteTitle} />;
}

const Beginning = ({ siteTitle }: { readonly siteTitle: string }) => (
  <div className="h-dvh cursor-progress">
    <div className="flex h-12 items-center gap-2 border-iron border-b px-4">
      <TrivetSign />
      <span className="max-w-44 truncate font-head font-semibold text-base">{siteTitle}</span>
    </div>
    <noscript>
      <p className="bg-wash px-4 py-2">The desk needs scripts. The site itself does not.</p>
    </noscript>
  </div>
);

function DeskInBrowser({ data, view, panelWidth: begin }: DeskProps) {
  const [panelWidth, setPanelWidth] = usePanelWidth(begin);
  const state = { ...useDeskState(data, view), panelWidth, setPanelWidth };
  const [palette, setPalette] = useState(false);
  const { draft } = state;

  // From here on the desk answers; `npm run bench` reads how long that took.
  const onShown = useCallback(() => {
    performance.mark('desk answers');
    void readTheRest();
  }, []);

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
      <div className="flex h-dvh min-w-[1120px] flex-col print:h-auto print:min-w-0">
        {!screenNamed(state.screen.kind).alone && <TopLine onPalette={() => setPalette(true)} />}
        <ScreenView screen={state.screen} onShown={onShown} />
      </div>
      <Conflict />
      {palette && <DeskPalette onOpenChange={setPalette} />}
      <Toaster
        position="bottom-left"
        // Above whatever stands at the foot (desk.css); Alt T is the composer’s.
        offset={{ bottom: 'var(--foot)', left: 16 }}
        duration={8000}
        hotkey={['altKey', 'KeyN']}
        style={{ fontFamily: 'inherit' }}
        toastOptions={{
          style: {
            background: 'var(--ink)',
            color: 'var(--paper)',
            border: '0',
            borderRadius: '4px',
            fontFamily: 'inherit',
          },
          actionButtonStyle: { background: 'var(--paper)', color: 'var(--ink)' },
          cancelButtonStyle: { background: 'transparent', color: 'var(--paper)' },
        }}
      />
    </DeskContext.Provider>
  );
}

function useDeskState(initial: DeskData, begin: View): Omit<DeskState, 'panelWidth' | 'setPanelWidth'> {
  const router = useRouter();
  const [data, setData] = useState(initial);
  const { names, request } = data;
  const draft = useDraft(data);
  const outline = useMemo(() => {
    const made = outlineOf(data.items);
    if ('problems' in made) throw new Error('The site’s outline can’t be read.');
    return made;
  }, [data.items]);
  const compiledLive = useMemo(
    () => compile(draft.live.policy, outline, names),
    [draft.live.policy, outline, names],
  );
  const compiledDraft = useMemo(
    () => (same(draft.policy, compiledLive.policy) ? compiledLive : compile(draft.policy, outline, names)),
    [draft.policy, compiledLive, outline, names],
  );
  const compiled = useMemo(
    () => ({ draft: compiledDraft, live: compiledLive }),
    [compiledDraft, compiledLive],
  );
  // What is live is held to what is expected in the draft, so that one knows which of both breaks it.
  const { expectations } = compiledDraft.policy;
  const heldTo = useMemo(() => ({ ...compiledLive.policy, expectations }), [compiledLive, expectations]);
  const ofLive = useAnalysis(heldTo, data);
  const ofDraft = useAnalysis(compiledDraft === compiledLive ? null : compiledDraft.policy, data);
  const analysis = useMemo(() => {
    const shown = compiledDraft === compiledLive ? ofLive : ofDraft;
    return { live: ofLive.analysis, draft: shown.analysis, work: shown };
  }, [ofLive, ofDraft, compiledDraft, compiledLive]);
  const [standIns, setShown] = useState(data.standIns);
  const view = useView(begin);
  const { side, bench, setBench, setScreen } = view;

  const setStandIns = useCallback((next: readonly StandIn[]) => {
    setShown(next);
    askToStay('PUT', 'board', next.map(referenceOf)).then((answer) => {
      if (!answer.ok) toast.error(`The board’s visitors were not kept: ${answer.title}`);
    });
  }, []);

  const reloadSite = useCallback(async () => {
    const answer = await ask<DeskData>('GET', 'site');
    if (!answer.ok) return;
    setData(answer.value);
    setShown(answer.value.standIns);
  }, []);

  const { policy, edit, undo } = draft;
  const { vocabulary } = compiledDraft;
  const changeGate = useCallback(
    (gate: Gate) => edit({ ...policy, gates: policy.gates.map((one) => (one.id === gate.id ? gate : one)) }),
    [policy, edit],
  );
  const addGate = useCallback(
    (...items: readonly Item[]) => {
      // A gate is put on a shared section, wherever it stands.
      const meant = items.map((item) => outline.items.get(placeOf(item.id)?.section ?? item.id) ?? item);
      const gate = newGate(crypto.randomUUID() as GateId, meant, outline, vocabulary);
      edit({ ...policy, gates: [...policy.gates, gate] });
      setBench({ kind: 'gate', gate: gate.id });
    },
    [policy, edit, setBench, outline, vocabulary],
  );
  const removeGate = useCallback(
    (id: GateId) => {
      edit({ ...policy, gates: policy.gates.filter((gate) => gate.id !== id) });
      setBench({ kind: 'gates' });
      toast('The gate is out of the draft.', { action: { label: 'Undo', onClick: undo } });
    },
    [policy, edit, undo, setBench],
  );
  const changeAudience = useCallback(
    (audience: Audience) => {
      const there = policy.audiences.some(({ id }) => id === audience.id);
      edit({
        ...policy,
        audiences: there
          ? policy.audiences.map((one) => (one.id === audience.id ? audience : one))
          : [...policy.audiences, audience],
      });
    },
    [policy, edit],
  );
  const removeAudience = useCallback(
    (id: AudienceId) => {
      edit({ ...policy, audiences: policy.audiences.filter((one) => one.id !== id) });
      setScreen({ kind: 'audiences', audience: null });
      toast('The audience is out of the draft.', { action: { label: 'Undo', onClick: undo } });
    },
    [policy, edit, undo, setScreen],
  );
  const makeUp = useCallback(
    (name: string, facts: VisitorFacts) => {
      // Nobody's identity goes along: whoever is made up is nobody on the site.
      const made: StandIn = {
        kind: 'made up',
        madeUp: { id: crypto.randomUUID(), name, facts: { ...facts, id: null } },
      };
      setStandIns([...standIns, made]);
      setBench({ kind: 'stand-in', standIn: keyOfStandIn(made) });
    },
    [standIns, setStandIns, setBench],
  );
  const walk = useCallback(
    async (standIn: StandIn, item: Item | null) => {
      const request = { standIn: referenceOf(standIn), side: side === 'live' ? 'live' : 'draft' };
      const answer = await ask<{ token: string }>('POST', 'walks', request);
      if (!answer.ok) {
        toast.error(`The walk as ${nameOf(standIn)} can’t begin: ${answer.title}`);
        return;
      }
      // A shared section is looked at on what it stands on.
      const [first] = item !== null && isShared(item) ? compiledDraft.places.hosts(item) : [];
      const host = (item && placeOf(item.id)?.host) ?? first;
      const page = pageOf((host && outline.items.get(host)) ?? item, outline.items);
      router.push(`/desk/walk/${answer.value.token}?at=${encodeURIComponent(page)}`);
    },
    [side, outline, router, compiledDraft],
  );

  // People and names that others changed appear when one comes back to the tab.
  useEffect(() => {
    const look = () => void reloadSite();
    window.addEventListener('focus', look);
    return () => window.removeEventListener('focus', look);
  }, [reloadSite]);

  // A gate or a visitor that is gone (undone, taken away) can't stay on the workbench.
  const gone =
    (bench.kind === 'gate' && !policy.gates.some((gate) => gate.id === bench.gate)) ||
    ((bench.kind === 'why' || bench.kind === 'stand-in') &&
      !standIns.some((one) => keyOfStandIn(one) === bench.standIn));
  return {
    data,
    outline,
    vocabulary,
    request,
    draft,
    compiled,
    analysis,
    standIns,
    setStandIns,
    ...view,
    bench: gone ? { kind: 'gates' } : bench,
    changeGate,
    addGate,
    removeGate,
    changeAudience,
    removeAudience,
    makeUp,
    walk,
    reloadSite,
  };
}

/** The address of an item's page: its own, or for a link the one it leads to. */
function pageOf(item: Item | null, items: ReadonlyMap<Item['id'], Item>): string {
  const page = item?.kind === 'link' && item.target.kind === 'item' ? items.get(item.target.item) : item;
  const path = pathOf(page ?? undefined);
  if (path !== null) return path;
  const above = page?.parent ? items.get(page.parent) : undefined;
  return above && above.kind !== 'menu' && above.kind !== 'site' ? pageOf(above, items) : '/';
}
