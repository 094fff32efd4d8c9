/** Areas: what one client, class or chapter has, many of the same made in one step. */
export { LARGEST_AREAS } from './area-form';
export {
  type AreaAnswer,
  type GoingReport,
  handOverArea,
  renameArea,
  takeAreaStepBack,
  takeAreasAway,
} from './change-areas';
export { type AreaInList, type AreaList, listAreas } from './list-areas';
export { type AreasReport, type MakingAnswer, makeAreas } from './make-areas';
