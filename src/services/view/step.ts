/** The next steps that teasers, messages and locks offer, with everything needed to draw them. */
import { type NextStep, pathOf } from '@/core';
import { messagesOf } from '../running';
import { addressIn, follows, isSignedIn, opens, type View } from './context';
import { buyAddress, offerOf, soldAs } from './offers';

export type Step =
  | { readonly kind: 'link'; readonly label: string; readonly address: string }
  | { readonly kind: 'outside'; readonly label: string; readonly url: string }
  /** A form with one button: joining an open group. */
  | { readonly kind: 'follow'; readonly label: string; readonly address: string; readonly back: string };

/** The address of the sign-in page that leads back to another. */
export const signInAddress = ({ base }: View, back: string | null): string =>
  `${base}/sign-in${back === null ? '' : `?next=${encodeURIComponent(back)}`}`;

export const signUpAddress = ({ base }: View, back: string | null): string =>
  `${base}/sign-up${back === null ? '' : `?next=${encodeURIComponent(back)}`}`;

/** The address of the page where a passphrase is typed, which leads back to another. */
export const passphraseAddress = ({ base }: View, back: string): string =>
  `${base}/passphrase?next=${encodeURIComponent(back)}`;

/** The step for this visitor, or null when it would lead them nowhere. */
export function stepFor(context: View, next: NextStep, back: string): Step | null {
  const { state } = context;
  const { steps } = messagesOf(state);
  switch (next.kind) {
    case 'none':
      return null;
    case 'sign in':
      return isSignedIn(context)
        ? null
        : { kind: 'link', label: steps.signIn, address: signInAddress(context, back) };
    case 'sign up':
      return isSignedIn(context)
        ? null
        : { kind: 'link', label: steps.signUp, address: signUpAddress(context, back) };
    case 'passphrase':
      return { kind: 'link', label: steps.passphrase, address: passphraseAddress(context, back) };
    case 'follow': {
      const group = state.names.groups.find(({ id }) => id === next.group);
      if (!group?.open || follows(context, group.id)) return null;
      const label = steps.follow(group.name);
      return isSignedIn(context)
        ? {
            kind: 'follow',
            label,
            address: `${context.base}/groups/${encodeURIComponent(group.id)}/follow`,
            back,
          }
        : { kind: 'link', label: steps.signInToFollow, address: signInAddress(context, back) };
    }
    case 'buy': {
      const sold = soldAs(context, next.product);
      const offer = sold && offerOf(context, sold, back);
      const [price, ...others] = offer?.prices ?? [];
      if (!offer || !price || offer.has || offer.soldOut) return null;
      return {
        kind: 'link',
        label: steps.buy(offer.name, others.length === 0 ? price.words : null),
        address: buyAddress(context, offer.product, back, null),
      };
    }
    case 'item': {
      const target = state.outline.items.get(next.item);
      const path = pathOf(target);
      if (!target || path === null || !opens(context, next.item)) return null;
      return { kind: 'link', label: target.title, address: addressIn(context, path) };
    }
    case 'outside':
      return { kind: 'outside', label: next.label, url: next.url };
    default:
      return next satisfies never;
  }
}
