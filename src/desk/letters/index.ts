export { LettersScreen } from './letters-screen';
