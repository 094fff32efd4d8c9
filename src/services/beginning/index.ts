/** Beginning a site where there is none, and the way back in when nobody can sign in. */
export { type BeginAnswer, type BeginProblems, beginningAt, beginSite, letBegin } from './begin';
export { makeOwnerLink, type OwnerAnswer, type OwnerLink, ownerLinkAt, takeOwnerLink } from './owner-link';
export { READY_MADE, type ReadyMadeId } from './ready-made';
