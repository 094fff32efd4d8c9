/** Analysis: what is certain of every visitor there could be. */
export { type Finding, findingsIn } from './findings';
