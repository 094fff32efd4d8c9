export { AreasScreen } from './areas-screen';
