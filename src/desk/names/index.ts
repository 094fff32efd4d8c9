export { NamesScreen } from './names-screen';
