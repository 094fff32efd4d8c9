/** Differences between policies, as they are read. */
export { ChangeList, type PolicySide } from './change-list';
