'use client';
import { createContext, useContext } from 'react';
import type { CompiledPolicy, Gate, GateId, Item, ItemId, Outline, StandIn, Vocabulary } from '@/core';
import type { DeskData } from '@/services';
import type { DraftDesk } from './use-draft';

/** Which policy the board shows. */
export type Side = 'live' | 'draft' | 'difference';

/** What the workbench beside the board holds. */
export type Bench =
  | { readonly kind: 'gates' }
  | { readonly kind: 'why'; readonly item: ItemId; readonly standIn: string }
  | { readonly kind: 'gate'; readonly gate: GateId }
  | { readonly kind: 'put live' };

/** Everything the desk's parts share. */
export interface DeskState {
  readonly data: DeskData;
  readonly outline: Outline;
  readonly vocabulary: Vocabulary;
  readonly draft: DraftDesk;
  readonly compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy };
  readonly standIns: readonly StandIn[];
  readonly setStandIns: (standIns: readonly StandIn[]) => void;
  readonly side: Side;
  readonly setSide: (side: Side) => void;
  readonly bench: Bench;
  readonly setBench: (bench: Bench) => void;
  /** Replaces one gate of the draft. */
  readonly changeGate: (gate: Gate) => void;
  /** Adds a gate over an item to the end of the draft and opens it. */
  readonly addGate: (item: Item | null) => void;
  /** Takes a gate out of the draft; can be undone. */
  readonly removeGate: (gate: GateId) => void;
  /** Goes to an item's page as a stand-in. */
  readonly walk: (standIn: StandIn, item: Item | null) => void;
}

export const DeskContext = createContext<DeskState | null>(null);

/** The desk's shared state. */
export function useDesk(): DeskState {
  const state = useContext(DeskContext);
  if (!state) throw new Error('Only parts of the desk can use its state.');
  return state;
}
