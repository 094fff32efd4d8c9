import type { StandIn } from '@/core';

/** A stand-in as the server takes it: by reference, never by facts. */
export const referenceOf = (standIn: StandIn): 'guest' | { readonly person: string } =>
  standIn.kind === 'guest' ? 'guest' : { person: standIn.member.id };
