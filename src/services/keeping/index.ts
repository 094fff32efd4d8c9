/** Keeping a site: backups made while it is served, and brought back. */
export { backUp } from './backup';
export { moveIntoFolder, moveSite, NotMoved } from './move-site';
export { readiness } from './readiness';
export { finishRestore, NotRestored, restore } from './restore';
