/** Why a decision is what it is, and what makes it otherwise. */
export { MakeSoPanel } from './make-so-panel';
export { WhyPanel } from './why-panel';
