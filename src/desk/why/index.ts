/** Why a decision is what it is. */
export { WhyPanel } from './why-panel';
