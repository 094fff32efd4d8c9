/**
 * The turn-aways there are: one entry each, with everything that the rest of Trivet asks of one. Which kinds of item each
 * fits stands with the kinds. docs/adding.md tells what else a new one needs.
 */
import { keysOf } from '../keys';
import { type ItemKind, KINDS } from '../site/kinds';
import type { NextStep, Reason, TurnAwayShapes } from './turn-away';

interface Entry {
  /** How it is named as what somebody got: "left out". */
  readonly outcome: string;
  /** How it is offered: "a lock". */
  readonly offer: string;
  /** What it means, for the legend. */
  readonly means: string;
  /** The status of a response that is it; null where it only ever stands among other things. */
  readonly status: number | null;
  /** What it tells of the item itself: its title and something of it, the title alone, or nothing. */
  readonly tells: 'something' | 'title' | 'nothing';
  /** One to begin with, keeping the reason and the next step of the one before. */
  readonly begin: (reason: Reason, next: NextStep) => TurnAwayShapes[keyof TurnAwayShapes];
}

/** In the order in which they are offered, from the one that tells most. */
export const TURN_AWAYS = {
  teaser: {
    outcome: 'teaser',
    offer: 'a teaser',
    means: 'Teaser: title, a few words and the next step',
    status: 200,
    tells: 'something',
    begin: (reason, next) => ({
      kind: 'teaser',
      show: { kind: 'summary' },
      preview: false,
      reason,
      next,
    }),
  },
  redirect: {
    outcome: 'redirect',
    offer: 'a redirect',
    means: 'Redirect: sent somewhere else',
    status: 303,
    tells: 'nothing',
    begin: () => ({ kind: 'redirect', to: { kind: 'sign in' } }),
  },
  message: {
    outcome: 'message',
    offer: 'a message',
    means: 'Message: told that it is closed',
    status: 403,
    tells: 'nothing',
    begin: (reason, next) => ({ kind: 'message', reason, next }),
  },
  missing: {
    outcome: 'missing',
    offer: 'nothing there',
    means: 'Missing: as if nothing were there',
    status: 404,
    tells: 'nothing',
    begin: () => ({ kind: 'missing' }),
  },
  'leave out': {
    outcome: 'left out',
    offer: 'left out',
    means: 'Left out: not shown among the others',
    status: null,
    tells: 'nothing',
    begin: () => ({ kind: 'leave out' }),
  },
  swap: {
    outcome: 'swapped',
    offer: 'something else',
    means: 'Swapped: something else in its place',
    status: null,
    tells: 'nothing',
    begin: () => ({ kind: 'swap', text: 'This part is for members.' }),
  },
  locked: {
    outcome: 'locked',
    offer: 'a lock',
    means: 'Locked: shown closed, with the reason',
    status: null,
    tells: 'title',
    begin: (reason, next) => ({ kind: 'locked', reason, next }),
  },
} as const satisfies Record<string, Entry>;

export type TurnAwayKind = keyof typeof TURN_AWAYS;
export const TURN_AWAY_KINDS = keysOf(TURN_AWAYS);

/** The turn-aways that make sense for a kind of item. */
export const fittingFor = (kind: ItemKind): readonly TurnAwayKind[] => KINDS[kind].turnAways;
