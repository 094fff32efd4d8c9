/**
 * What a visitor gets at an item: the one answer that every door gives, each in its own way. The page, its old addresses,
 * its entry in a list, the file and the API all ask here, so that none of them tells what another keeps.
 */
import { type Address, type ItemId, type NextStep, normaliseAddress, pathOf, type TurnedAway } from '@/core';
import { addressIn, arrives, decisionNowhere, decisionOn, type View } from './context';
import { passphraseAddress, signInAddress } from './step';

export type Given =
  | { readonly kind: 'open' }
  /** The title and what the teaser shows. */
  | { readonly kind: 'teaser'; readonly decision: TurnedAway }
  /** `title` is that of something that is locked, and shown so. */
  | {
      readonly kind: 'message';
      readonly title: string | null;
      readonly reason: string | null;
      readonly next: NextStep;
    }
  /** Off to an address, fit for a header. */
  | { readonly kind: 'redirect'; readonly to: string }
  | { readonly kind: 'missing' };

const missing: Given = { kind: 'missing' };

/** What this visitor gets at an item that has an address. */
export function givenAt(context: View, id: ItemId): Given {
  const decision = decisionOn(context, id);
  if (decision.kind === 'open') return { kind: 'open' };
  const { outline } = context.state;
  const path = pathOf(outline.items.get(id));
  return path === null ? missing : givenBy(context, id, decision, path);
}

function givenBy(context: View, id: ItemId | null, decision: TurnedAway, path: string): Given {
  const { turnAway, reason } = decision;
  switch (turnAway.kind) {
    case 'teaser':
      return id === null ? missing : { kind: 'teaser', decision };
    case 'message':
      return { kind: 'message', title: null, reason, next: turnAway.next };
    case 'locked': {
      const title = id === null ? null : (context.state.outline.items.get(id)?.title ?? null);
      return title === null ? missing : { kind: 'message', title, reason, next: turnAway.next };
    }
    case 'redirect': {
      const { to } = turnAway;
      switch (to.kind) {
        case 'sign in':
          return { kind: 'redirect', to: signInAddress(context, path) };
        case 'passphrase':
          return { kind: 'redirect', to: passphraseAddress(context, path) };
        case 'outside':
          // As it has to stand in a header: letters of other scripts are encoded.
          return URL.canParse(to.url) ? { kind: 'redirect', to: new URL(to.url).href } : missing;
        case 'item': {
          const target = pathOf(context.state.outline.items.get(to.item));
          return target !== null && arrives(context, id ?? to.item)
            ? { kind: 'redirect', to: addressIn(context, target) }
            : missing;
        }
        default:
          return to satisfies never;
      }
    }
    case 'missing':
    case 'leave out':
    case 'swap':
      return missing;
    default:
      return turnAway satisfies never;
  }
}

/**
 * What this visitor gets where nothing is for them: what the gates over the whole site give there, or that there is nothing.
 * The same for what was never there and for what is missing.
 */
export function givenNowhere(context: View, path: string): Given {
  const address: Address | null = normaliseAddress(path);
  const kind = address?.startsWith('/files/') ? 'file' : 'page';
  const decision = decisionNowhere(context, kind, address);
  return decision.kind === 'open' ? missing : givenBy(context, null, decision, address ?? '/');
}
