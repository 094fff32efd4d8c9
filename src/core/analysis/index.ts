/** Analysis: what is certain of every visitor there could be. */
export { type Analysis, analyse, expectationsProved } from './analyse';
export type { Finding } from './findings';
export { type Counterexample, stands, type Verdict } from './verdicts';
