/** Areas: what one client, class or chapter has, many of the same made in one step. */
export { siteAfter } from './after';
export {
  type GoingReport,
  handOverArea,
  renameArea,
  takeAreaStepBack,
  takeAreasAway,
} from './change-areas';
export { type AreaInList, type AreaList, listAreas } from './list-areas';
export { type AreasReport, makeAreas } from './make-areas';
export { newlyBroken } from './newly-broken';
