export { EDGES, Found, FoundList, useFindingText } from './found';
export { FoundOfOne } from './found-of-one';
export { marksOf, noMarks } from './marks-of';
export { PinButton, usePin } from './pin';
export type { AnalysisAtWork } from './use-analysis';
export { useBreaks } from './use-breaks';
export { useSetAsides } from './use-set-asides';
export { useBroken, WouldBreak } from './would-break';
