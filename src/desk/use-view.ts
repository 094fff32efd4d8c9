'use client';
/** The view of the desk, kept in step with the address: Back and Forward go through the screens. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Bench } from './benches';
import type { BoardFilter } from './board-filter';
import { addressOfScreen, type Screen } from './screens';
import { addressOfView, readView, type Side, titleOfView, type View } from './view';

/** The view and the ways to change it. */
export interface ViewState extends View {
  readonly setScreen: (screen: Screen) => void;
  readonly setSide: (side: Side) => void;
  readonly setBench: (bench: Bench) => void;
  readonly setFilter: (filter: BoardFilter) => void;
}

export function useView(initial: View): ViewState {
  const [view, setView] = useState(initial);
  const shown = useRef(initial.screen);

  useEffect(() => {
    const address = addressOfView(view);
    if (address === window.location.pathname + window.location.search) {
      shown.current = view.screen;
      return;
    }
    // Another screen is a step that Back takes back; another view of the same one is not.
    const step = stepOf(shown.current) !== stepOf(view.screen);
    window.history[step ? 'pushState' : 'replaceState'](null, '', address);
    shown.current = view.screen;
    document.title = `${titleOfView(view)} · Trivet`;
  }, [view]);

  useEffect(() => {
    const onBack = () => {
      const { pathname, search } = window.location;
      const path = pathname.split('/').slice(2).filter(Boolean);
      const back = readView(path, Object.fromEntries(new URLSearchParams(search)));
      if (back) setView(back);
    };
    window.addEventListener('popstate', onBack);
    return () => window.removeEventListener('popstate', onBack);
  }, []);

  return {
    ...view,
    setScreen: useCallback((screen) => setView((now) => ({ ...now, screen, bench: { kind: 'gates' } })), []),
    setSide: useCallback((side) => setView((now) => ({ ...now, side })), []),
    setFilter: useCallback((filter) => setView((now) => ({ ...now, filter })), []),
    // A gate is changed in the draft, so the draft is what has to be in view.
    setBench: useCallback(
      (bench) =>
        setView((now) => ({
          ...now,
          screen: { kind: 'board' },
          side: bench.kind === 'gate' && now.side === 'live' ? 'draft' : now.side,
          bench,
        })),
      [],
    ),
  };
}

const stepOf = (screen: Screen): string => addressOfScreen(screen).path;
