/** Policies: deciding, explaining, and comparing before anything is live. */
export * from './arrival';
export { assume, canBeAssumed } from './assume';
export * from './compile';
export * from './decide';
export * from './decision';
export * from './difference';
export * from './effect';
export * from './explain';
export * from './matrix';
export * from './misled';
export * from './nowhere';
export { openedByMerge } from './opened-by-merge';
export { type Change, openers, withChanges } from './openers';
export * from './policy';
export * from './rebase';
export { type Reach, reachOfItem } from './standing';
export * from './uses';
export * from './whole-site';
