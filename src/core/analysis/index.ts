/** Analysis: what is certain of every visitor there could be. */
export { askedOfDays, changeDays } from './ahead';
export { type Analysis, analyse, expectationsProved } from './analyse';
export { breaksFor, concerns } from './concerning';
export { describeFinding, inShort } from './describe-finding';
export { describeVerdict } from './describe-verdict';
export { aboutOf, type Finding, keyOfFinding, type Weight, type Witness, weightOf } from './finding';
export { type Kinds, kindsOf, representativesOf } from './kinds';
export { stands, type Verdict } from './verdicts';
