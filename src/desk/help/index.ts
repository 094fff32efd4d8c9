export { HelpScreen } from './help-screen';
