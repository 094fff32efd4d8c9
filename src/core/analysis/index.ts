/** Analysis: what is certain of every visitor there could be. */
export { type Analysis, analyse, expectationsProved } from './analyse';
export { aboutOf, type Finding, keyOfFinding, type Weight, type Witness, weightOf } from './finding';
export { type Counterexample, stands, type Verdict } from './verdicts';
