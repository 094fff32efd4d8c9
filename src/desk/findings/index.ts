export { Found, useFindingText } from './found';
export { useFindings } from './use-findings';
