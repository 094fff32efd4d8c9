/** Looking at the difference and putting it live. */
export { LivePanel } from './live-panel';
export { useEffectReport } from './use-effect-report';
