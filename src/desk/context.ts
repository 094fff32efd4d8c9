'use client';
import { createContext, useContext } from 'react';
import type {
  Analysis,
  Audience,
  AudienceId,
  CompiledPolicy,
  Following,
  Gate,
  GateId,
  Item,
  Outline,
  RequestFacts,
  StandIn,
  VisitorFacts,
  Vocabulary,
} from '@/core';
import type { DeskData } from '@/services';
import type { Bench } from './benches';
import type { BoardFilter } from './board-filter';
import type { AnalysisAtWork } from './findings';
import type { Screen } from './screens';
import type { DraftDesk } from './use-draft';
import type { Side } from './view';

/** Everything the desk's parts share. */
export interface DeskState {
  readonly data: DeskData;
  /** How wide the workbench is, in pixels; kept whichever screen one goes to. */
  readonly panelWidth: number;
  readonly setPanelWidth: (width: number) => void;
  readonly outline: Outline;
  /** The site's names and the draft's audiences. */
  readonly vocabulary: Vocabulary;
  /** The moment for which the desk decides. */
  readonly request: RequestFacts;
  readonly draft: DraftDesk;
  readonly compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy };
  /** What is certain of both, each with what the draft expects; null until it is worked out for the first time. */
  readonly analysis: {
    readonly draft: Analysis | null;
    readonly live: Analysis | null;
    /** The work on that of the draft. */
    readonly work: Pick<AnalysisAtWork, 'work' | 'stop' | 'goOn'>;
  };
  readonly standIns: readonly StandIn[];
  readonly setStandIns: (standIns: readonly StandIn[]) => void;
  readonly screen: Screen;
  readonly setScreen: (screen: Screen) => void;
  readonly side: Side;
  readonly filter: BoardFilter;
  readonly setFilter: (filter: BoardFilter) => void;
  readonly setSide: (side: Side) => void;
  readonly bench: Bench;
  /** Puts something on the workbench, and with it the board in view. */
  readonly setBench: (bench: Bench) => void;
  /** Replaces one gate of the draft. */
  readonly changeGate: (gate: Gate) => void;
  /** Adds a gate over items, or over nothing yet, to the end of the draft and opens it. */
  readonly addGate: (...items: readonly Item[]) => void;
  /** Takes a gate out of the draft; can be undone. */
  readonly removeGate: (gate: GateId) => void;
  /** Replaces one audience of the draft, or adds it. */
  readonly changeAudience: (audience: Audience) => void;
  /** Takes an audience out of the draft; can be undone. */
  readonly removeAudience: (audience: AudienceId) => void;
  /** Puts a visitor with these facts on the board, under a name, and opens them for changing. */
  readonly makeUp: (name: string, facts: VisitorFacts) => void;
  /** Goes to an item's page as a stand-in. */
  readonly walk: (standIn: StandIn, item: Item | null) => void;
  /** Reads people and names again after one of them was changed. */
  readonly reloadSite: () => Promise<void>;
}

export const DeskContext = createContext<DeskState | null>(null);

/** The desk's shared state. */
export function useDesk(): DeskState {
  const state = useContext(DeskContext);
  if (!state) throw new Error('Only parts of the desk can use its state.');
  return state;
}

/** What follows from groups and from products. */
export const followingIn = ({ byGroup, byProduct }: Pick<DeskData, 'byGroup' | 'byProduct'>): Following => ({
  byGroup: new Map(byGroup),
  byProduct: new Map(byProduct),
});
