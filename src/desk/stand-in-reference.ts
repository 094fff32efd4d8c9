import type { MadeUp, StandIn } from '@/core';

/** A stand-in as the server takes it: a member by reference, never by facts; a made-up one whole. */
export function referenceOf(
  standIn: StandIn,
): 'guest' | { readonly person: string } | { readonly madeUp: MadeUp } {
  switch (standIn.kind) {
    case 'guest':
      return 'guest';
    case 'member':
      return { person: standIn.member.id };
    case 'made up':
      return { madeUp: standIn.madeUp };
    default:
      return standIn satisfies never;
  }
}
