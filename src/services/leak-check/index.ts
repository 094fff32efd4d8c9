/** Trying every door of a marked copy of the site. */

export { checkLeaks } from './check-leaks';
export { fillCopy } from './copy';
export { describeReport, type Knock, type Leak, type LeakReport, leakCheck, tryDoors } from './leak-check';
export { plantMarks } from './marks';
